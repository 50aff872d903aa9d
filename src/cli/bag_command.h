#pragma once

#include "cli/answers.h"
#include "core/base/run_control.h"

namespace sober::cli {

/// `sober bag check BAG`
int runBagCheck(const CommonOptions& common, const BytePath& bag, RunControl& control);
/// `sober bag write FOLDER --to BAG`
int runBagWrite(const CommonOptions& common, const BytePath& folder, const BytePath& to, RunControl& control);

} // namespace sober::cli
