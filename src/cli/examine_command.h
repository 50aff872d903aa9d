#pragma once

#include "cli/commands.h"

namespace sober::cli {

/// sober examine FILE…: each file in a process of its own with limits on time and memory, so that a
/// decoder that breaks costs one line.
int runExamine(const CommonOptions& common, const std::vector<BytePath>& files, RunControl& control);

/// The process for one file: prints its JSON on standard output.
int runExamineWorker(const BytePath& file);

} // namespace sober::cli
