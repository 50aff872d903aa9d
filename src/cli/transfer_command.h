#pragma once

#include "cli/commands.h"

namespace sober::cli {

struct TransferOptions {
    BytePath to;
    std::vector<BytePath> lists;
    std::vector<std::string> players;
    std::vector<std::string> volumes;
    std::vector<BytePath> folders;
    std::vector<std::string> standing;
    bool andUnlisted = false;
    bool keepersOnly = false;
    bool letRestGo = false; ///< what is there and no longer among what comes goes on the docket
    std::string rules = "auto";
    std::optional<std::uint64_t> room;
    std::size_t longestPath = 0;
    std::string layout = "keep";
    std::string mode = "copy";
    std::string listForm; ///< "": each list's own
    bool relative = false;
    BytePath prefix;
    std::vector<std::string> forms;        ///< SOURCE=TARGET:QUALITY
    std::vector<std::string> replacements; ///< CHARACTER=TEXT
};

int runTransferPlan(const CommonOptions& common, const TransferOptions& options, RunControl& control);
int runTransferRun(const CommonOptions& common, const std::string& number, RunControl& control);
int runTransferProve(const CommonOptions& common, const std::string& number, RunControl& control);
int runTransferRelease(const CommonOptions& common, const std::string& number, bool carryOutNow,
                       RunControl& control);
/// Shows those that are left.
int runTransferForget(const CommonOptions& common, const std::string& number);
/// All of them or, where a number is given, one in full.
int runTransferList(const CommonOptions& common, const std::string& number);

} // namespace sober::cli
