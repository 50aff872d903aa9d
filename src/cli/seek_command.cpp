#include "cli/seek_command.h"

#include "cli/answers.h"
#include "core/base/text.h"
#include "core/survey/seek.h"

namespace sober::cli {

int runSeek(const CommonOptions& common, const std::vector<BytePath>& folders, RunControl& control) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    Result<SeekReport> report = SeekReport{};
    {
        ProgressLine line(common.quiet);
        report = seekHealthyCopies(*catalogue, folders, control,
                                   [&](const Progress& progress) { line(progress); });
    }
    if (!report) {
        return fail(report.error());
    }
    if (common.json) {
        Json found = Json::array();
        for (const auto& copy : report->found) {
            Json json = withPath(copy.path);
            json["file_xxh3"] = copy.content.hex();
            found.push_back(std::move(json));
        }
        printJson({{"schema", "sober.seek/1"},
                   {"files", report->files},
                   {"read", report->read},
                   {"found", std::move(found)},
                   {"errors", errorList(report->errors)}});
    } else {
        for (const auto& copy : report->found) {
            say("healthy copy: {}\n", displayPath(copy.path));
        }
        say("{} met, {} read, {} of what has drifted or is missing\n", counted(report->files, "file"),
            humanCount(report->read), counted(report->found.size(), "copy", "copies"));
    }
    printErrors(report->errors);
    return report->interrupted ? exitInterrupted : report->errors.empty() ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
