#pragma once

#include "cli/commands.h"
#include "core/survey/verify.h"

namespace sober::cli {

/// sober verify [PATH…]: reads again and compares with what was recorded. Drift is a finding, not a failure.
/// `notify`: tells the desktop when something is found.
int runVerify(const CommonOptions& common, const VerifyRequest& request, bool notify, RunControl& control);

} // namespace sober::cli
