#include "core/media/carve/carvings.h"
#include "core/media/flac_frame.h"
#include "core/media/push_parser.h"

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

using namespace std::string_view_literals;

/// What does not begin like a file has to be so many frames. No source.
constexpr std::uint64_t fewestFlacFrames = 4;

struct StreamInfo {
    std::uint64_t samples = 0; ///< 0: not stated
    unsigned rate = 0;
    unsigned bits = 0;
    std::size_t largestFrame = 0; ///< bytes; 0: not stated
};

/// STREAMINFO of RFC 9639 section 8.2.
StreamInfo streamInfoOf(std::span<const std::uint8_t> block) {
    StreamInfo info;
    info.largestFrame = static_cast<std::size_t>(bigEndian(block.subspan(7, 3)));
    const auto packed = bigEndian(block.subspan(10, 8));
    info.rate = static_cast<unsigned>(packed >> 44);
    info.bits = static_cast<unsigned>(packed >> 36 & 31) + 1;
    info.samples = packed & 0xFFFFFFFFFULL;
    return info;
}

/// Behind the metadata blocks, of which the first is read; 0 where they make no sense.
std::uint64_t behindMetadata(ImageWindow& window, std::uint64_t at, StreamInfo& info) {
    for (bool first = true;; first = false) {
        const auto head = window.at(at, 4 + 34);
        if (head.size() < 4) {
            return 0;
        }
        const unsigned type = head[0] & 127;
        const auto length = bigEndian(head.subspan(1, 3));
        if (first != (type == 0) || type > 6) {
            return 0;
        }
        if (first) {
            if (length != 34 || head.size() < 38) {
                return 0;
            }
            info = streamInfoOf(head.subspan(4));
        }
        at += 4 + length;
        if ((head[0] & 128) != 0) {
            return at;
        }
    }
}

/// Follows frames; each is held against its check value.
class FrameChain {
  public:
    FrameChain(ImageWindow& window, const StreamInfo& info) : window_(window), info_(info) {}

    void follow(Piece& piece, std::uint64_t at) {
        auto frame = readFlacFrame(window_.at(at, 16));
        if (!frame) {
            piece.past = at;
            return;
        }
        const unsigned rate = frame->sampleRate != 0 ? frame->sampleRate : info_.rate;
        piece.firstUnit = frame->number;
        piece.stream = static_cast<std::uint64_t>(rate) << 16 | frame->channels << 8 |
                       (frame->bits != 0 ? frame->bits : info_.bits);
        piece.unitSamples = frame->variable ? 0 : frame->samples;
        std::uint64_t samples = 0;
        while (frame) {
            const auto end = endOf(at, *frame);
            if (end == 0) {
                break;
            }
            samples += frame->samples;
            ++frames_;
            piece.nextUnit = frame->number + (frame->variable ? frame->samples : 1);
            at = end;
            const auto next = readFlacFrame(window_.at(at, 16));
            frame = next && isNext(*next, piece.nextUnit, *frame) ? next : std::nullopt;
        }
        piece.past = at;
        piece.seconds = rate > 0 ? static_cast<double>(samples) / rate : 0;
        const bool all = piece.begins && info_.samples > 0 && samples >= info_.samples;
        piece.ends = all || (info_.samples == 0 && isSlack(window_, at));
        if (piece.ends) {
            piece.past = behindTags(window_, at);
        }
    }

    std::uint64_t frames() const { return frames_; }

  private:
    static bool isNext(const FlacFrame& next, std::uint64_t number, const FlacFrame& before) {
        return next.number == number && next.variable == before.variable &&
               next.channels == before.channels && next.bits == before.bits &&
               next.sampleRate == before.sampleRate;
    }

    /// One past a frame's last byte: where the next begins and the check value holds, else by its subframes.
    std::uint64_t endOf(std::uint64_t at, const FlacFrame& frame) {
        const unsigned depth = frame.bits != 0 ? frame.bits : info_.bits != 0 ? info_.bits : 32;
        const std::size_t plain = std::size_t{frame.samples} * frame.channels * (depth + 1) / 8 + 256;
        const auto most = std::max(plain, info_.largestFrame) + 16;
        const auto bytes = window_.at(at, most);
        const auto number = frame.number + (frame.variable ? frame.samples : 1);
        std::uint16_t crc = 0;
        std::size_t summed = 0;
        for (std::size_t place = frame.headerBytes; place + 6 <= bytes.size();) {
            const auto* const found = static_cast<const std::uint8_t*>(
                std::memchr(bytes.data() + place, 0xFF, bytes.size() - place - 5));
            if (found == nullptr) {
                break;
            }
            place = static_cast<std::size_t>(found - bytes.data());
            const auto next = (found[1] & 0xFE) == 0xF8 ? readFlacFrame(bytes.subspan(place)) : std::nullopt;
            if (next && isNext(*next, number, frame)) {
                crc = flacCrc(bytes.subspan(summed, place - summed), crc);
                summed = place;
                if (crc == 0) {
                    return at + place;
                }
            }
            ++place;
        }
        const auto length = flacFrameLength(bytes, info_.bits);
        return length == 0 ? 0 : at + length;
    }

    ImageWindow& window_;
    const StreamInfo& info_;
    std::uint64_t frames_ = 0;
};

} // namespace

std::optional<Piece> carveFlac(ImageWindow& window, std::uint64_t at) {
    Piece piece;
    piece.kind = PieceKind::flac;
    piece.first = at;
    StreamInfo info;
    auto audio = at;
    piece.begins = beginsWith(window.at(at, 4), "fLaC"sv);
    if (piece.begins) {
        audio = behindMetadata(window, at + 4, info);
        if (audio == 0) {
            return std::nullopt;
        }
        piece.stated = info.samples;
    }
    FrameChain chain(window, info);
    chain.follow(piece, audio);
    return chain.frames() >= (piece.begins ? 1 : fewestFlacFrames) ? std::optional(piece) : std::nullopt;
}

} // namespace sober
