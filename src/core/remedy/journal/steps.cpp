#include "core/remedy/journal/steps.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/changes/trash.h"
#include "core/salvage/trash_finds.h"

#include <algorithm>
#include <ranges>

namespace sober {
namespace {

Leg reverseOf(const Leg& leg) {
    return {leg.step, leg.way == Way::forth ? Way::back : Way::forth};
}

/// Of a file that is at one of two names, told by its content: done where it is at the second.
Standing whichOf(const BytePath& first, const BytePath& second,
                 const std::function<Outcome(const BytePath&)>& holdsIt) {
    const auto atFirst = presenceOf(first);
    const auto atSecond = presenceOf(second);
    if (atSecond == Presence::unknown || atFirst == Presence::unknown) {
        return Standing::unknown;
    }
    if (atSecond == Presence::there) {
        const auto held = holdsIt(second);
        if (held) {
            return Standing::done;
        }
        // Another's file under that name: ours never went there, if it is still where it was.
        return held.error().cause != Cause::changed ? Standing::unknown
               : atFirst == Presence::there         ? Standing::undone
                                                    : Standing::lost;
    }
    return atFirst == Presence::there ? Standing::undone : Standing::lost;
}

Standing standingOfPlaced(const LedgerAction& action) {
    return whichOf(action.made, standsAt(action),
                   [&](const BytePath& path) { return holds(path, action.madeChecksum); });
}

Standing byName(const BytePath& path) {
    const auto presence = presenceOf(path);
    return presence == Presence::there  ? Standing::done
           : presence == Presence::gone ? Standing::undone
                                        : Standing::unknown;
}

Outcome writeNote(const LedgerAction& action, Unflushed& unflushed) {
    const auto text = noteText(trashHolding(action.note), action.place, timeNow());
    return writeNewFile(action.note, text, unflushed);
}

/// A note of another file is never removed, nor one whose file is there.
Outcome removeNote(const LedgerAction& action, Unflushed& unflushed) {
    const auto file = presenceOf(action.aside);
    const auto note = presenceOf(action.note);
    if (file == Presence::there || note == Presence::gone) {
        return done();
    }
    if (file == Presence::unknown || note == Presence::unknown) {
        return refusedError(action.note, displayPath(action.note) + " cannot be looked at now.");
    }
    const auto isOurs =
        action.step == ActionStep::started ? isNoteAbout(action.note, action.place) : Result(true);
    return !isOurs ? Outcome(isOurs.error()) : *isOurs ? removeFile(action.note, unflushed) : done();
}

/// A note that stays behind is about nothing, and shown as such.
Outcome discardFromTrash(const BytePath& file, Unflushed& unflushed) {
    const auto note = noteOfTrashed(file);
    const auto removed = removeFile(file, unflushed);
    const auto noted = removed && !note.empty() ? removeFile(note, unflushed) : done();
    return noted ? removed : done();
}

Outcome moveTo(const BytePath& from, const BytePath& to, Unflushed& unflushed) {
    const auto folder = makeFolder(BytePath(parentOf(to)), 0777, unflushed);
    return folder ? moveEntry(from, to, unflushed) : folder;
}

} // namespace

Standing standingOf(Step step, const LedgerAction& action) {
    const auto isIt = [&](const BytePath& path) { return holdsWhatWentAside(path, action); };
    switch (step) {
    case Step::note:
        return byName(action.note);
    case Step::make: {
        const auto made = byName(action.made);
        return made == Standing::undone && standingOfPlaced(action) == Standing::done ? Standing::done : made;
    }
    case Step::setAside:
        return action.aside.empty() ? Standing::undone : whichOf(action.place, action.aside, isIt);
    case Step::place:
        return standingOfPlaced(action);
    case Step::move:
        return whichOf(action.place, action.made, isIt);
    case Step::discard: {
        const auto there = byName(action.place);
        return there == Standing::done     ? Standing::undone
               : there == Standing::undone ? Standing::done
                                           : there;
    }
    }
    return Standing::unknown;
}

Outcome take(const Leg& leg, const LedgerAction& action, Unflushed& unflushed) {
    const bool forth = leg.way == Way::forth;
    switch (leg.step) {
    case Step::note:
        return forth ? writeNote(action, unflushed) : removeNote(action, unflushed);
    case Step::make:
        return forth ? done() : removeFile(action.made, unflushed);
    case Step::setAside:
        return forth ? moveEntry(action.place, action.aside, unflushed)
                     : moveTo(action.aside, action.place, unflushed);
    case Step::place:
        return forth ? moveTo(action.made, standsAt(action), unflushed)
                     : moveEntry(standsAt(action), action.made, unflushed);
    case Step::move:
        return forth ? moveTo(action.place, action.made, unflushed)
                     : moveTo(action.made, action.place, unflushed);
    case Step::discard:
        return forth ? discardFromTrash(action.place, unflushed)
                     : refusedError(action.place, displayPath(action.place) + " was let go of for good.");
    }
    return done();
}

Outcome takeBack(std::vector<Leg>& taken, const LedgerAction& action, Unflushed& unflushed) {
    while (!taken.empty()) {
        if (const auto back = take(reverseOf(taken.back()), action, unflushed); !back) {
            return back;
        }
        taken.pop_back();
    }
    return done();
}

bool isUnflushed(const LedgerAction& action, const Unflushed& unflushed) {
    const auto concerned = {&action.place, &action.aside, &action.note, &action.made, &standsAt(action)};
    return std::ranges::any_of(
        concerned, [&](const BytePath* path) { return !path->empty() && unflushed.holds(*path); });
}

void noteFolders(const LedgerAction& action, Unflushed& unflushed) {
    for (const auto* path : {&action.place, &action.aside, &action.note, &action.made, &standsAt(action)}) {
        if (path->empty()) {
            continue;
        }
        auto known = *path;
        while (action.holding != 0 && parentOf(known).size() > 1 &&
               presenceOf(BytePath(parentOf(known))) == Presence::gone) {
            known = BytePath(parentOf(known));
        }
        unflushed.noteParentOf(known);
    }
}

} // namespace sober
