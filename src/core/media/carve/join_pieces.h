#pragma once

#include "core/media/byte_source.h"
#include "core/media/carve/piece.h"

#include <vector>

namespace sober {

/// What several pieces are together, where their format proves it.
struct Joined {
    Piece piece; ///< of the whole; its `first` and `past` are those of the ends
    std::vector<ByteRange> extents;
    std::vector<std::size_t> parts; ///< into the pieces that were given, in their order
};

/// Continues pieces that break off by others that begin in the middle, over whatever lies between: pages of
/// Ogg by their serial number, their sequence and the check value of the page that lies across the break (RFC
/// 3533), frames of FLAC by their number and the same (RFC 9639), frames of MPEG audio by how far they reach
/// back into what is left over of those before (join_mpeg.h). Only what is proven so is joined.
std::vector<Joined> joinPieces(ByteSource& image, const std::vector<Piece>& pieces);

} // namespace sober
