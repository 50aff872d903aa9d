#pragma once

#include "cli/commands.h"
#include "core/base/run_control.h"

namespace sober::cli {

struct ReportOptions {
    std::string form;               ///< "" for what the common options say
    std::optional<BytePath> to;     ///< none: standard output
    std::vector<std::string> about; ///< parts; none: all
    bool leavePathsOut = false;
};

int runReport(const CommonOptions& common, const ReportOptions& options, RunControl& control);

} // namespace sober::cli
