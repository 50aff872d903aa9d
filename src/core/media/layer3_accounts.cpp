#include "core/media/layer3_accounts.h"

#include "core/media/bit_reader.h"
#include "core/media/layer3_frame.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

using Bytes = std::span<const std::uint8_t>;

constexpr std::size_t farthestBack = 511; // bytes: main_data_begin has nine bits
constexpr unsigned lines = 576;

/// What the side information says of one granule and channel.
struct Granule {
    unsigned bits = 0; ///< of scale factors and codes
    unsigned pairs = 0;
    unsigned compress = 0;
    unsigned blockType = 0; ///< 2: three short blocks
    bool isMixed = false;
    std::array<unsigned, 3> tables{};
    std::array<unsigned, 2> regions{}; ///< where the second and the third begin, in lines
    bool secondQuads = false;
    unsigned shared = 0; ///< scfsi: groups of scale factors that are those of the granule before
};

/// Where the bands of long blocks begin: table B.8, and 13818-3 table B.2. By version 1, 2, 2.5 and rate.
const std::array<std::uint16_t, 23>& longBands(const MpegFrame& frame) {
    static constexpr std::array<std::uint16_t, 23> at44{
        0, 4, 8, 12, 16, 20, 24, 30, 36, 44, 52, 62, 74, 90, 110, 134, 162, 196, 238, 288, 342, 418, 576};
    static constexpr std::array<std::uint16_t, 23> at48{
        0, 4, 8, 12, 16, 20, 24, 30, 36, 42, 50, 60, 72, 88, 106, 128, 156, 190, 230, 276, 330, 384, 576};
    static constexpr std::array<std::uint16_t, 23> at32{
        0, 4, 8, 12, 16, 20, 24, 30, 36, 44, 54, 66, 82, 102, 126, 156, 194, 240, 296, 364, 448, 550, 576};
    static constexpr std::array<std::uint16_t, 23> at24{
        0, 6, 12, 18, 24, 30, 36, 44, 54, 66, 80, 96, 114, 136, 162, 194, 232, 278, 332, 394, 464, 540, 576};
    static constexpr std::array<std::uint16_t, 23> lower{
        0, 6, 12, 18, 24, 30, 36, 44, 54, 66, 80, 96, 116, 140, 168, 200, 238, 284, 336, 396, 464, 522, 576};
    static constexpr std::array<std::uint16_t, 23> at8{0,   12,  24,  36,  48,  60,  72,  88,
                                                       108, 132, 160, 192, 232, 280, 336, 400,
                                                       476, 566, 568, 570, 572, 574, 576};
    switch (frame.sampleRate) {
    case 44'100:
        return at44;
    case 48'000:
        return at48;
    case 32'000:
        return at32;
    case 24'000:
        return at24;
    case 8'000:
        return at8;
    default:
        return lower;
    }
}

/// Where region 1 begins in a granule of another window: behind nine short bands or eight long ones.
unsigned firstRegion(const MpegFrame& frame, unsigned blockType, bool isMixed) {
    const bool isShort = blockType == 2 && !isMixed;
    if (frame.sampleRate == 8'000) {
        return isShort ? 72 : 108;
    }
    return isShort || frame.version == 1 ? 36 : 54;
}

Granule readGranule(BitReader& side, const MpegFrame& frame) {
    Granule granule;
    granule.bits = side.take(12);
    granule.pairs = side.take(9);
    side.pass(8); // the gain
    granule.compress = side.take(frame.version == 1 ? 4 : 9);
    if (side.take(1) != 0) {
        granule.blockType = side.take(2);
        granule.isMixed = side.take(1) != 0;
        granule.tables = {side.take(5), side.take(5), 0};
        side.pass(9); // gains of the short blocks
        granule.regions = {firstRegion(frame, granule.blockType, granule.isMixed), lines};
    } else {
        for (auto& table : granule.tables) {
            table = side.take(5);
        }
        const auto& bands = longBands(frame);
        const auto first = side.take(4) + 1;
        const auto second = first + side.take(3) + 1;
        granule.regions = {bands[first], bands[std::min<std::size_t>(second, bands.size() - 1)]};
    }
    side.pass(frame.version == 1 ? 2 : 1); // pre-emphasis and scale
    granule.secondQuads = side.take(1) != 0;
    return granule;
}

/// Bits of scale factors: 11172-3 section 2.4.2.7.
unsigned scaleBitsOfFirst(const Granule& granule) {
    constexpr std::array<unsigned, 16> lower{0, 0, 0, 0, 3, 1, 1, 1, 2, 2, 2, 3, 3, 3, 4, 4};
    constexpr std::array<unsigned, 16> upper{0, 1, 2, 3, 0, 1, 2, 3, 1, 2, 3, 1, 2, 3, 2, 3};
    const auto low = lower[granule.compress];
    const auto high = upper[granule.compress];
    if (granule.blockType == 2) {
        return (granule.isMixed ? 17 : 18) * low + 18 * high;
    }
    const auto unlessShared = [&](unsigned group, unsigned bits) {
        return (granule.shared >> (3 - group) & 1U) != 0 ? 0 : bits;
    };
    return unlessShared(0, 6 * low) + unlessShared(1, 5 * low) + unlessShared(2, 5 * high) +
           unlessShared(3, 5 * high);
}

