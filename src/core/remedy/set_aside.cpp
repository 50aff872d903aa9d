#include "core/remedy/set_aside.h"

#include "core/base/text.h"
#include "core/remedy/file_changes.h"

namespace sober {
namespace {

void choosePlaces(LedgerAction& action, const Trash& trash) {
    const auto slot = freeSlot(trash, nameOf(action.place));
    action.aside = slot.file;
    action.note = slot.note;
}

} // namespace

Outcome noteAside(const LedgerStore& ledger, LedgerAction& action, const CarryOutHooks& hooks) {
    const auto trash = trashFor(action.place);
    if (!trash) {
        return trash.error();
    }
    choosePlaces(action, *trash);
    if (action.id == 0) {
        auto started = ledger.start(action);
        if (!started) {
            return started.error();
        }
        action = std::move(*started);
    } else if (const auto replanned = ledger.replan(action); !replanned) {
        return replanned;
    }
    hooks.onInstant(Instant::journalled);
    const auto write = [&] { return writeNewFile(action.note, noteText(*trash, action.place, timeNow())); };
    auto written = write();
    while (!written && written.error().cause == Cause::alreadyThere) {
        choosePlaces(action, *trash);
        if (const auto replanned = ledger.replan(action); !replanned) {
            return replanned;
        }
        written = write();
    }
    if (!written) {
        ledger.mark(action, ActionStep::takenBack, written.error().sentence).ok();
        return written;
    }
    hooks.onInstant(Instant::noteWritten);
    return done();
}

Outcome moveAside(const LedgerAction& action, const FileStamp& checked) {
    const auto now = stampAt(action.place);
    if (!now || !now->sameContentAs(checked)) {
        return Error{Cause::refused, action.place,
                     displayPath(action.place) + " changed after it was checked; it stays."};
    }
    return moveEntry(action.place, action.aside);
}

} // namespace sober
