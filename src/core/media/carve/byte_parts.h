#pragma once

#include "core/media/byte_source.h"
#include "core/media/carve/piece.h"

#include <string>
#include <vector>

namespace sober {

/// A part of a file as its format divides it.
struct BytePart {
    std::uint64_t first = 0; ///< byte of the file
    std::uint64_t past = 0;
    std::string name; ///< "ID3v2 tag", "frame", "page 12", "moov/udta"
};

/// The parts of a file of that format that lie, at least in part, in [from, to), in order: tags, frames
/// (ISO/IEC 11172-3, 13818-7, RFC 9639), pages (RFC 3533), chunks (RIFF, AIFF), boxes (ISO/IEC 14496-12),
/// blocks and packets. What is not understood has none.
std::vector<BytePart> bytePartsIn(ByteSource& file, PieceKind kind, std::uint64_t from, std::uint64_t to);

} // namespace sober
