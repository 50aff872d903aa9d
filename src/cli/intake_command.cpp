#include "cli/intake_command.h"

#include "cli/answers.h"
#include "core/transfer/layout.h"
#include "core/work/latest_list.h"
#include "core/work/take_arrivals.h"
#include "core/work/take_finds.h"

namespace sober::cli {
namespace {

Json arrivalShape(const Arrival& arrival) {
    auto json = withPath(arrival.path);
    json["verdict"] = arrival.verdict ? Json(wordFor(*arrival.verdict)) : Json();
    json["sound"] = arrival.sound ? Json(*arrival.sound) : Json();
    json["held"] = Json::array();
    for (const auto& held : arrival.held) {
        auto each = withPath(held.path);
        each["sameness"] = word(held.sameness);
        each["better"] = word(held.better);
        each["at_hand"] = held.atHand;
        each["why"] = held.why;
        json["held"].push_back(std::move(each));
    }
    json["advice"] = word(arrival.advice);
    json["reasons"] = Json::array();
    for (const auto& reason : arrival.reasons) {
        json["reasons"].push_back(percentEncodeOffending(reason));
    }
    json["target"] = percentEncodeOffending(arrival.target);
    json["proposals"] = Json::array();
    for (const auto& proposal : arrival.proposals) {
        json["proposals"].push_back({{"field", proposal.field},
                                     {"now", repairedUtf8(proposal.now)},
                                     {"shall", proposal.shall},
                                     {"reason", word(proposal.reason)},
                                     {"why", proposal.why}});
    }
    return json;
}

void sayArrival(const Arrival& arrival) {
    say("{:8}  {}\n", word(arrival.advice), displayPath(arrival.path));
    for (const auto& reason : arrival.reasons) {
        say("          {}\n", reason);
    }
    if (arrival.advice == IntakeAdvice::takeIn || arrival.advice == IntakeAdvice::replace) {
        say("          to {}\n", displayPath(arrival.target));
    }
    for (const auto& proposal : arrival.proposals) {
        say("          {}: {} -> {}  ({})\n", proposal.field,
            proposal.now.empty() ? "missing" : displayPath(proposal.now),
            proposal.shall.empty() ? "nothing" : displayPath(proposal.shall), proposal.why);
    }
}

/// Surveyed as it is now, then judged.
Result<std::vector<Arrival>> arrivalsNow(Catalogue& catalogue, bool quiet, RunControl& control) {
    ProgressLine line(quiet);
    const auto surveyed = surveyInboxes(catalogue, control, std::ref(line));
    return surveyed ? lookAtArrivals(catalogue, control) : Result<std::vector<Arrival>>(surveyed.error());
}

} // namespace

int runIntakeAdd(const CommonOptions& common, const InboxOptions& options) {
    const auto layout = options.layout.empty() ? std::string(usualLayout) : options.layout;
    if (const auto parsed = Layout::named(layout); !parsed) {
        sayOn(stderr, "{}\n", parsed.error().sentence);
        return exitUsage;
    }
    if (!options.latest.empty() && !isListPath(options.latest)) {
        sayOn(stderr, "A list of the latest arrivals ends in .m3u8, .xspf or .pls.\n");
        return exitUsage;
    }
    const auto catalogue = openWorking(common);
    const auto latest =
        options.latest.empty() ? BytePath() : placeOf(options.latest).value_or(options.latest);
    const auto kept = catalogue
                          ? InboxStore(*catalogue)
                                .keep({0, fromHere(options.folder), fromHere(options.into), layout, latest})
                          : Outcome(catalogue.error());
    return kept ? exitDone : fail(kept.error());
}

int runIntakeRemove(const CommonOptions& common, const BytePath& folder) {
    const auto catalogue = openWorking(common);
    const auto removed =
        catalogue ? InboxStore(*catalogue).remove(fromHere(folder)) : Outcome(catalogue.error());
    return removed ? exitDone : fail(removed.error());
}

int runIntake(const CommonOptions& common, RunControl& control) {
    auto catalogue = openWorking(common);
    const auto arrivals = catalogue ? arrivalsNow(*catalogue, common.quiet, control)
                                    : Result<std::vector<Arrival>>(catalogue.error());
    if (!arrivals) {
        return fail(arrivals.error());
    }
    if (common.json) {
        Json json{{"schema", "sober.intake/1"}, {"arrivals", Json::array()}};
        for (const auto& arrival : *arrivals) {
            json["arrivals"].push_back(arrivalShape(arrival));
        }
        printJson(json);
        return exitDone;
    }
    for (const auto& arrival : *arrivals) {
        sayArrival(arrival);
    }
    say("{}.\n", counted(arrivals->size(), "arrival"));
    return exitDone;
}

int runIntakeTake(const CommonOptions& common, const IntakeTakeOptions& options, RunControl& control) {
    if (options.advised == !options.arrivals.empty()) {
        sayOn(stderr, "Say either the arrivals or --advised.\n");
        return exitUsage;
    }
    if (const auto parsed = Layout::named(options.layout.empty() ? usualLayout : options.layout); !parsed) {
        sayOn(stderr, "{}\n", parsed.error().sentence);
        return exitUsage;
    }
    auto catalogue = openWorking(common);
    if (!catalogue) {
        return fail(catalogue.error());
    }
    const auto arrivals = arrivalsNow(*catalogue, common.quiet, control);
    if (!arrivals) {
        return fail(arrivals.error());
    }
    IntakeRequest request;
    request.advised = options.advised;
    request.withProposals = options.withProposals;
    request.layout = options.layout;
    for (const auto& path : options.arrivals) {
        request.arrivals.push_back(fromHere(path));
    }
    const auto carried = [&] {
        ProgressLine line(common.quiet);
        CarryOutHooks hooks;
        hooks.onProgress = std::ref(line);
        return takeArrivals(*catalogue, request, control, hooks);
    }();
    if (!carried) {
        return fail(carried.error());
    }
    if (common.json) {
        printJson(carriedOutShape(*carried));
    } else {
        say("{} carried out.\n", counted(carried->done, "action was", "actions were"));
    }
    for (const auto& refused : carried->refused) {
        sayOn(stderr, "{}: {}\n", displayPath(refused.path), refused.sentence);
    }
    return carried->interrupted ? exitInterrupted : carried->refused.empty() ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
