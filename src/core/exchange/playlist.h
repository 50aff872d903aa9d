#pragma once

#include "core/base/result.h"

#include <span>
#include <string>
#include <vector>

namespace sober {

/// M3U and M3U8 (no standard; RFC 8216 section 4 for EXTINF), PLS (no standard), XSPF version 1 (xiph.org),
/// cue sheets (no standard; the FILE command).
enum class PlaylistFormat {
    m3u,
    pls,
    xspf,
    cue,
};

/// One entry, with where its location stands in the list's text.
struct PlaylistEntry {
    std::string location;   ///< as the list means it: a path's bytes or a URI, entities undone
    std::string title;      ///< where the list says it
    double seconds = -1;    ///< negative where it does not
    std::size_t begins = 0; ///< bytes of the text that are the location
    std::size_t ends = 0;
    std::string artist = {};
    std::string album = {};
};

/// A list of locations in their order; what stands twice stands twice.
struct Playlist {
    PlaylistFormat format = PlaylistFormat::m3u;
    std::vector<PlaylistEntry> entries;
};

/// Reads a list; its format is told by its content, and by the ending of its name where that leaves it open.
/// Comments and lines that are not understood are no entries. Document types and entities of XML are not
/// followed. Cause::invalid where it is no list at all.
Result<Playlist> parsePlaylist(std::string_view text, const BytePath& name);

/// Text as it stands between two tags of XML.
std::string escapedXml(std::string_view text);

/// False for what would be read as something else: a line break in M3U or PLS, blanks at its ends (of M3U
/// only at its beginning), a quotation mark in a cue sheet.
bool canStandIn(PlaylistFormat format, std::string_view location);

struct NewLocation {
    std::size_t entry = 0; ///< in Playlist::entries
    std::string location;  ///< for XSPF a URI
};

/// The list's text with some locations replaced, every other byte as it was. `changes` in the order of the
/// entries. Cause::invalid where a location cannot stand in the format.
Result<std::string> withLocations(std::string_view text, const Playlist& list,
                                  std::span<const NewLocation> changes);

} // namespace sober
