#pragma once

#include "cli/commands.h"

namespace sober::cli {

/// sober examine FILE…: in a process of its own with limits on time and memory, so that a decoder that
/// breaks costs one line.
int runExamine(const CommonOptions& common, const std::vector<BytePath>& files, RunControl& control);

/// sober claims: the examined holdings whose evidence contradicts their claim, worst first.
int runClaims(const CommonOptions& common);

} // namespace sober::cli
