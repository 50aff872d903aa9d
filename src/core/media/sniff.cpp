#include "core/media/sniff.h"

#include "core/media/adts_frame.h"
#include "core/media/mpeg_frame.h"
#include "core/media/tag_lengths.h"

#include <algorithm>
#include <string_view>

namespace sober {
namespace {

using namespace std::string_view_literals;
using Bytes = std::span<const std::uint8_t>;

bool holdsAt(Bytes head, std::size_t at, std::string_view signature) {
    return head.size() >= at + signature.size() &&
           std::equal(signature.begin(), signature.end(), head.begin() + static_cast<std::ptrdiff_t>(at),
                      [](char a, std::uint8_t b) { return static_cast<std::uint8_t>(a) == b; });
}

/// AC-3 sync word and frame size, ETSI TS 102 366 table 4.13: 0 where the bytes are not a frame.
std::size_t ac3FrameLength(Bytes bytes) {
    constexpr std::size_t kbps[] = {32,  40,  48,  56,  64,  80,  96,  112, 128, 160,
                                    192, 224, 256, 320, 384, 448, 512, 576, 640};
    if (bytes.size() < 5 || bytes[0] != 0x0B || bytes[1] != 0x77) {
        return 0;
    }
    const unsigned rate = bytes[4] >> 6;
    const unsigned size = bytes[4] & 63;
    if (rate == 3 || size >= 38) {
        return 0;
    }
    const std::size_t bitrate = kbps[size / 2];
    const std::size_t words = rate == 0   ? bitrate * 2
                              : rate == 1 ? bitrate * 96000 / 44100 + (size & 1U)
                                          : bitrate * 3;
    return words * 2;
}

std::size_t adtsFrameLength(Bytes bytes) {
    const auto frame = readAdtsFrame(bytes);
    return frame ? frame->bytes : 0;
}

std::size_t mpegFrameLength(Bytes bytes) {
    const auto frame = readMpegFrame(bytes);
    return frame ? frame->bytes : 0;
}

/// True where `wanted` frames in a row follow from `at`, or all that the head and the file hold.
template <typename LengthOf>
bool framesFollow(Bytes head, std::size_t at, int wanted, LengthOf lengthOf) {
    int seen = 0;
    while (seen < wanted && at + 4 <= head.size()) {
        const std::size_t length = lengthOf(head.subspan(at));
        if (length == 0) {
            return false;
        }
        at += length;
        ++seen;
    }
    return seen >= std::min(wanted, 2);
}

/// Layer III of a free bitrate states no length of its frames: the header that comes again at the same
/// distance, one more for a padded frame, tells it. ISO/IEC 11172-3 section 2.4.2.3.
bool freeFormatFollows(Bytes head) {
    constexpr std::size_t shortest = 24;
    constexpr std::size_t longest = 4096;
    const auto isHeader = [&](std::size_t at) {
        const auto frame = at + 4 <= head.size() ? readMpegFrame(head.subspan(at)) : std::nullopt;
        return frame && frame->bitrate == 0 && frame->layer == 3 && head[at + 1] == head[1];
    };
    if (!isHeader(0)) {
        return false;
    }
    for (std::size_t length = shortest; length <= longest && length + 4 <= head.size(); ++length) {
        if (isHeader(length) &&
            (isHeader(2 * length) || isHeader(2 * length + 1) || isHeader(2 * length - 1))) {
            return true;
        }
    }
    return false;
}

Sniffed sniffOgg(Bytes head) {
    for (const auto codec : {"\x01vorbis"sv, "OpusHead"sv,
                             "\x7f"
                             "FLAC"sv,
                             "Speex   "sv}) {
        if (holdsAt(head, 28, codec)) {
            return Sniffed::audio;
        }
    }
    return Sniffed::perhaps;
}

Sniffed sniffIsoMedia(Bytes head) {
    for (const auto brand : {"M4A "sv, "M4B "sv, "M4P "sv}) {
        if (holdsAt(head, 8, brand)) {
            return Sniffed::audio;
        }
    }
    return Sniffed::perhaps;
}

} // namespace

Sniffed sniff(Bytes head) {
    if (holdsAt(head, 0, "fLaC"sv) || holdsAt(head, 0, "wvpk"sv) || holdsAt(head, 0, "MAC "sv) ||
        holdsAt(head, 0, "TTA1"sv) || holdsAt(head, 0, "MPCK"sv) || holdsAt(head, 0, "MP+"sv) ||
        holdsAt(head, 0, "DSD "sv) || holdsAt(head, 0, "caff"sv) || holdsAt(head, 0, ".snd"sv) ||
        holdsAt(head, 0, "#!AMR"sv) || holdsAt(head, 0, "ADIF"sv)) {
        return Sniffed::audio;
    }
    if ((holdsAt(head, 0, "RIFF"sv) || holdsAt(head, 0, "RF64"sv) || holdsAt(head, 0, "BW64"sv)) &&
        holdsAt(head, 8, "WAVE"sv)) {
        return Sniffed::audio;
    }
    // Sony's Wave64: the chunk names are GUIDs, the first that of "riff".
    if (holdsAt(head, 0, "riff\x2E\x91\xCF\x11"sv)) {
        return Sniffed::audio;
    }
    if (holdsAt(head, 0, "FORM"sv) && (holdsAt(head, 8, "AIFF"sv) || holdsAt(head, 8, "AIFC"sv))) {
        return Sniffed::audio;
    }
    if (holdsAt(head, 0, "OggS"sv)) {
        return sniffOgg(head);
    }
    if (holdsAt(head, 4, "ftyp"sv)) {
        return sniffIsoMedia(head);
    }
    if (holdsAt(head, 0, "\x1A\x45\xDF\xA3"sv) || holdsAt(head, 0, "\x30\x26\xB2\x75\x8E\x66\xCF\x11"sv)) {
        return Sniffed::perhaps;
    }
    if (const auto tag = id3Length(head); tag > 0) {
        if (tag + 4 > head.size()) {
            return Sniffed::perhaps;
        }
        if (holdsAt(head, tag, "fLaC"sv)) {
            return Sniffed::audio;
        }
        // Some writers leave padding between tag and audio, so the frames may begin later.
        for (std::size_t at = tag; at + 4 <= head.size(); ++at) {
            if (framesFollow(head, at, 3, mpegFrameLength) || framesFollow(head, at, 3, adtsFrameLength)) {
                return Sniffed::audio;
            }
        }
        return Sniffed::perhaps;
    }
    if (framesFollow(head, 0, 4, mpegFrameLength) || framesFollow(head, 0, 4, adtsFrameLength) ||
        framesFollow(head, 0, 4, ac3FrameLength) || freeFormatFollows(head)) {
        return Sniffed::audio;
    }
    // A stream cut out of a longer one begins within a frame, others with filling: look for frames further
    // on.
    const std::size_t reach = std::min<std::size_t>(head.size(), 4096);
    for (std::size_t at = 1; at + 4 <= reach; ++at) {
        if (head[at] == 0xFF && framesFollow(head, at, 8, mpegFrameLength)) {
            return Sniffed::audio;
        }
    }
    return Sniffed::notAudio;
}

} // namespace sober
