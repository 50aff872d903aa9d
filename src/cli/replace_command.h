#pragma once

#include "cli/commands.h"

namespace sober::cli {

struct ReplaceOptions {
    BytePath holding;
    BytePath by;
    std::string tags = "keep";
    std::string layout;   ///< folders and name of the new file; "": those of the old
    bool advised = false; ///< all that have a candidate that fits, by their best
};

int runReplaceList(const CommonOptions& common, RunControl& control);
int runReplace(const CommonOptions& common, const ReplaceOptions& options, RunControl& control);
/// Sets up the offer shelf; "" for none.
int runReplaceShelf(const CommonOptions& common, const std::string& address);

} // namespace sober::cli
