#pragma once

#include "cli/commands.h"
#include "core/survey/verify.h"

namespace sober::cli {

/// sober verify [PATH…]: reads again and compares with what was recorded. Drift is a finding, not a failure.
int runVerify(const CommonOptions& common, const VerifyRequest& request, RunControl& control);

} // namespace sober::cli
