#pragma once

#include "cli/commands.h"

namespace sober::cli {

/// `sober excerpts`: how many are kept, and in how many bytes.
int runExcerpts(const CommonOptions& common);
/// The excerpt of a holding, at hand or away, into a new file.
int runExcerptsTake(const CommonOptions& common, const BytePath& of, const BytePath& to);

} // namespace sober::cli
