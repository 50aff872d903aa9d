#pragma once

#include "core/base/file_handle.h"
#include "core/base/run_control.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/records.h"

#include <deque>

namespace sober {

struct WalkedFile {
    BytePath path; ///< relative to the root
    FileStamp stamp;
};

/// What a walk through a volume has met. Folders that could not be listed are named, so that what
/// they held is not taken for gone.
struct Walk {
    std::deque<WalkedFile> files;
    std::vector<BytePath> unlisted; ///< relative; "" for the root itself
    std::vector<SurveyError> errors;
};

/// Whether the choices take in a name at a relative path, and a size, of what is not on a file system itself.
bool takesIn(const SurveyChoices& choices, const BytePath& path, std::uint64_t size);

/// Whether the choices leave out a file at a relative path of this size; of links that are not followed too.
bool isLeftOut(const SurveyChoices& choices, const BytePath& root, const BytePath& path, std::uint64_t size);

/// Lists every regular file below `root` that the choices take in, without opening any. Trash
/// folders are always left out, as are `otherRoots` (absolute) that lie within. Links are followed
/// only on request; no folder is entered twice and no file is met twice by them.
Walk walkVolume(const BytePath& root, const SurveyChoices& choices, std::span<const BytePath> otherRoots,
                RunControl& control);

} // namespace sober
