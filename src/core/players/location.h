#pragma once

#include "core/base/paths.h"

#include <string>
#include <vector>

namespace sober {

/// What a location in a player's list leads to.
enum class LocationKind {
    file,    ///< on this machine
    foreign, ///< a drive letter or a share of another machine
    stream,  ///< no local file: kept, and never missing
};

struct LocationMeaning {
    LocationKind kind = LocationKind::file;
    /// Absolute, without "." and "..": where the file may be, the likeliest first. Lists leave open whether
    /// a backslash parts folders, whether percent signs are an encoding, and which letters bytes beyond ASCII
    /// are. Of a foreign one its path with slashes, drive or share first.
    std::vector<BytePath> paths;
    bool relative = false; ///< to the list's folder
    /// The one of them that takes percent signs for an encoding where the format does not say so; "" for
    /// none.
    BytePath percentUndone = {};
};

/// `asUri`: the format writes URIs (XSPF). `listFolder` absolute. Cannot lead above the root.
LocationMeaning meaningOf(std::string_view location, bool asUri, const BytePath& listFolder);

/// A file: URI by RFC 8089 and RFC 3986: every byte but unreserved letters and slashes percent-encoded.
std::string fileUriOf(const BytePath& absolute);

} // namespace sober
