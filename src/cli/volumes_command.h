#pragma once

#include "cli/commands.h"
#include "core/base/run_control.h"

namespace sober::cli {

/// `sober volumes`: all that are catalogued.
int runVolumes(const CommonOptions& common);
/// A page of labels for the drives, into a new file or printed.
int runVolumesLabels(const CommonOptions& common, const std::optional<BytePath>& to);
int runVolumesRename(const CommonOptions& common, const std::string& label, const std::string& newLabel);
/// What leaves the catalogue with a volume; it does with `now`.
int runVolumesForget(const CommonOptions& common, const std::string& label, bool now);
/// The volume is at another folder from now on, and is surveyed there.
int runVolumesSucceed(const CommonOptions& common, const std::string& label, const BytePath& folder,
                      RunControl& control);

} // namespace sober::cli
