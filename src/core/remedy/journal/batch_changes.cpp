// What a batch changes on a volume: the other half of batch.cpp.
#include "core/base/text.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/journal/batch.h"
#include "core/remedy/journal/steps.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

/// Where the file that replaces `place` is made: beside it, with the same ending. One name for each action.
BytePath placeForMade(const BytePath& place, EntryId entry, HoldingId holding) {
    const auto ending = endingOf(place);
    return joinPath(parentOf(place),
                    fmt::format(".sober-{}-{}{}{}", entry, holding, ending.empty() ? "" : ".", ending));
}

bool has(const ActionType& type, Step step) {
    return std::ranges::find(type.forth, step, &Leg::step) != type.forth.end();
}

} // namespace

void Batch::choosePlaces(Doing& doing) {
    auto& action = doing.action;
    if (doing.type().isMade()) {
        action.made = placeForMade(action.place, result_.entry, action.holding);
    }
    if (!has(doing.type(), Step::setAside)) {
        return;
    }
    const BytePath folder(parentOf(action.place));
    auto trash = trashes_.find(folder);
    if (trash == trashes_.end()) {
        trash = trashes_.emplace(folder, trashFor(action.place, unflushed_)).first;
    }
    if (!trash->second) {
        doing.failure = trash->second.error();
        return;
    }
    const auto slot = freeSlot(*trash->second, nameOf(action.place), notes_);
    notes_.insert(slot.note);
    action.aside = slot.file;
    action.note = slot.note;
}

Outcome Batch::makeAll() {
    const auto begun = going();
    for (auto* doing : begun) {
        if (!doing->type().isMade()) {
            return done();
        }
        doing->taken.push_back({Step::make, Way::forth});
        unflushed_.noteParentOf(doing->action.made);
        const auto folder = makeFolder(BytePath(parentOf(doing->action.made)), 0777, unflushed_);
        auto made = folder ? doing->type().make(context_, *doing->planned, doing->action)
                           : Result<FileRecord>(folder.error());
        if (!made) {
            doing->failure = made.error();
            continue;
        }
        doing->action.madeChecksum = made->checksums.file;
        doing->made = std::move(*made);
        hooks_.onInstant(Instant::made);
    }
    std::vector<const LedgerAction*> replanned;
    for (const auto* doing : begun) {
        replanned.push_back(&doing->action);
    }
    return ledger_.replan(replanned);
}

/// The notes are flushed before any file goes; a name that was taken meanwhile is chosen anew.
Outcome Batch::note(Doing& doing) {
    const Leg leg{Step::note, Way::forth};
    auto written = take(leg, doing.action, unflushed_);
    while (!written && written.error().cause == Cause::alreadyThere) {
        choosePlaces(doing);
        const LedgerAction* replanned = &doing.action;
        if (const auto planned = ledger_.replan(std::span(&replanned, 1)); !planned || doing.failure) {
            return planned;
        }
        written = take(leg, doing.action, unflushed_);
    }
    if (written) {
        doing.taken.push_back(leg);
    } else {
        doing.failure = written.error();
    }
    return done();
}

Outcome Batch::noteAll() {
    for (auto* doing : going()) {
        if (has(doing->type(), Step::note)) {
            if (const auto noted = note(*doing); !noted) {
                return noted;
            }
        }
    }
    std::map<BytePath, std::vector<Doing*>> noted; // by folder
    for (auto* doing : going()) {
        if (has(doing->type(), Step::note)) {
            noted[BytePath(parentOf(doing->action.note))].push_back(doing);
        }
    }
    for (const auto& [folder, doings] : noted) {
        std::vector<BytePath> notes;
        std::ranges::transform(doings, std::back_inserter(notes),
                               [](const Doing* each) { return each->action.note; });
        const auto flushed = flushFiles(notes);
        for (auto* doing : doings) {
            if (flushed) {
                hooks_.onInstant(Instant::noteWritten);
            } else {
                doing->failure = flushed.error();
            }
        }
    }
    return done();
}

void Batch::takeLeg(Doing& doing, const Leg& leg) {
    if (const auto taken = take(leg, doing.action, unflushed_); !taken) {
        doing.failure = taken.error();
        return;
    }
    doing.taken.push_back(leg);
    hooks_.onInstant(leg.step == Step::place ? Instant::replaced : Instant::moved);
}

void Batch::change(Doing& doing) {
    const auto now = stampAt(doing.action.place);
    const bool goes = has(doing.type(), Step::setAside) || has(doing.type(), Step::move);
    if (goes && !now) {
        doing.failure = now.error();
        return;
    }
    if (goes && !now->sameContentAs(doing.proven->goes)) {
        doing.failure = refusedError(doing.action.place, displayPath(doing.action.place) +
                                                             " changed after it was checked; it stays.");
        return;
    }
    for (const auto& leg : doing.type().forth) {
        if (!doing.failure && leg.step != Step::make && leg.step != Step::note) {
            takeLeg(doing, leg);
        }
    }
    // Whatever way leads from one to the other, and whoever was here meanwhile: what stays has to be there
    // now.
    if (!doing.failure && doing.proven->stays) {
        if (auto gone = whyNotThere(*doing.proven->stays)) {
            doing.failure = refusedError(doing.action.place,
                                         *gone + " " + displayPath(doing.action.place) + " was put back.");
        }
    }
}

void Batch::changeAll() {
    for (auto* doing : going()) {
        if (doing->type().changesVolume()) {
            change(*doing);
        }
    }
    unflushed_.flush();
}

} // namespace sober
