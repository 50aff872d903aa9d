#include "cli/catalogue_command.h"

#include "cli/answers.h"
#include "core/base/file_handle.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/work/carry_along.h"
#include "core/work/meet_catalogue.h"
#include "core/work/open_for_work.h"

namespace sober::cli {
namespace {

Json meetingShape(const CatalogueMeeting& meeting, bool taken) {
    Json volumes = Json::array();
    for (const auto& each : meeting.volumes) {
        volumes.push_back({{"label", each.label},
                           {"known_here_as", each.here.empty() ? Json() : Json(each.here)},
                           {"newer", each.isNewerThere() ? "there" : "here"},
                           {"holdings", each.holdings},
                           {"same", each.same},
                           {"added", each.added},
                           {"changed", each.changed},
                           {"moved", each.moved},
                           {"older", each.older},
                           {"gone", each.gone},
                           {"examined_there", each.examined}});
    }
    return {{"schema", "sober.catalogue-meeting/1"},
            {"taken_in", taken},
            {"interrupted", meeting.interrupted},
            {"volumes", std::move(volumes)},
            {"acceptances", meeting.decisions.acceptances},
            {"standing_lists", meeting.decisions.standingLists},
            {"policies", meeting.decisions.policies},
            {"docket", meeting.docket},
            {"ledger", meeting.deeds},
            {"excerpts", meeting.excerpts},
            {"left_there",
             {{"lists", meeting.left.lists},
              {"docket", meeting.left.actions},
              {"ledger", meeting.left.entries}}}};
}

int showMeeting(const CommonOptions& common, const Result<CatalogueMeeting>& meeting, bool taken) {
    if (!meeting) {
        return fail(meeting.error());
    }
    if (common.json) {
        printJson(meetingShape(*meeting, taken));
    } else {
        for (const auto& sentence : meetingWords(*meeting)) {
            say("{}\n", sentence);
        }
        say("{}\n", meeting->interrupted ? "Stopped: what was taken in stays; again, it goes on from there."
                    : taken              ? "All of that is known here now. The other catalogue is as it was."
                                         : "Nothing was changed.");
    }
    return meeting->interrupted ? exitInterrupted : exitDone;
}

} // namespace

int runCatalogueCompare(const CommonOptions& common, const BytePath& file, RunControl& control) {
    const auto catalogue = openLooking(common);
    return showMeeting(common,
                       catalogue ? compareCatalogue(*catalogue, fromHere(file), control)
                                 : Result<CatalogueMeeting>(catalogue.error()),
                       false);
}

int runCatalogueTakeIn(const CommonOptions& common, const BytePath& file, RunControl& control) {
    auto opened = openForWork(common.catalogue);
    const auto taken = [&] {
        ProgressLine line(common.quiet);
        return opened ? takeInCatalogue(opened->catalogue, fromHere(file), control, std::ref(line))
                      : Result<CatalogueMeeting>(opened.error());
    }();
    return showMeeting(common, taken, true);
}

int runCarry(const CommonOptions& common, const BytePath& place, CarriedMeans means, RunControl& control) {
    if (means.package) {
        means.package = fromHere(*means.package);
    }
    const auto catalogue = Catalogue::openForReading(common.catalogue);
    const auto carried = [&] {
        ProgressLine line(common.quiet);
        return catalogue ? carryAlong(*catalogue, fromHere(place), means, control, std::ref(line))
                         : Result<CarriedAlong>(catalogue.error());
    }();
    if (!carried) {
        return fail(carried.error());
    }
    if (common.json) {
        printJson({{"schema", "sober.carried/1"},
                   {"folder", percentEncodeOffending(carried->folder)},
                   {"bytes", carried->bytes},
                   {"program", carried->withProgram},
                   {"package", carried->withPackage},
                   {"left_over", percentEncodeOffending(carried->leftOver)}});
        return exitDone;
    }
    say("Carried along in {}, {}. Open it there with: sh start\n", displayPath(carried->folder),
        humanBytes(carried->bytes));
    if (!carried->leftOver.empty()) {
        say("What was carried before has files or deeds of its own; it is kept as {}.\n",
            displayPath(carried->leftOver));
    }
    return exitDone;
}

int runCatalogueSave(const CommonOptions& common, const BytePath& file, RunControl& control) {
    const auto to = fromHere(file);
    const auto catalogue = Catalogue::openForReading(common.catalogue);
    const auto saved = [&] {
        ProgressLine line(common.quiet);
        return catalogue ? saveCatalogue(*catalogue, to, control, std::ref(line))
                         : Outcome(catalogue.error());
    }();
    if (!saved) {
        return fail(saved.error());
    }
    const auto stamp = stampAt(to);
    const auto bytes = stamp ? stamp->size : 0;
    if (common.json) {
        printJson(
            {{"schema", "sober.catalogue-saved/1"}, {"path", percentEncodeOffending(to)}, {"bytes", bytes}});
    } else {
        say("The catalogue was saved as {} ({}).\n", displayPath(to), humanBytes(bytes));
    }
    return exitDone;
}

int runCatalogueBringBack(const CommonOptions& common, const BytePath& file, RunControl& control) {
    auto catalogue = Catalogue::openForWriting(common.catalogue);
    const auto brought = [&] {
        ProgressLine line(common.quiet);
        return catalogue ? bringBack(*catalogue, fromHere(file), control, std::ref(line))
                         : Result<BroughtBack>(catalogue.error());
    }();
    if (!brought) {
        return fail(brought.error());
    }
    for (const auto& sentence : brought->recovered) {
        sayOn(stderr, "{}\n", sentence);
    }
    if (common.json) {
        printJson(
            {{"schema", "sober.catalogue-brought-back/1"}, {"kept", percentEncodeOffending(brought->kept)}});
    } else {
        say("The catalogue is what {} was. What it was before is kept as {}. Survey the volumes to see what "
            "is there "
            "now.\n",
            displayPath(fromHere(file)), displayPath(brought->kept));
    }
    return exitDone;
}

} // namespace sober::cli
