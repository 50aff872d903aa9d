#include "cli/report_command.h"

#include "cli/answers.h"
#include "core/base/file_handle.h"
#include "core/work/make_report.h"

namespace sober::cli {

int runReport(const CommonOptions& common, const ReportOptions& options, RunControl& control) {
    const auto form = reportFormOf(!options.form.empty()        ? options.form
                                   : common.json && !options.to ? "json"
                                                                : "html");
    if (!form) {
        return usage("--form is html, csv or json.");
    }
    if (common.json && !options.to && *form != ReportForm::json) {
        return usage("--json prints JSON: leave --form out, or name a file by --to.");
    }
    ReportChoices choices;
    choices.paths = !options.leavePathsOut;
    if (!options.about.empty()) {
        choices.parts.clear();
    }
    for (const auto& about : options.about) {
        const auto part = reportPartOf(about);
        if (!part) {
            return usage("--about takes condition, copies, claims, damage, fixity, missing and proofs.");
        }
        choices.parts.insert(*part);
    }
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto to = options.to ? fromHere(*options.to) : BytePath();
    const auto made = [&]() -> Result<std::string> {
        ProgressLine line(common.quiet);
        if (options.to) {
            const auto written = makeReport(*catalogue, choices, *form, to, control, std::ref(line));
            return written ? Result<std::string>(std::string()) : Result<std::string>(written.error());
        }
        const auto report = reportOf(*catalogue, choices, control, std::ref(line));
        return report ? reportText(*report, *form) : Result<std::string>(report.error());
    }();
    if (!made) {
        return fail(made.error());
    }
    if (!options.to) {
        std::fwrite(made->data(), 1, made->size(), stdout);
        return exitDone;
    }
    const auto stamp = stampAt(to);
    if (common.json) {
        printJson({{"schema", "sober.report-written/1"},
                   {"path", percentEncodeOffending(to)},
                   {"bytes", stamp ? stamp->size : 0}});
    } else {
        say("The report was written to {}.\n", displayPath(to));
    }
    return exitDone;
}

} // namespace sober::cli
