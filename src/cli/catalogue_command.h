#pragma once

#include "cli/commands.h"
#include "core/base/run_control.h"

namespace sober::cli {

int runCatalogueSave(const CommonOptions& common, const BytePath& file, RunControl& control);
int runCatalogueBringBack(const CommonOptions& common, const BytePath& file, RunControl& control);

} // namespace sober::cli
