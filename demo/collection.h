#pragma once

#include "core/base/paths.h"

#include <string>

namespace sober::demo {

/// Makes the collection of Pell Harbour in `folder` as it stood when it was first surveyed: the
/// volumes GANNET, TERN and PETREL. False, with a word on standard error, where that fails.
bool makeCollection(const BytePath& folder);

/// What has happened since: files gone, moved, edited and added. To be called once, after a first
/// survey.
bool letTimePass(const BytePath& folder);

/// Writes truth.json: everything that was planted, by paths relative to `folder`.
bool writeTruth(const BytePath& folder);

} // namespace sober::demo
