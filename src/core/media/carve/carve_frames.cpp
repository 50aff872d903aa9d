#include "core/media/carve/carvings.h"
#include "core/media/mpeg_frame.h"
#include "core/media/push_parser.h"

#include <algorithm>

namespace sober {
namespace {

using namespace std::string_view_literals;

/// One frame of a chain.
struct Link {
    std::size_t bytes = 0;
    std::uint64_t stream = 0; ///< what all frames of a stream have in common
    double seconds = 0;
};

/// Frames in a row that are taken for audio; less happens by chance, or between the pictures of a video. No
/// source.
constexpr std::uint64_t fewestLinks = 6;
/// What does not begin like a file has to last so long, in seconds. No source.
constexpr double shortestHeadless = 1;

/// Frames from `at` on, each followed by another of its stream. `expected` is how many the first states, 0
/// where it does not; `beginsAnew` says of the bytes at a frame that they are another file's first.
template <typename LinkAt, typename BeginsAnew>
std::optional<Piece> carveChain(ImageWindow& window, std::uint64_t at, std::uint64_t expected, LinkAt linkAt,
                                BeginsAnew beginsAnew) {
    const auto first = linkAt(window.at(at, 16));
    if (!first) {
        return std::nullopt;
    }
    Piece piece;
    piece.first = at;
    piece.stream = first->stream;
    piece.stated = expected;
    std::uint64_t frames = 0;
    bool another = false;
    auto last = at; // beginning of the last frame
    auto next = at;
    for (auto link = first; link && link->stream == first->stream; link = linkAt(window.at(next, 16))) {
        const bool mayBegin = next > at && next % sectorBytes == 0;
        another = mayBegin && ((expected > 0 && frames >= expected) || beginsAnew(next));
        if (another || next + link->bytes > window.size()) {
            break;
        }
        last = next;
        next += link->bytes;
        piece.seconds += link->seconds;
        ++frames;
    }
    if (frames < fewestLinks) {
        return std::nullopt;
    }
    piece.past = next;
    piece.nextUnit = frames;
    const auto behind = behindTags(window, next);
    if (another || behind > next || isSlack(window, next) || (expected > 0 && frames >= expected)) {
        piece.past = behind;
        piece.ends = expected == 0 || frames >= expected;
    } else if (next % sectorBytes != 0 && last / sectorBytes != next / sectorBytes) {
        // The last frame lies across a place where a file system may have broken off, and nothing shows that
        // it is whole.
        piece.past = last;
    } else {
        piece.ends = expected == 0 && next % sectorBytes == 0;
    }
    return piece;
}

std::optional<Link> mpegLink(std::span<const std::uint8_t> bytes) {
    const auto frame = readMpegFrame(bytes);
    if (!frame || frame->bytes < 4 || frame->layer == 1) {
        return std::nullopt;
    }
    return Link{frame->bytes,
                static_cast<std::uint64_t>(frame->version) << 32 |
                    static_cast<std::uint64_t>(frame->layer) << 24 |
                    static_cast<std::uint64_t>(frame->sampleRate) << 1 | (frame->channels == 1 ? 1U : 0U),
                static_cast<double>(frame->samples) / frame->sampleRate};
}

/// ADTS header of ISO/IEC 13818-7 section 6.2.
std::optional<Link> adtsLink(std::span<const std::uint8_t> bytes) {
    constexpr int rates[]{96'000, 88'200, 64'000, 48'000, 44'100, 32'000, 24'000,
                          22'050, 16'000, 12'000, 11'025, 8'000,  7'350};
    if (bytes.size() < 7 || bytes[0] != 0xFF || (bytes[1] & 0xF6) != 0xF0) {
        return std::nullopt;
    }
    const std::size_t rate = (bytes[2] >> 2) & 15;
    const std::size_t length = static_cast<std::size_t>(bytes[3] & 3) << 11 |
                               static_cast<std::size_t>(bytes[4]) << 3 | bytes[5] >> 5;
    if (rate >= std::size(rates) || length < 8) {
        return std::nullopt;
    }
    const auto blocks = static_cast<unsigned>(bytes[6] & 3) + 1;
    const auto shared = static_cast<std::uint64_t>(bytes[1] & 0x0F) << 16 |
                        static_cast<std::uint64_t>(bytes[2] & 0xFD) << 8 | (bytes[3] & 0xC0U);
    return Link{length, shared, 1024.0 * blocks / rates[rate]};
}

/// The frames that the first one states (its Xing, Info or VBRI header; common practice, no standard); 0
/// where it does not.
std::uint64_t statedFrames(std::span<const std::uint8_t> frame, const MpegFrame& header) {
    const std::size_t side =
        header.version == 1 ? (header.channels == 1 ? 17 : 32) : (header.channels == 1 ? 9 : 17);
    const auto xing = frame.subspan(std::min(frame.size(), 4 + side));
    if ((beginsWith(xing, "Xing"sv) || beginsWith(xing, "Info"sv)) && xing.size() >= 12 &&
        (xing[7] & 1) != 0) {
        return bigEndian(xing.subspan(8, 4));
    }
    const auto vbri = frame.subspan(std::min<std::size_t>(frame.size(), 36));
    return beginsWith(vbri, "VBRI"sv) && vbri.size() >= 18 ? bigEndian(vbri.subspan(14, 4)) : 0;
}

bool isTooShort(const Piece& piece) {
    return !piece.begins && piece.seconds < shortestHeadless;
}

} // namespace

std::optional<Piece> carveMpeg(ImageWindow& window, std::uint64_t at) {
    const auto statedAt = [&](std::uint64_t place) -> std::uint64_t {
        const auto bytes = window.at(place, 256);
        const auto header = readMpegFrame(bytes);
        return header ? statedFrames(bytes.first(std::min(bytes.size(), header->bytes)), *header) : 0;
    };
    const auto stated = statedAt(at);
    // What states it is a frame too, without audio.
    auto piece = carveChain(window, at, stated == 0 ? 0 : stated + 1, mpegLink,
                            [&](std::uint64_t place) { return statedAt(place) > 0; });
    if (!piece) {
        return std::nullopt;
    }
    piece->kind = PieceKind::mp3;
    piece->begins = stated > 0 || at % sectorBytes == 0;
    if (stated > 0 && piece->nextUnit > 0) {
        piece->seconds -= piece->seconds / static_cast<double>(piece->nextUnit);
    }
    return isTooShort(*piece) ? std::nullopt : piece;
}

std::optional<Piece> carveAdts(ImageWindow& window, std::uint64_t at) {
    auto piece = carveChain(window, at, 0, adtsLink, [](std::uint64_t /*place*/) { return false; });
    if (!piece) {
        return std::nullopt;
    }
    piece->kind = PieceKind::aac;
    piece->begins = at % sectorBytes == 0;
    return isTooShort(*piece) ? std::nullopt : piece;
}

} // namespace sober
