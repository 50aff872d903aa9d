#pragma once

#include "cli/answers.h"
#include "core/base/run_control.h"

namespace sober::cli {

/// `sober seek FOLDER…`
int runSeek(const CommonOptions& common, const std::vector<BytePath>& folders, RunControl& control);

} // namespace sober::cli
