#pragma once

#include "core/catalogue/records.h"

namespace sober {

/// How much a path says of what it holds: fields of the tags found in it, folders that sort it, less
/// for names that look like a second copy or a passing place. Higher is better.
int nameScore(const Holding& holding);

/// True where the path looks like a place that does not last: downloads, temporary, desktop, trash.
bool isPassingPlace(const BytePath& path);

/// "(1)", "copy", "Copy of", "name_1": what file managers and browsers add to a second copy.
bool looksLikeSecondCopy(const BytePath& path);

} // namespace sober
