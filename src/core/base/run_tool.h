#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

/// Runs a program that is looked up in PATH, its output discarded, and waits for it. Its exit code; an Error
/// where it could not be started or was killed.
Result<int> runTool(const std::vector<std::string>& words);

} // namespace sober
