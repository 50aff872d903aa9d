#pragma once

#include "core/media/carve/image_window.h"
#include "core/media/carve/piece.h"

#include <optional>

namespace sober {

/// Where a unit was broken off: its first bytes up to here, its others from there.
struct Break {
    std::uint64_t past = 0;  ///< one past the last byte before it
    std::uint64_t first = 0; ///< the first byte behind it
    bool isWithin = false;   ///< a unit lies across; else it is just between two
};

/// What one frame of Layer III does with what others have left over (ISO/IEC 11172-3 section 2.4.2.7:
/// main_data_begin).
struct Reach {
    std::int64_t back = 0; ///< bytes that it takes from before
    std::int64_t left = 0; ///< and leaves behind
    std::size_t bytes = 0; ///< of the frame
};
/// Of the frame at a place; nothing where there is none of this stream.
std::optional<Reach> mpegReachAt(ByteSource& image, std::uint64_t at, std::uint64_t stream);

/// How frames go on from the end of one piece, whose last whole frame is `last`, at the beginning of another,
/// whose first is `first`: the frame that lies across has the length that its header states, and each reaches
/// back by as much as those before it have left over, to the byte (encoders that stuff between them are not
/// followed). Nothing where they do not, or where too little is left over to tell.
std::optional<Break> mpegBreak(ByteSource& image, const Piece& piece, const Reach& last, const Piece& next,
                               const Reach& first);

} // namespace sober
