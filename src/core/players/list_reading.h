#pragma once

#include "core/exchange/playlist.h"
#include "core/players/resolver.h"

namespace sober {

/// Bytes; what is larger is not taken for a list.
inline constexpr std::uint64_t largestList = 256ULL << 20;

/// A list as it is on the disk at one moment.
struct ReadList {
    std::string text;
    Playlist playlist;
    FileStamp stamp;
};

/// True for the endings of lists that we read.
bool isListName(const BytePath& path);

/// Reads a list. Cause::busy where it changes while it is read.
Result<ReadList> readList(const BytePath& path);

/// How the locations of this list are to be read, by the first of its players that has a mapping.
ListContext contextOf(const ListFile& list, std::span<const Player> players);

} // namespace sober
