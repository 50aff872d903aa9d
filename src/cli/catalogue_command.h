#pragma once

#include "cli/commands.h"
#include "core/base/run_control.h"
#include "core/work/carry_along.h"

namespace sober::cli {

int runCatalogueSave(const CommonOptions& common, const BytePath& file, RunControl& control);
int runCatalogueBringBack(const CommonOptions& common, const BytePath& file, RunControl& control);

/// Into a folder on a stick, with a way to start from there.
int runCarry(const CommonOptions& common, const BytePath& place, CarriedMeans means, RunControl& control);

/// What another catalogue knows that this one does not; and takes it in.
int runCatalogueCompare(const CommonOptions& common, const BytePath& file, RunControl& control);
int runCatalogueTakeIn(const CommonOptions& common, const BytePath& file, RunControl& control);

} // namespace sober::cli
