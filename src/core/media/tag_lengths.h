#pragma once

#include <cstdint>
#include <span>

namespace sober {

/// The length of an ID3v2 tag with header and footer (id3.org, version 2.4.0 section 3.1); 0 where the bytes
/// do not begin one.
std::uint64_t id3Length(std::span<const std::uint8_t> head);
/// The length of what of an APE tag (version 2; from memory) stands here and behind: of all where it begins
/// with a header, of its footer alone where that begins the bytes; 0 where neither does.
std::uint64_t apeLength(std::span<const std::uint8_t> head);

/// So many bytes tell both.
inline constexpr std::size_t longestTagHead = 32;

} // namespace sober
