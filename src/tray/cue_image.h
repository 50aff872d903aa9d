#pragma once

#include "core/disc/disc_contents.h"

#include <map>

namespace sober {

/// What a cue sheet says that libcdio does not tell.
struct CueImage {
    std::map<int, std::vector<int>> marks; ///< sectors of index 2 and on, by track
};

/// The same from a sheet's text, whatever that is.
std::map<int, std::vector<int>> cueMarks(const std::string& text);

/// Reads the sheet of an image before libcdio does. Cause::notFound where its file is missing or is not the
/// one that libcdio takes (the sheet's name with .bin), wrongKind where it holds no plain sectors, damaged
/// where it is shorter than the sheet says.
Result<CueImage> cueImageAt(const BytePath& sheet);

} // namespace sober
