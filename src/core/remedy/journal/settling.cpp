#include "core/remedy/journal/settling.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/journal/steps.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

Settled wait(Doing& doing, const std::string& why) {
    doing.action.waits = displayPath(doing.action.place) + " waits to be settled: " + why;
    return Settled::waiting;
}

Settled ended(Doing& doing, const Outcome& outcome, Settled settled) {
    return outcome ? settled : wait(doing, outcome.error().sentence);
}

/// What was only prepared: the note and what was made beside the place.
Outcome removePrepared(const LedgerAction& action, Unflushed& unflushed) {
    auto removed = done();
    if (!action.note.empty()) {
        removed = take({Step::note, Way::back}, action, unflushed);
    }
    const bool isMade = typeOf(action.kind).isMade() && !action.made.empty();
    return removed && isMade ? take({Step::make, Way::back}, action, unflushed) : removed;
}

/// A note that the loss of power took is written again.
Outcome renewNote(const LedgerAction& action, Unflushed& unflushed) {
    return presenceOf(action.note) == Presence::gone ? take({Step::note, Way::forth}, action, unflushed)
                                                     : done();
}

/// What stays of a recording whose other copy went before the interruption has to be there.
bool isThere(const BytePath& stays) {
    const auto file = openForReading(stays);
    const auto stamp = file ? stampOf(*file, stays) : Result<FileStamp>(file.error());
    std::array<std::uint8_t, 1> byte{};
    return stamp && (stamp->size == 0 || readAt(*file, stays, stamp->size - 1, byte).ok());
}

Settled finishSetAside(Doing& doing, Unflushed& unflushed) {
    auto& action = doing.action;
    const bool goes = action.step == ActionStep::started;
    if (goes && !action.stays.empty() && !isThere(action.stays)) {
        std::vector<Leg> taken{{Step::note, Way::forth}, {Step::setAside, Way::forth}};
        return ended(doing, takeBack(taken, action, unflushed), Settled::takenBack);
    }
    return ended(doing, renewNote(action, unflushed), Settled::finished);
}

/// With the old file aside: what was made for its place goes there, or the old one comes back.
Settled finishReplacing(Doing& doing, Unflushed& unflushed) {
    const auto& action = doing.action;
    const auto& stands = standsAt(action);
    if (presenceOf(stands) == Presence::there) {
        return holds(stands, action.madeChecksum)
                   ? ended(doing, renewNote(action, unflushed), Settled::finished)
                   : wait(doing, "another file stands at its place now; what it was is in the trash.");
    }
    if (holds(action.made, action.madeChecksum)) {
        const auto placed = take({Step::place, Way::forth}, action, unflushed);
        if (placed) {
            return ended(doing, renewNote(action, unflushed), Settled::finished);
        }
    }
    auto back = take({Step::setAside, Way::back}, action, unflushed);
    return ended(doing, back ? removePrepared(action, unflushed) : back, Settled::takenBack);
}

Settled settleForth(Doing& doing, Standing standing, Unflushed& unflushed) {
    const auto& action = doing.action;
    if (action.kind == ActionKind::move && standing == Standing::done) {
        return Settled::finished;
    }
    if (action.kind == ActionKind::discard) {
        return standing == Standing::done ? Settled::finished : Settled::takenBack;
    }
    if (typeOf(action.kind).adds() && standing == Standing::done) {
        return Settled::finished;
    }
    if (standing == Standing::done) {
        return typeOf(action.kind).isMade() ? finishReplacing(doing, unflushed)
                                            : finishSetAside(doing, unflushed);
    }
    return ended(doing, removePrepared(action, unflushed), Settled::takenBack);
}

/// What was brought back was on its way to the trash.
Settled settleBroughtBack(Doing& doing, Standing standing, Unflushed& unflushed) {
    return standing == Standing::done
               ? ended(doing, renewNote(doing.action, unflushed), Settled::finished)
               : ended(doing, take({Step::note, Way::back}, doing.action, unflushed), Settled::takenBack);
}

Settled settleBack(Doing& doing, Standing standing, Unflushed& unflushed) {
    const auto& action = doing.action;
    if (typeOf(action.kind).adds()) {
        return settleBroughtBack(doing, standing, unflushed);
    }
    if (standing == Standing::lost) {
        return Settled::takenBack;
    }
    bool isBack = standing == Standing::undone;
    // What was made has left the place, and the old file is not there yet.
    if (!isBack && action.kind != ActionKind::move && presenceOf(standsAt(action)) == Presence::gone) {
        const auto back = take({Step::setAside, Way::back}, action, unflushed);
        if (!back) {
            return wait(doing, back.error().sentence);
        }
        isBack = true;
    }
    return isBack ? ended(doing, action.kind == ActionKind::move ? done() : removePrepared(action, unflushed),
                          Settled::finished)
                  : Settled::takenBack;
}

/// The change that is not made twice: by it everything before and after is told.
Leg decisiveLeg(const LedgerAction& action) {
    const auto& type = typeOf(action.kind);
    const bool forth = action.step == ActionStep::started || action.step == ActionStep::carriedOut;
    const auto legs = forth ? type.forth : type.back;
    for (const auto step : {Step::setAside, Step::move}) {
        if (const auto found = std::ranges::find(legs, step, &Leg::step); found != legs.end()) {
            return *found;
        }
    }
    return legs.back();
}

} // namespace

bool wasReverted(const LedgerAction& action) {
    const bool isDone = action.step == ActionStep::carriedOut || action.step == ActionStep::undone;
    if (!isDone || !typeOf(action.kind).changesVolume()) {
        return false;
    }
    const auto leg = decisiveLeg(action);
    return standingOf(leg.step, action) == (leg.way == Way::forth ? Standing::undone : Standing::done);
}

Outcome tidy(const LedgerAction& action, Unflushed& unflushed) {
    const bool isGivenUp = action.step != ActionStep::carriedOut && action.step != ActionStep::started;
    return isGivenUp ? removePrepared(action, unflushed) : done();
}

Settled settleChanges(Doing& doing, Unflushed& unflushed) {
    const auto& type = doing.type();
    const bool forth = doing.action.step == ActionStep::started;
    if (!type.changesVolume()) {
        return Settled::takenBack; // it is said in one transaction, or not at all
    }
    const auto standing = standingOf(decisiveLeg(doing.action).step, doing.action);
    if (standing == Standing::unknown) {
        return wait(doing, "it cannot be looked at now. Look to its drive, then start again.");
    }
    return forth ? settleForth(doing, standing, unflushed) : settleBack(doing, standing, unflushed);
}

} // namespace sober