/// The same at the lower rates: 13818-3 section 2.4.3.2. `byIntensity`: the second channel holds where sound
/// comes from.
unsigned scaleBitsOfLower(const Granule& granule, bool byIntensity) {
    struct Way {
        std::array<unsigned, 4> lengths;
        std::array<std::array<unsigned, 4>, 3> counts; ///< for long, short and mixed blocks
    };
    const auto way = [&]() -> Way {
        auto code = granule.compress;
        if (!byIntensity) {
            if (code < 400) {
                return {{(code >> 4) / 5, (code >> 4) % 5, (code & 15) >> 2, code & 3},
                        {{{6, 5, 5, 5}, {9, 9, 9, 9}, {6, 9, 9, 9}}}};
            }
            if (code < 500) {
                code -= 400;
                return {{(code >> 2) / 5, (code >> 2) % 5, code & 3, 0},
                        {{{6, 5, 7, 3}, {9, 9, 12, 6}, {6, 9, 12, 6}}}};
            }
            code -= 500;
            return {{code / 3, code % 3, 0, 0}, {{{11, 10, 0, 0}, {18, 18, 0, 0}, {15, 18, 0, 0}}}};
        }
        code >>= 1;
        if (code < 180) {
            return {{code / 36, code % 36 / 6, code % 6, 0},
                    {{{7, 7, 7, 0}, {12, 12, 12, 0}, {6, 15, 12, 0}}}};
        }
        if (code < 244) {
            code -= 180;
            return {{code >> 4, (code & 15) >> 2, code & 3, 0},
                    {{{6, 6, 6, 3}, {12, 9, 9, 6}, {6, 12, 9, 6}}}};
        }
        code -= 244;
        return {{code / 3, code % 3, 0, 0}, {{{8, 8, 5, 0}, {15, 12, 9, 0}, {6, 18, 9, 0}}}};
    }();
    const auto& counts = way.counts[granule.blockType != 2 ? 0 : granule.isMixed ? 2 : 1];
    unsigned bits = 0;
    for (std::size_t i = 0; i < counts.size(); ++i) {
        bits += way.lengths[i] * counts[i];
    }
    return bits;
}

/// Goes over the codes of a granule, whose scale factors went by; true where they end at `end`.
bool endsAt(BitReader& bits, std::uint64_t end, const Granule& granule, const Layer3Codes& codes) {
    const unsigned inPairs = 2 * granule.pairs;
    if (inPairs > lines) {
        return false;
    }
    unsigned line = 0;
    for (std::size_t region = 0; region < granule.tables.size(); ++region) {
        const auto table = granule.tables[region];
        const auto until =
            region < granule.regions.size() ? std::min(granule.regions[region], inPairs) : inPairs;
        if (table == 0) { // zeros, without any bits
            line = std::max(line, until);
        } else if (line < until && !Layer3Codes::isTable(table)) {
            return false;
        }
        const auto beyond = Layer3Codes::bitsBeyond(table);
        for (; line < until && bits.at() <= end; line += 2) {
            const auto code = codes.pair(table, bits.next32());
            bits.pass(code.bits + code.beyond * beyond);
        }
    }
    for (; line + 4 <= lines && bits.at() < end; line += 4) {
        bits.pass(codes.quad(granule.secondQuads, bits.next32()).bits);
    }
    return bits.at() == end;
}

} // namespace

void Layer3Accounts::take(const MpegFrame& frame, Bytes bytes, double at) {
    const auto header = mpegHeaderLength(bytes);
    const auto sideLength = sideInfoLength(frame);
    if (bytes.size() < header + sideLength) {
        return;
    }
    BitReader side(bytes.subspan(header, sideLength));
    const auto begin = side.take(frame.version == 1 ? 9 : 8);
    const auto channels = static_cast<std::size_t>(frame.channels);
    side.pass(frame.version == 1 ? (channels == 1 ? 5 : 3) : channels);
    std::array<unsigned, 2> shared{};
    for (std::size_t channel = 0; frame.version == 1 && channel < channels; ++channel) {
        shared[channel] = side.take(4);
    }
    const auto own = bytes.subspan(header + sideLength);
    const bool isAllThere = begin <= before_.size();
    if (isAllThere) {
        before_.erase(before_.begin(), before_.end() - static_cast<std::ptrdiff_t>(begin));
    }
    before_.insert(before_.end(), own.begin(), own.end());
    const bool byIntensity = channels == 2 && bytes[3] >> 6 == 1 && (bytes[3] >> 4 & 1) != 0;
    BitReader main(before_);
    const std::size_t granules = frame.version == 1 ? 2 : 1;
    for (std::size_t i = 0; isAllThere && i < granules * channels; ++i) {
        auto granule = readGranule(side, frame);
        granule.shared = i >= channels ? shared[i % channels] : 0;
        const auto end = main.at() + granule.bits;
        if (end > before_.size() * 8) {
            break; // the structure says that
        }
        if (granule.bits > 0) {
            main.pass(frame.version == 1 ? scaleBitsOfFirst(granule)
                                         : scaleBitsOfLower(granule, byIntensity && i % channels == 1));
            ++counted_;
            if (!endsAt(main, end, granule, codes_)) {
                firstOdd_ = odd_ == 0 ? at : firstOdd_;
                ++odd_;
            }
        }
        main.goTo(end);
    }
    if (before_.size() > farthestBack) {
        before_.erase(before_.begin(), before_.end() - farthestBack);
    }
}

} // namespace sober
