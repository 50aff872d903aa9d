#include "core/media/carve/join_mpeg.h"

#include "core/media/carve/mpeg_stream.h"
#include "core/media/layer3_frame.h"

#include <algorithm>
#include <bit>
#include <vector>

namespace sober {
namespace {

using Bytes = std::span<const std::uint8_t>;

constexpr std::size_t longestMpegFrame =
    2881; // of any bitrate and rate of Layer III, padded, and more than any
/// Where nothing was left over any frame fits. No source.
constexpr std::int64_t tellsFrom = 8; // bytes

std::optional<Reach> reachOf(Bytes bytes, std::uint64_t stream) {
    const auto frame = readMpegFrame(bytes);
    if (!frame || frame->layer != 3 || mpegStreamOf(*frame) != stream) {
        return std::nullopt;
    }
    const auto header = mpegHeaderLength(bytes);
    const auto side = sideInfoLength(*frame);
    if (bytes.size() < header + side || frame->bytes < header + side) {
        return std::nullopt;
    }
    const auto info = readSideInfo(*frame, bytes.subspan(header, side));
    const auto own = static_cast<std::int64_t>(frame->bytes - header - side);
    const auto taken = static_cast<std::int64_t>((info.bits + 7) / 8);
    const auto back = static_cast<std::int64_t>(info.mainDataBegin);
    return taken > back + own ? std::nullopt : std::optional(Reach{back, back + own - taken, frame->bytes});
}

bool tells(const Reach& reach) {
    return reach.back >= tellsFrom;
}

bool follows(const Reach& before, const Reach& after) {
    return after.back == before.left;
}

std::vector<std::uint8_t> bytesAt(ByteSource& image, std::uint64_t at, std::uint64_t length) {
    std::vector<std::uint8_t> bytes(static_cast<std::size_t>(length));
    const auto got = image.readAt(at, bytes);
    bytes.resize(got > 0 ? static_cast<std::size_t>(got) : 0);
    return bytes;
}

} // namespace

std::optional<Reach> mpegReachAt(ByteSource& image, std::uint64_t at, std::uint64_t stream) {
    constexpr std::size_t headers = 64; // bytes that hold header, check value and side information
    return reachOf(bytesAt(image, at, headers), stream);
}

std::optional<Break> mpegBreak(ByteSource& image, const Piece& piece, const Reach& last, const Piece& next,
                               const Reach& first) {
    if (piece.past % sectorBytes == 0 && next.first % sectorBytes == 0) {
        return tells(first) && follows(last, first) ? std::optional(Break{piece.past, next.first, false})
                                                    : std::nullopt;
    }
    const auto head = bytesAt(image, piece.past, longestMpegFrame);
    const auto firstPast = (piece.past / sectorBytes + 1) * sectorBytes;
    if (const auto known =
            reachOf(std::span(head).first(std::min<std::size_t>(head.size(), firstPast - piece.past)),
                    piece.stream)) {
        const bool fits = follows(last, *known) && follows(*known, first) && next.first > known->bytes &&
                          (next.first - known->bytes - piece.past) % sectorBytes == 0;
        if (!fits) {
            return std::nullopt;
        }
    }
    const auto reach = std::min<std::uint64_t>(next.first, longestMpegFrame);
    const auto tail = bytesAt(image, next.first - reach, reach);
    std::optional<Break> best;
    int bestAlignment = -1;
    std::vector<std::uint8_t> unit;
    for (auto past = firstPast; past - piece.past <= head.size(); past += sectorBytes) {
        const auto before = static_cast<std::size_t>(past - piece.past);
        for (auto from = next.first / sectorBytes * sectorBytes; next.first - from <= tail.size() && from > 0;
             from -= sectorBytes) {
            const auto rest = static_cast<std::size_t>(next.first - from);
            unit.assign(head.begin(), head.begin() + static_cast<std::ptrdiff_t>(before));
            unit.insert(unit.end(), tail.end() - static_cast<std::ptrdiff_t>(rest), tail.end());
            const auto across = reachOf(unit, piece.stream);
            const bool fits = across && across->bytes == unit.size() && follows(last, *across) &&
                              follows(*across, first) && (tells(*across) || tells(first));
            // Of several places that fit the one where file systems break files off.
            const auto alignment = std::countr_zero(past) + std::countr_zero(from);
            if (fits && alignment > bestAlignment) {
                best = Break{past, from, true};
                bestAlignment = alignment;
            }
        }
    }
    return best;
}

} // namespace sober
