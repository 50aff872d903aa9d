#include "core/remedy/moving.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/references_along.h"
#include "core/remedy/take_in.h"

#include <sys/stat.h>

namespace sober {
namespace {

/// What the catalogue is to say: at `path` since, by an action that has come to `step`.
Outcome record(const Catalogue& catalogue, const LedgerAction& action, ActionStep step,
               const BytePath& path) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto volume = volumeHolding(*volumes, path);
    if (!volume) {
        return volume.error();
    }
    return LedgerStore(catalogue).finishMove(action, step, (*volume)->id, *relativeTo(path, (*volume)->root));
}

/// Whatever lists still lead to one place lead to the other.
Outcome follow(const Catalogue& catalogue, EntryId entry, const BytePath& from, const BytePath& to,
               const CarryOutHooks& hooks) {
    RunControl control;
    const auto along = takeReferencesAlong(catalogue, entry, {{from, to}}, control, hooks);
    return along ? done() : Outcome(along.error());
}

Result<std::string> saying(const Outcome& outcome, const LedgerAction& action, std::string_view words) {
    return outcome ? Result<std::string>(displayPath(action.place) + std::string(words))
                   : Result<std::string>(outcome.error());
}

} // namespace

bool isOnSameFilesystem(const BytePath& path, const BytePath& target) {
    struct stat here {};
    struct stat there {};
    BytePath folder(parentOf(target));
    while (stat(folder.c_str(), &there) != 0 && folder.size() > 1) {
        folder = BytePath(parentOf(folder));
    }
    return lstat(path.c_str(), &here) == 0 && here.st_dev == there.st_dev;
}

Result<LedgerAction> startMove(const LedgerStore& ledger, LedgerAction action, const CarryOutHooks& hooks) {
    auto started = ledger.start(std::move(action));
    if (!started) {
        return started.error();
    }
    hooks.onInstant(Instant::journalled);
    auto moved = makeFolder(BytePath(parentOf(started->made)), 0777);
    if (moved) {
        moved = moveEntry(started->place, started->made);
    }
    if (!moved) {
        ledger.mark(*started, ActionStep::takenBack, moved.error().sentence).ok();
        return moved.error();
    }
    hooks.onInstant(Instant::moved);
    return started;
}

Outcome finishMove(const Catalogue& catalogue, const LedgerAction& action) {
    return record(catalogue, action, ActionStep::carriedOut, action.made);
}

Outcome abandonMove(const LedgerStore& ledger, const LedgerAction& action, const std::string& why) {
    const auto back = moveEntry(action.made, action.place);
    return back ? ledger.mark(action, ActionStep::takenBack, why) : back;
}

Outcome startUndo(const LedgerStore& ledger, const LedgerAction& action, const CarryOutHooks& hooks) {
    const auto refused = [&](Cause cause, std::string_view why) {
        return Outcome(Error{cause, action.place, displayPath(action.place) + std::string(why)});
    };
    if (isTaken(action.place)) {
        return refused(Cause::alreadyThere, " cannot be put back: its place is taken.");
    }
    const auto now = stampAt(action.made);
    if (!now || !holdsWhatWentAside(action.made, action)) {
        return refused(Cause::changed,
                       " cannot be put back: it is not where it was moved to, or not as it was.");
    }
    if (const auto journalled = ledger.mark(action, ActionStep::undoStarted); !journalled) {
        return journalled;
    }
    hooks.onInstant(Instant::journalled);
    auto moved = makeFolder(BytePath(parentOf(action.place)), 0777);
    if (moved) {
        moved = moveEntry(action.made, action.place);
    }
    if (!moved) {
        ledger.mark(action, ActionStep::carriedOut).ok();
        return moved;
    }
    hooks.onInstant(Instant::moved);
    return done();
}

Outcome finishUndo(const Catalogue& catalogue, const LedgerAction& action, EntryId undoing,
                   const CarryOutHooks& hooks) {
    if (const auto followed = follow(catalogue, undoing, action.made, action.place, hooks); !followed) {
        return followed;
    }
    const auto recorded = record(catalogue, action, ActionStep::undone, action.place);
    hooks.onInstant(Instant::recorded);
    return recorded;
}

Result<std::string> recoverMove(const Catalogue& catalogue, const LedgerAction& action, EntryId recovery) {
    const LedgerStore ledger(catalogue);
    const bool forward = action.step == ActionStep::started;
    const auto& from = forward ? action.place : action.made;
    const auto& to = forward ? action.made : action.place;
    if (isTaken(from)) {
        return saying(ledger.mark(action, forward ? ActionStep::takenBack : ActionStep::carriedOut), action,
                      forward ? " was not moved yet; the action still waits on the docket."
                              : " was not moved back yet.");
    }
    if (!isTaken(to)) {
        return displayPath(action.place) + " is at neither of its places: its volume seems to be away. This "
                                           "is looked at again at the next "
                                           "start.";
    }
    if (const auto followed = follow(catalogue, forward ? action.entry : recovery, from, to, {}); !followed) {
        return followed.error();
    }
    return saying(record(catalogue, action, forward ? ActionStep::carriedOut : ActionStep::undone, to),
                  action,
                  forward ? " had been moved; its references and the ledger now say so."
                          : " had been moved back; its references and the ledger now say so.");
}

} // namespace sober
