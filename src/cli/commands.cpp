#include "cli/commands.h"

#include "cli/answers.h"
#include "core/audit/set_choice.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/work/take_in_survey.h"

#include <fmt/format.h>

namespace sober::cli {
namespace {

void printSurvey(const SurveyReport& report) {
    say("{}: {} ({} added, {} changed, {} moved, {} returned, {} unchanged), {} missing; {} read in {}\n",
        report.label, counted(report.seen, "holding"), humanCount(report.added), humanCount(report.changed),
        humanCount(report.moved), humanCount(report.returned), humanCount(report.unchanged),
        humanCount(report.missing), humanBytes(report.bytesRead), humanSeconds(report.seconds));
    if (report.leftOut > 0) {
        say("    {} left out by the choices kept with it: not missing\n", counted(report.leftOut, "holding"));
    }
    if (report.away > 0) {
        say("    {} on what was mounted within it and is away: not missing\n",
            counted(report.away, "holding"));
    }
}

/// One report over several volumes, for the one JSON document of one command.
SurveyReport combined(const std::vector<SurveyReport>& reports) {
    SurveyReport all = reports.front();
    for (std::size_t i = 1; i < reports.size(); ++i) {
        const auto& report = reports[i];
        all.label += ", " + report.label;
        all.seen += report.seen;
        all.added += report.added;
        all.changed += report.changed;
        all.unchanged += report.unchanged;
        all.missing += report.missing;
        all.moved += report.moved;
        all.returned += report.returned;
        all.passedOver += report.passedOver;
        all.leftOut += report.leftOut;
        all.away += report.away;
        all.bytesRead += report.bytesRead;
        all.seconds += report.seconds;
        all.interrupted = all.interrupted || report.interrupted;
        all.errors.insert(all.errors.end(), report.errors.begin(), report.errors.end());
    }
    return all;
}

Json surveysShape(const std::vector<SurveyReport>& reports) {
    Json json = surveyShape(combined(reports));
    if (reports.size() > 1) {
        Json each = Json::array();
        for (const auto& report : reports) {
            each.push_back(surveyShape(report));
        }
        json["volumes"] = std::move(each);
    }
    return json;
}

Result<std::vector<SetDetail>> allSets(const Catalogue& catalogue, const std::vector<Volume>& volumes,
                                       std::optional<Sameness> sameness) {
    const Findings findings(catalogue);
    SetFilter filter;
    filter.sameness = sameness;
    const auto ids = findings.setOrder(SetOrder::mostBytes, filter);
    RETURN_IF_FAILED(ids);
    const auto sets = findings.sets(*ids);
    RETURN_IF_FAILED(sets);
    std::vector<SetDetail> shown;
    for (const auto& set : *sets) {
        auto detail = detailOf(catalogue, set, volumes);
        RETURN_IF_FAILED(detail);
        shown.push_back(std::move(*detail));
    }
    return shown;
}

} // namespace

int runSurvey(const CommonOptions& common, const SurveyOptions& options, RunControl& control) {
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    std::vector<SurveyReport> reports;
    std::optional<Error> failure;
    bool someFailed = false;
    for (const auto& path : options.paths) {
        ProgressLine line(common.quiet);
        auto report =
            surveyVolume(*catalogue, {path, options.label, {}, options.effort, options.changeChoices},
                         control, [&](const Progress& progress) { line(progress); });
        if (!report) {
            // One bad path does not keep the others from being read.
            sayOn(stderr, "{}\n", report.error().sentence);
            someFailed = true;
            continue;
        }
        reports.push_back(std::move(*report));
        if (reports.back().interrupted) {
            break;
        }
    }
    const auto all = reports.empty() ? SurveyReport{} : combined(reports);
    bool interrupted = all.interrupted;
    {
        ProgressLine line(common.quiet);
        const auto taken =
            takeInSurvey(*catalogue, all, control, [&](const Progress& progress) { line(progress); });
        interrupted = interrupted || (taken && *taken);
        if (!taken) {
            failure = taken.error();
        }
    }
    if (reports.empty()) {
        return failure ? fail(*failure) : exitCouldNot;
    }
    if (common.json) {
        printJson(surveysShape(reports));
    } else {
        std::ranges::for_each(reports, printSurvey);
    }
    printErrors(all.errors);
    if (failure) {
        return fail(*failure);
    }
    return interrupted          ? exitInterrupted
           : someFailed         ? exitCouldNot
           : all.errors.empty() ? exitDone
                                : exitSomeUnread;
}

int runCondition(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto condition = conditionOf(*catalogue);
    if (!condition) {
        return fail(condition.error());
    }
    if (common.json) {
        printJson(conditionShape(*condition));
        return exitDone;
    }
    for (std::size_t i = 0; i < condition->volumes.size(); ++i) {
        const auto& volume = condition->volumes[i];
        const auto& figures = condition->figures[i];
        say("{:<12} {:<8} {:>16}, {:>9}, {} missing\n", volume.label, volume.atHand ? "at hand" : "away",
            counted(figures.holdings, "holding"), humanBytes(figures.bytes), humanCount(figures.missing));
    }
    const auto& total = condition->total;
    say("\n{}, {}, {} of audio\n", counted(total.holdings, "holding"), humanBytes(total.bytes),
        humanSeconds(total.duration));
    say("{} held once only\n", humanCount(total.heldOnce));
    say("{} of identical copies; retiring the surplus frees {}\n", counted(condition->copySets, "set"),
        humanBytes(condition->reclaimable));
    say("{} missing, {} that could not be read or understood\n", humanCount(total.missing),
        humanCount(condition->errors));
    if (condition->brokenReferences > 0) {
        say("{} of players that lead nowhere\n", counted(condition->brokenReferences, "reference"));
    }
    return exitDone;
}

int runCopies(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto volumes = Volumes(*catalogue).all();
    if (!volumes) {
        return fail(volumes.error());
    }
    const auto sets = allSets(*catalogue, *volumes, std::nullopt);
    const auto alike = allSets(*catalogue, *volumes, Sameness::tagsOnly);
    if (!sets || !alike) {
        return fail(sets ? alike.error() : sets.error());
    }
    if (common.json) {
        printJson(copiesShape(*sets, *alike, *volumes));
        return exitDone;
    }
    for (const auto& shown : *sets) {
        say("{} of up to {}, {}, {} can be freed\n", counted(shown.members.size(), "holding"),
            humanBytes(shown.set.size), samenessWords(shown.set.sameness), humanBytes(freedByAdvice(shown)));
        for (std::size_t i = 0; i < shown.members.size(); ++i) {
            say("  {:<7} {}\n", word(shown.advice[i].advice),
                displayPath(absolutePath(shown.members[i], *volumes)));
            for (const auto& reason : shown.advice[i].reasons) {
                say("          {}\n", reason);
            }
        }
    }
    for (const auto& shown : *alike) {
        say("only the tags look alike, no copies:\n");
        for (const auto& member : shown.members) {
            say("          {}\n", displayPath(absolutePath(member, *volumes)));
        }
    }
    say("{} of copies\n", counted(sets->size(), "set"));
    return exitDone;
}

} // namespace sober::cli
