#include "core/remedy/bringing_back.h"

#include "core/base/text.h"
#include "core/evidence/file_content.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/replacement.h"
#include "core/remedy/set_aside.h"
#include "core/remedy/take_in.h"

#include <fmt/format.h>

namespace sober {
namespace {

Outcome recordBroughtBack(Catalogue& catalogue, const LedgerStore& ledger, const LedgerAction& action,
                          FileRecord record) {
    const auto stamp = stampAt(action.place);
    record.stamp = stamp ? *stamp : record.stamp; // the rename has changed its ctime
    if (const auto taken = takeIn(catalogue, action, record); !taken) {
        return taken;
    }
    return ledger.finish(action, ActionStep::carriedOut, HoldingState::present);
}

Result<std::string> saying(const Outcome& outcome, const LedgerAction& action, std::string_view words) {
    return outcome ? Result<std::string>(displayPath(action.place) + std::string(words))
                   : Result<std::string>(outcome.error());
}

} // namespace

Outcome bringBack(Catalogue& catalogue, const LedgerStore& ledger, LedgerAction action,
                  const std::function<Result<FileRecord>(const BytePath&)>& make,
                  const CarryOutHooks& hooks) {
    if (isTaken(action.place)) {
        return Error{Cause::alreadyThere, action.place,
                     displayPath(action.place) +
                         ": something stands at its place again; survey the volume first."};
    }
    hooks.onInstant(Instant::checked);
    auto started = ledger.start(std::move(action));
    if (!started) {
        return started.error();
    }
    hooks.onInstant(Instant::journalled);
    const auto giveUp = [&](const Error& error) {
        removeFile(started->made).ok();
        ledger.mark(*started, ActionStep::takenBack, error.sentence).ok();
        return Outcome(error);
    };
    if (const auto folder = makeFolder(BytePath(parentOf(started->place)), 0777); !folder) {
        return giveUp(folder.error());
    }
    if (const auto room = hasRoomFor(started->place, started->size); !room) {
        return giveUp(room.error());
    }
    const auto made = make(started->made);
    if (!made) {
        return giveUp(made.error());
    }
    hooks.onInstant(Instant::made);
    if (const auto placed = moveEntry(started->made, started->place); !placed) {
        return giveUp(placed.error());
    }
    hooks.onInstant(Instant::replaced);
    const auto recorded = recordBroughtBack(catalogue, ledger, *started, *made);
    hooks.onInstant(Instant::recorded);
    return recorded;
}

Outcome undoBringBack(const LedgerStore& ledger, LedgerAction action, const CarryOutHooks& hooks) {
    RunControl control;
    const auto now = readContent(action.place, control);
    if (!now && now.error().cause == Cause::notFound) {
        return ledger.finish(action, ActionStep::undone, HoldingState::missing);
    }
    if (!now) {
        return now.error();
    }
    if (now->checksums.file != action.madeChecksum) {
        return Error{Cause::changed, action.place,
                     displayPath(action.place) + " was changed since it was brought back; it stays."};
    }
    if (const auto journalled = ledger.mark(action, ActionStep::undoStarted); !journalled) {
        return journalled;
    }
    const auto giveUp = [&](const Error& error) {
        removeFile(action.note).ok();
        ledger.mark(action, ActionStep::carriedOut).ok();
        return Outcome(error);
    };
    if (const auto noted = noteAside(ledger, action, hooks); !noted) {
        return giveUp(noted.error());
    }
    if (const auto moved = moveAside(action, now->stamp); !moved) {
        return giveUp(moved.error());
    }
    hooks.onInstant(Instant::moved);
    const auto finished = ledger.finish(action, ActionStep::undone, HoldingState::missing);
    hooks.onInstant(Instant::recorded);
    return finished;
}

Result<std::string> recoverBringBack(Catalogue& catalogue, const LedgerStore& ledger,
                                     const LedgerAction& action) {
    if (action.step == ActionStep::undoStarted) {
        if (!action.aside.empty() && isTaken(action.aside) && !isTaken(action.place)) {
            return saying(ledger.finish(action, ActionStep::undone, HoldingState::missing), action,
                          " had been taken back; the ledger now says so.");
        }
        if (!action.note.empty() && !isTaken(action.aside)) {
            if (const auto removed = removeFile(action.note); !removed) {
                return removed.error();
            }
        }
        return saying(ledger.mark(action, ActionStep::carriedOut), action,
                      " was not taken back yet; it stays.");
    }
    RunControl control;
    if (isTaken(action.place) && !isTaken(action.made)) {
        const auto record = readBack(action.place, control);
        if (record && record->checksums.file == action.madeChecksum) {
            return saying(recordBroughtBack(catalogue, ledger, action, *record), action,
                          " had been brought back; the ledger now says so.");
        }
    }
    if (const auto removed = removeFile(action.made); !removed) {
        return removed.error();
    }
    return saying(ledger.mark(action, ActionStep::takenBack), action,
                  " was not brought back yet; the action still waits on the docket.");
}

} // namespace sober
