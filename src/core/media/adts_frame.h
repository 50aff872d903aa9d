#pragma once

#include <cstdint>
#include <optional>
#include <span>

namespace sober {

/// The header of an ADTS frame: ISO/IEC 13818-7 section 6.2.
struct AdtsFrame {
    std::size_t bytes = 0; ///< of the frame with its header
    int sampleRate = 0;    ///< Hz
    int samples = 0;       ///< per channel
    std::uint64_t stream;  ///< the bits that do not change within a stream
};

/// Nothing where the first seven bytes are no such header.
std::optional<AdtsFrame> readAdtsFrame(std::span<const std::uint8_t> bytes);

} // namespace sober
