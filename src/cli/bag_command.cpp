#include "cli/bag_command.h"

#include "cli/answers.h"
#include "core/base/text.h"
#include "core/exchange/bag.h"
#include "core/remedy/write_bag.h"

namespace sober::cli {

int runBagCheck(const CommonOptions& common, const BytePath& bag, RunControl& control) {
    Result<BagReport> report = BagReport{};
    {
        ProgressLine line(common.quiet);
        report = checkBag(bag, control, [&](const Progress& progress) { line(progress); });
    }
    if (!report) {
        return fail(report.error());
    }
    if (common.json) {
        Json problems = Json::array();
        for (const auto& problem : report->problems) {
            Json json = withPath(problem.path);
            json["problem"] = problem.sentence;
            problems.push_back(std::move(json));
        }
        printJson({{"schema", "sober.bag/1"},
                   {"version", report->version},
                   {"checksums", report->algorithms},
                   {"files", report->files},
                   {"bytes", report->bytes},
                   {"complete", report->complete},
                   {"valid", report->valid},
                   {"problems", std::move(problems)}});
    } else {
        for (const auto& problem : report->problems) {
            say("{}\n", problem.sentence);
        }
        say("BagIt {}, {}, {}: {}, {}\n", report->version, counted(report->files, "file"),
            humanBytes(report->bytes), report->complete ? "complete" : "not complete",
            report->interrupted ? "not read to its end"
            : report->valid     ? "valid"
                                : "not valid");
    }
    return report->interrupted ? exitInterrupted : exitDone;
}

int runBagWrite(const CommonOptions& common, const BytePath& folder, const BytePath& to,
                RunControl& control) {
    const auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    Result<WrittenBag> bag = WrittenBag{};
    {
        ProgressLine line(common.quiet);
        bag = writeBag(*catalogue, folder, to, control, [&](const Progress& progress) { line(progress); });
    }
    if (!bag) {
        return fail(bag.error());
    }
    if (common.json) {
        printJson({{"schema", "sober.bag-written/1"}, {"files", bag->files}, {"bytes", bag->bytes}});
    } else {
        say("{} ({}) copied, read back and listed\n", counted(bag->files, "file"), humanBytes(bag->bytes));
    }
    return exitDone;
}

} // namespace sober::cli
