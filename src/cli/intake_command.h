#pragma once

#include "cli/commands.h"

namespace sober::cli {

struct InboxOptions {
    BytePath folder;
    BytePath into;
    std::string layout;
    BytePath latest; ///< the list of the latest arrivals; "" for none
};

struct IntakeTakeOptions {
    std::vector<BytePath> arrivals;
    bool advised = false;
    bool withProposals = false;
    std::string layout;
};

int runIntake(const CommonOptions& common, RunControl& control);
int runIntakeAdd(const CommonOptions& common, const InboxOptions& options);
int runIntakeRemove(const CommonOptions& common, const BytePath& folder);
int runIntakeTake(const CommonOptions& common, const IntakeTakeOptions& options, RunControl& control);

} // namespace sober::cli
