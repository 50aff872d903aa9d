#pragma once

#include "core/base/paths.h"

#include <cstdint>
#include <map>

namespace sober::bench {

/// A collection of 100,000 holdings whose player was left behind: what every reference should lead to.
struct MovedLibrary {
    BytePath folder;
    std::map<BytePath, BytePath> truth; ///< from a broken place to its file; "" where that is gone for good
    std::map<BytePath, bool> knowable;  ///< by broken place: content, or a rule and its tags, can tell
};

/// Makes files (empty), a catalogue and an XSPF library of 100,000 entries in `folder`: 60,000 of them broken
/// by four renamed folders, a flattened one and a change of format, each known to the catalogue in another
/// measure, with near misses among them: the same name and length with other content, numbered twins, remixes
/// with the same tags, files that are gone whose name another recording has.
MovedLibrary makeMovedLibrary(const BytePath& folder);

} // namespace sober::bench
