#pragma once

#include <cstdint>
#include <optional>
#include <span>

namespace sober {

/// One MPEG audio frame header: ISO/IEC 11172-3 section 2.4.2.3 and ISO/IEC 13818-3; version 2.5 is
/// the common extension to lower rates (no standard).
struct MpegFrame {
    int version;       ///< 1, 2, or 25 for 2.5
    int layer;         ///< 1 to 3
    int bitrate;       ///< bit/s; 0 is "free format"
    int sampleRate;    ///< Hz
    int channels;      ///< 1 or 2
    int samples;       ///< per channel in this frame
    std::size_t bytes; ///< length of the frame, 0 where free format leaves it open

    bool operator==(const MpegFrame&) const = default;
};

/// Reads a frame header from its first four bytes; nothing where they are not one.
std::optional<MpegFrame> readMpegFrame(std::span<const std::uint8_t> bytes);

} // namespace sober
