#pragma once

#include "cli/commands.h"

namespace sober::cli {

/// sober list check FILE: every file of a checksum list against the disk. Files that differ are findings.
int runListCheck(const CommonOptions& common, const BytePath& list, const BytePath& folder,
                 RunControl& control);

/// sober list write FOLDER: a checksum list of its holdings on standard output.
int runListWrite(const CommonOptions& common, const BytePath& folder, const std::string& kind,
                 RunControl& control);

/// `sober list take LIST [--in FOLDER]`
int runListTake(const CommonOptions& common, const BytePath& path, const BytePath& folder,
                RunControl& control);

} // namespace sober::cli
