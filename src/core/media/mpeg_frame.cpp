#include "core/media/mpeg_frame.h"

#include <array>

namespace sober {
namespace {

/// kbit/s by [row][index]; rows: V1 layer I, V1 II, V1 III, V2 layer I, V2 II and III.
constexpr std::array<std::array<int, 15>, 5> bitrates{{
    {0, 32, 64, 96, 128, 160, 192, 224, 256, 288, 320, 352, 384, 416, 448},
    {0, 32, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384},
    {0, 32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320},
    {0, 32, 48, 56, 64, 80, 96, 112, 128, 144, 160, 176, 192, 224, 256},
    {0, 8, 16, 24, 32, 40, 48, 56, 64, 80, 96, 112, 128, 144, 160},
}};

constexpr std::array<int, 3> ratesOfVersion1{44100, 48000, 32000};

std::size_t rowOf(int version, int layer) {
    if (version == 1) {
        return static_cast<std::size_t>(layer - 1);
    }
    return layer == 1 ? 3 : 4;
}

} // namespace

std::optional<MpegFrame> readMpegFrame(std::span<const std::uint8_t> bytes) {
    if (bytes.size() < 4 || bytes[0] != 0xFF || (bytes[1] & 0xE0) != 0xE0) {
        return std::nullopt;
    }
    const unsigned versionBits = (bytes[1] >> 3) & 3;
    const unsigned layerBits = (bytes[1] >> 1) & 3;
    const unsigned bitrateIndex = bytes[2] >> 4;
    const unsigned rateIndex = (bytes[2] >> 2) & 3;
    const bool padded = (bytes[2] & 2) != 0;
    if (versionBits == 1 || layerBits == 0 || bitrateIndex == 15 || rateIndex == 3 || (bytes[3] & 3) == 2) {
        return std::nullopt;
    }
    MpegFrame frame{};
    frame.version = versionBits == 3 ? 1 : versionBits == 2 ? 2 : 25;
    frame.layer = static_cast<int>(4 - layerBits);
    frame.bitrate = bitrates[rowOf(frame.version, frame.layer)][bitrateIndex] * 1000;
    frame.sampleRate = ratesOfVersion1[rateIndex] / (frame.version == 1 ? 1 : frame.version == 2 ? 2 : 4);
    frame.channels = (bytes[3] >> 6) == 3 ? 1 : 2;
    frame.samples = frame.layer == 1 ? 384 : frame.layer == 3 && frame.version != 1 ? 576 : 1152;
    if (frame.bitrate > 0) {
        const int slot = frame.layer == 1 ? 4 : 1;
        const int slots = frame.samples / 8 / slot * frame.bitrate / frame.sampleRate + (padded ? 1 : 0);
        frame.bytes = static_cast<std::size_t>(slots) * static_cast<std::size_t>(slot);
    }
    return frame;
}

} // namespace sober
