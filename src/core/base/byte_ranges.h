#pragma once

#include "core/base/file_handle.h"

#include <span>
#include <vector>

namespace sober {

/// Where the bytes of something lie, in order.
struct PlacedBytes {
    BytePath file;                ///< absolute: an image, a drive or a file
    std::vector<BytePath> others; ///< absolute: files that lend to it (HelpedSource)
    std::vector<ByteRange> extents;
};

/// The bytes of several ranges in all.
std::uint64_t lengthOf(std::span<const ByteRange> ranges);
/// The bytes that lie in a range of both; none of either overlap among themselves.
std::uint64_t overlapOf(std::span<const ByteRange> some, std::span<const ByteRange> others);

} // namespace sober
