#pragma once

#include "core/media/mpeg_frame.h"

namespace sober {

/// What all frames of a stream have in common, as one number.
inline std::uint64_t mpegStreamOf(const MpegFrame& frame) {
    return static_cast<std::uint64_t>(frame.version) << 32 | static_cast<std::uint64_t>(frame.layer) << 24 |
           static_cast<std::uint64_t>(frame.sampleRate) << 1 | (frame.channels == 1 ? 1U : 0U);
}

} // namespace sober
