#pragma once

#include "cli/answers.h"

namespace sober::cli {

/// `sober schedule show|install|remove [--every day|week|month]`
int runSchedule(const CommonOptions& common, const std::string& what, const std::string& every);

} // namespace sober::cli
