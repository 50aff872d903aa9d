#pragma once

#include "core/base/paths.h"
#include "core/base/run_control.h"
#include "core/catalogue/records.h"

#include <optional>
#include <string>
#include <vector>

namespace sober::cli {

/// Exit codes of the contract.
inline constexpr int exitDone = 0;
inline constexpr int exitCouldNot = 1;
inline constexpr int exitUsage = 2;
inline constexpr int exitSomeUnread = 3;
inline constexpr int exitInterrupted = 130;

struct CommonOptions {
    BytePath catalogue;
    bool json = false;
    bool quiet = false;
};

struct SurveyOptions {
    std::vector<BytePath> paths;
    std::optional<std::string> label;
    std::optional<Effort> effort;
    /// What was said of the choices; the others stay as they are kept with the volume.
    std::function<void(SurveyChoices&)> changeChoices;
};

/// Each prints its result to standard output and yields the exit code.
int runSurvey(const CommonOptions& common, const SurveyOptions& options, RunControl& control);
int runCondition(const CommonOptions& common);
int runCopies(const CommonOptions& common);
int runDocket(const CommonOptions& common);
/// `target`: of a repoint or a move.
int runDocketAdd(const CommonOptions& common, const std::string& kind, const std::vector<BytePath>& paths,
                 const BytePath& target, const std::string& reason, bool consent);
/// Takes lines off: by their numbers, or all about a path.
int runDocketRemove(const CommonOptions& common, const std::vector<std::string>& which);
/// What `file` lacks and `others`, copies of it, agree on.
int runDocketAddRetag(const CommonOptions& common, const BytePath& file, const std::vector<BytePath>& others);
/// What the policy of this name decides, "" for what the evidence says.
int runDocketAddSuggested(const CommonOptions& common, const std::string& policy, RunControl& control);
int runDocketClear(const CommonOptions& common);
int runCarryOut(const CommonOptions& common, RunControl& control);
int runLedger(const CommonOptions& common);
/// One entry with its files and reasons.
int runLedgerEntry(const CommonOptions& common, const std::string& entry);
/// The ledger as PREMIS events.
int runLedgerPremis(const CommonOptions& common);
int runUndo(const CommonOptions& common, const std::string& entry, RunControl& control);

} // namespace sober::cli
