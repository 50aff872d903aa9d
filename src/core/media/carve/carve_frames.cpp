#include "core/media/adts_frame.h"
#include "core/media/carve/carvings.h"
#include "core/media/carve/mpeg_stream.h"
#include "core/media/layer3_frame.h"

#include <algorithm>

namespace sober {
namespace {

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
    auto last = at;   // beginning of the last frame
    auto before = at; // and of the one before it
    auto next = at;
    for (auto link = first; link && link->stream == first->stream; link = linkAt(window.at(next, 16))) {
        const bool mayBegin = next > at && next % sectorBytes == 0;
        another = mayBegin && ((expected > 0 && frames >= expected) || beginsAnew(next));
        if (another || next + link->bytes > window.size()) {
            break;
        }
        before = last;
        last = next;
        next += link->bytes;
        piece.seconds += link->seconds;
        ++frames;
    }
    if (frames < fewestLinks) {
        return std::nullopt;
    }
    piece.past = next;
    piece.lastUnit = last;
    piece.nextUnit = frames;
    const auto behind = behindTags(window, next);
    if (another || behind > next || isSlack(window, next) || (expected > 0 && frames >= expected)) {
        piece.past = behind;
        piece.ends = expected == 0 || frames >= expected;
    } else if (next % sectorBytes != 0 && last / sectorBytes != next / sectorBytes) {
        // The last frame lies across a place where a file system may have broken off, and nothing shows that
        // it is whole.
        piece.past = last;
        piece.lastUnit = before;
        --piece.nextUnit;
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
    return Link{frame->bytes, mpegStreamOf(*frame), static_cast<double>(frame->samples) / frame->sampleRate};
}

std::optional<Link> adtsLink(std::span<const std::uint8_t> bytes) {
    const auto frame = readAdtsFrame(bytes);
    return frame ? std::optional(Link{frame->bytes, frame->stream,
                                      static_cast<double>(frame->samples) / frame->sampleRate})
                 : std::nullopt;
}

bool isTooShort(const Piece& piece) {
    return !piece.begins && piece.seconds < shortestHeadless;
}

} // namespace

std::optional<Piece> carveMpeg(ImageWindow& window, std::uint64_t at) {
    const auto statedAt = [&](std::uint64_t place) -> std::uint64_t {
        const auto bytes = window.at(place, 256);
        const auto header = readMpegFrame(bytes);
        const auto stated =
            header ? readStatedFrames(*header, bytes.first(std::min(bytes.size(), header->bytes)))
                   : std::nullopt;
        return stated ? stated->frames : 0;
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
