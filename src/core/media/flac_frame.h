#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>

namespace sober {

/// The header of a FLAC frame, RFC 9639 section 9.1.
struct FlacFrame {
    std::uint64_t number = 0; ///< of the frame, or of its first sample where `variable`
    bool variable = false;    ///< frames differ in their samples
    unsigned samples = 0;     ///< per channel
    unsigned sampleRate = 0;  ///< Hz; 0: as the stream's beginning states
    unsigned channels = 0;
    unsigned decorrelated = 0; ///< 8 left/side, 9 side/right, 10 mid/side; 0: none
    unsigned bits = 0;         ///< of a sample; 0: as the stream's beginning states
    std::size_t headerBytes = 0;
};

/// Reads a header of at most sixteen bytes and holds it against its CRC-8; nothing where it is none.
std::optional<FlacFrame> readFlacFrame(std::span<const std::uint8_t> bytes);

/// The length of the frame that begins the bytes, its subframes followed bit by bit (section 9.2) and its
/// CRC-16 held against them; 0 where it does not hold or there is not all of it. `streamBits`: of a sample,
/// as the stream's beginning states.
std::size_t flacFrameLength(std::span<const std::uint8_t> bytes, unsigned streamBits);

/// CRC-16 of RFC 9639 section 9.3: polynomial 0x8005, start 0. Over a frame with its own it is 0.
std::uint16_t flacCrc(std::span<const std::uint8_t> bytes, std::uint16_t crc = 0);

} // namespace sober
