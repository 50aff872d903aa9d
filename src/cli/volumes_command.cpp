#include "cli/volumes_command.h"

#include "cli/answers.h"
#include "core/audit/refresh_findings.h"
#include "core/catalogue/volume_leaving.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/write_report.h"
#include "core/report/volume_labels.h"
#include "core/survey/survey.h"
#include "core/work/succeed_volume.h"
#include "core/work/take_in_survey.h"

#include <algorithm>

namespace sober::cli {
namespace {

Result<Volume> volumeLabelled(const Catalogue& catalogue, const std::string& label) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto found = std::ranges::find(*volumes, label, &Volume::label);
    if (found == volumes->end()) {
        return Error{Cause::notFound, {}, "No volume is called " + label + "."};
    }
    return *found;
}

Json volumeShape(const Volume& volume) {
    return {{"number", volume.id},
            {"label", volume.label},
            {"root", percentEncodeOffending(volume.root)},
            {"at_hand", volume.atHand},
            {"effort", volume.effort == Effort::full ? "full" : "index"},
            {"file_system", volume.identity.filesystemType}};
}

Json leavingShape(const Volume& volume, const VolumeLeaving& leaving, bool forgotten) {
    return {{"schema", "sober.forgetting/1"},
            {"volume", volume.label},
            {"holdings", leaving.holdings},
            {"bytes", leaving.bytes},
            {"held_elsewhere", leaving.heldElsewhere},
            {"held_nowhere_else", leaving.heldNowhereElse()},
            {"references", leaving.references},
            {"lists", leaving.lists},
            {"can_be_undone", leaving.canBeUndone},
            {"on_docket", leaving.onDocket},
            {"transfers", leaving.transfers},
            {"waiting", leaving.waiting},
            {"forgotten", forgotten}};
}

void sayLeaving(const Volume& volume, const VolumeLeaving& leaving) {
    say("{}: {}, {}; {} also on another volume, {} nowhere else.\n", volume.label,
        counted(leaving.holdings, "holding"), humanBytes(leaving.bytes), humanCount(leaving.heldElsewhere),
        humanCount(leaving.heldNowhereElse()));
    if (leaving.references > 0) {
        say("{} of players {} there.\n", counted(leaving.references, "reference"),
            leaving.references == 1 ? "leads" : "lead");
    }
    if (leaving.lists > 0) {
        say("{} of players {} on it; they stay theirs, and are read where they lie.\n",
            counted(leaving.lists, "list"), leaving.lists == 1 ? "lies" : "lie");
    }
    if (leaving.canBeUndone > 0) {
        say("{} in the ledger could not be taken back any more.\n", counted(leaving.canBeUndone, "action"));
    }
}

} // namespace

int runVolumes(const CommonOptions& common) {
    const auto catalogue = openLooking(common);
    const auto volumes = catalogue ? Volumes(*catalogue).all() : catalogue.error();
    if (!volumes) {
        return fail(volumes.error());
    }
    if (common.json) {
        Json all = Json::array();
        std::ranges::transform(*volumes, std::back_inserter(all), volumeShape);
        printJson({{"schema", "sober.volumes/1"}, {"volumes", std::move(all)}});
        return exitDone;
    }
    for (const auto& volume : *volumes) {
        say("{:>3}  {}  {}, {}\n", volume.id, volume.label, displayPath(volume.root),
            volume.atHand ? "at hand" : "away");
    }
    return exitDone;
}

int runVolumesLabels(const CommonOptions& common, const std::optional<BytePath>& to) {
    const auto catalogue = openLooking(common);
    const auto page = catalogue ? volumeLabels(*catalogue) : Result<std::string>(catalogue.error());
    if (!page) {
        return fail(page.error());
    }
    if (!to) {
        std::fwrite(page->data(), 1, page->size(), stdout);
        return exitDone;
    }
    const auto written = writeReportTo(fromHere(*to), *page);
    if (!written) {
        return fail(written.error());
    }
    say("The labels were written to {}.\n", displayPath(*to));
    return exitDone;
}

int runVolumesRename(const CommonOptions& common, const std::string& label, const std::string& newLabel) {
    const auto catalogue = openWorking(common);
    const auto volume = catalogue ? volumeLabelled(*catalogue, label) : catalogue.error();
    if (!volume) {
        return fail(volume.error());
    }
    if (const auto renamed = Volumes(*catalogue).relabel(*volume, newLabel); !renamed) {
        return fail(renamed.error());
    }
    return common.json ? runVolumes(common) : exitDone;
}

int runVolumesForget(const CommonOptions& common, const std::string& label, bool now) {
    const auto catalogue = now ? openWorking(common) : openLooking(common);
    const auto volume = catalogue ? volumeLabelled(*catalogue, label) : catalogue.error();
    const auto leaving = volume ? leavingOf(*catalogue, volume->id) : volume.error();
    if (!leaving) {
        return fail(leaving.error());
    }
    if (now) {
        const auto forgotten = forgetVolume(*catalogue, *volume);
        const auto refreshed = forgotten ? refreshFindings(*catalogue) : forgotten;
        if (!refreshed) {
            return fail(refreshed.error());
        }
    }
    if (common.json) {
        printJson(leavingShape(*volume, *leaving, now));
    } else {
        sayLeaving(*volume, *leaving);
        if (const auto why = whyNotForgotten(*volume, *leaving); !why.empty()) {
            say("{}\n", why);
        }
        say("{}\n", now ? "It was forgotten. Nothing on it was changed."
                        : "Nothing was changed yet; --carry-out forgets it.");
    }
    return exitDone;
}

int runVolumesSucceed(const CommonOptions& common, const std::string& label, const BytePath& folder,
                      RunControl& control) {
    auto catalogue = openWorking(common);
    const auto volume = catalogue ? volumeLabelled(*catalogue, label) : catalogue.error();
    const auto succession =
        volume ? succeedVolume(*catalogue, *volume, fromHere(folder)) : Result<Succession>(volume.error());
    if (!succession) {
        return fail(succession.error());
    }
    const auto report = [&] {
        ProgressLine line(common.quiet);
        return surveyVolume(*catalogue, {fromHere(folder), {}, {}, {}}, control, std::ref(line));
    }();
    if (!report) {
        return fail(report.error());
    }
    const auto taken = takeInSurvey(*catalogue, *report, control, [](const Progress&) {});
    if (!taken) {
        return fail(taken.error());
    }
    if (common.json) {
        printJson({{"schema", "sober.succession/1"},
                   {"volume", volume->label},
                   {"holdings", succession->holdings},
                   {"there", succession->there},
                   {"other_size", succession->otherSize},
                   {"not_there", succession->notThere},
                   {"changed", report->changed},
                   {"missing", report->missing},
                   {"bytes_read", report->bytesRead}});
    } else {
        say("{} is at {} now: of {} {} there with the same size, {} with another, {} not; {} read.\n",
            volume->label, displayPath(fromHere(folder)), counted(succession->holdings, "holding"),
            humanCount(succession->there), humanCount(succession->otherSize),
            humanCount(succession->notThere), humanBytes(report->bytesRead));
    }
    printErrors(report->errors);
    return report->interrupted ? exitInterrupted : report->errors.empty() ? exitDone : exitSomeUnread;
}

} // namespace sober::cli
