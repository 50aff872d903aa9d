#pragma once

#include "cli/commands.h"
#include "core/catalogue/action_kind.h"

namespace sober::cli {

/// sober docket …: what waits, and carrying it out.
int runDocket(const CommonOptions& common);
/// `target`: of a repoint or a move.
int runDocketAdd(const CommonOptions& common, ActionKind kind, const std::vector<BytePath>& paths,
                 const BytePath& target, const std::string& reason, bool consent);
/// Takes lines off: by their numbers, or all about a path.
int runDocketRemove(const CommonOptions& common, const std::vector<std::string>& which);
/// What `file` lacks and `others`, copies of it, agree on.
int runDocketAddRetag(const CommonOptions& common, const BytePath& file, const std::vector<BytePath>& others);
/// What the policy of this name decides, "" for what the evidence says.
/// The moves that put each folder's holdings in the order of a layout, within it.
int runDocketAddReorder(const CommonOptions& common, const std::vector<BytePath>& folders,
                        const std::string& layout, const std::string& reason);
int runDocketAddSuggested(const CommonOptions& common, const std::string& policy, RunControl& control);
int runDocketClear(const CommonOptions& common);
int runCarryOut(const CommonOptions& common, RunControl& control);

} // namespace sober::cli
