#pragma once

#include "cli/commands.h"
#include "cli/json_shapes.h"
#include "core/base/text.h"
#include "core/catalogue/catalogue.h"
#include "core/work/carry_out.h"

#include <fmt/format.h>

#include <chrono>
#include <cstdio>
#include <functional>

namespace sober::cli {

/// Text for a person: whatever names and tags hold, nothing in it steers the terminal.
template <typename... Args>
void sayOn(std::FILE* to, fmt::format_string<Args...> text, Args&&... args) {
    const auto shown = displayLines(fmt::format(text, std::forward<Args>(args)...));
    std::fwrite(shown.data(), 1, shown.size(), to);
}
template <typename... Args>
void say(fmt::format_string<Args...> text, Args&&... args) {
    sayOn(stdout, text, std::forward<Args>(args)...);
}

/// Says what went wrong on standard error; yields the exit code.
int fail(const Error& error);
/// The same of what was said wrongly.
int usage(const std::string& sentence);
void printJson(const Json& json);
/// The same with a list in it that is too long to be held: `each` gives one element after another.
void printJsonWithList(const Json& json, std::string_view name, std::size_t count,
                       const std::function<Json(std::size_t)>& each);
/// What was carried out or, by its `verb`, taken back; yields the exit code.
int showCarriedOut(const CommonOptions& common, const CarriedOut& carried, std::string_view verb);
/// One sentence a line on standard error.
void printErrors(const std::vector<SurveyError>& errors);

/// Opens for work and says on standard error what was recovered.
Result<Catalogue> openWorking(const CommonOptions& common);
/// For commands that only look: works beside a program that has the catalogue open, on the findings
/// as they stand.
Result<Catalogue> openLooking(const CommonOptions& common);

/// A path as it was given, absolute, links resolved as far as it is there.
BytePath fromHere(const BytePath& path);

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
