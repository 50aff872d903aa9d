#pragma once

#include "core/media/mpeg_frame.h"

#include <cstdint>
#include <optional>
#include <span>

namespace sober {

/// CRC-16 of the polynomial 0x8005, ISO/IEC 11172-3 section 2.4.3.1.
std::uint16_t mpegCrc(std::span<const std::uint8_t> bytes, std::uint16_t crc = 0xFFFF);
/// Whether a check value stands behind the header, and the length of both.
bool hasMpegCrc(std::span<const std::uint8_t> frame);
std::size_t mpegHeaderLength(std::span<const std::uint8_t> frame);

/// Layer III side information, ISO/IEC 11172-3 section 2.4.1.7 and 13818-3 section 2.4.1.7.
struct SideInfo {
    unsigned mainDataBegin = 0; ///< bytes before this frame's own main data
    std::uint64_t bits = 0;     ///< of main data that its granules take
};
std::size_t sideInfoLength(const MpegFrame& frame);
/// `bytes` are the side information, all of it.
SideInfo readSideInfo(const MpegFrame& frame, std::span<const std::uint8_t> bytes);

/// What a first frame without audio states of the others: its Xing, Info or VBRI header (common practice, no
/// standard).
struct StatedFrames {
    std::uint64_t frames = 0; ///< 0: it leaves that open
    int delay = 0;            ///< samples that an encoder put before the sound
    int padding = 0;          ///< and behind it
};
std::optional<StatedFrames> readStatedFrames(const MpegFrame& frame, std::span<const std::uint8_t> bytes);

} // namespace sober
