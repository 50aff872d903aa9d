#pragma once

#include "core/base/paths.h"
#include "core/base/run_control.h"
#include "core/catalogue/records.h"

#include <functional>
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

} // namespace sober::cli
