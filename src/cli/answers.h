#pragma once

#include "cli/commands.h"
#include "cli/json_shapes.h"
#include "core/catalogue/catalogue.h"

#include <chrono>

namespace sober::cli {

/// Says what went wrong on standard error; yields the exit code.
int fail(const Error& error);
void printJson(const Json& json);
/// One sentence a line on standard error.
void printErrors(const std::vector<SurveyError>& errors);

/// Opens for work and says on standard error what was recovered.
Result<Catalogue> openWorking(const CommonOptions& common);
/// For commands that only look: works beside a program that has the catalogue open, on the findings
/// as they stand.
Result<Catalogue> openLooking(const CommonOptions& common);

/// Shows progress on a terminal at most five times a second.
class ProgressLine {
  public:
    explicit ProgressLine(bool quiet);
    ~ProgressLine();
    ProgressLine(const ProgressLine&) = delete;
    ProgressLine& operator=(const ProgressLine&) = delete;
    void operator()(const Progress& progress);

  private:
    bool shown_;
    bool drawn_ = false;
    std::chrono::steady_clock::time_point last_;
};

} // namespace sober::cli
