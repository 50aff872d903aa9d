#pragma once

#include <cstdint>
#include <string>
#include <vector>

namespace sober {

/// What is kept of a recording so that it can be listened to and looked at while its drive is away.
struct Excerpt {
    static constexpr double usualSeconds = 20;
    static constexpr int bitrate = 32'000;          ///< bit/s
    static constexpr std::size_t mostColumns = 512; ///< of the outline
    static constexpr int coverPixels = 160;
    /// What one takes, about: so many seconds at that rate, a container, the outline and one cover in two.
    static constexpr std::uint64_t usualBytes = 86'000;

    std::string sound;                 ///< Ogg Opus (RFC 7845); "" where it could not be made
    double begins = 0;                 ///< seconds into the recording
    double seconds = 0;                ///< of the sound
    double whole = 0;                  ///< seconds of the recording, as decoded
    std::vector<std::uint8_t> outline; ///< the greatest sample of each part, full scale at 255
    std::string cover;                 ///< JPEG, small; "" where there is none
};

} // namespace sober
