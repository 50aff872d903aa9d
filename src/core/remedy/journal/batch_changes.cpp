// What a batch changes on a volume: the other half of batch.cpp.
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/fixity_reading.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/journal/batch.h"
#include "core/remedy/journal/steps.h"

#include <fmt/format.h>

#include <algorithm>
#include <atomic>
#include <mutex>
#include <thread>

namespace sober {
namespace {

/// Where the file that replaces `place` is made: beside it, with the same ending. One name for each action.
BytePath placeForMade(const BytePath& place, EntryId entry, const std::string& which) {
    const auto ending = endingOf(place);
    return joinPath(parentOf(place),
                    fmt::format(".sober-{}-{}{}{}", entry, which, ending.empty() ? "" : ".", ending));
}

bool has(const ActionType& type, Step step) {
    return std::ranges::find(type.forth, step, &Leg::step) != type.forth.end();
}

} // namespace

void Batch::choosePlaces(Doing& doing) {
    auto& action = doing.action;
    if (doing.type().isMade()) {
        const auto which = action.holding != 0 ? fmt::format("{}", action.holding)
                                               : fmt::format("n{}", &doing - doings_.data());
        action.made = placeForMade(standsAt(action), result_.entry, which);
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

void Batch::foreseeFolders(const std::vector<Doing*>& doings) {
    std::set<BytePath> there;
    for (const auto* doing : doings) {
        const auto& type = doing->type();
        if (!type.isMade() && !has(type, Step::place) && !has(type, Step::move)) {
            continue;
        }
        for (BytePath folder(parentOf(standsAt(doing->action)));
             folder.size() > 1 && !there.contains(folder) && !folders_.contains(folder);
             folder = BytePath(parentOf(folder))) {
            (isFolder(folder) ? there : folders_).insert(folder);
        }
    }
}

/// With a drive that is full or has gone, the others wait: what one meets, all would.
std::optional<Error> Batch::whyNoMore(const Doing& doing) {
    const auto& failure = *doing.failure;
    const auto volume = volumeHolding(context_.volumes, doing.action.place);
    const bool isGone = volume && presenceOf((*volume)->root) != Presence::there;
    const bool byDrive = failure.cause == Cause::full || isGone;
    result_.stoppedByDrive = result_.stoppedByDrive || byDrive;
    return byDrive || failure.cause == Cause::interrupted
               ? std::optional(Error{Cause::interrupted, doing.action.place, failure.sentence})
               : std::nullopt;
}

/// Makes one; what it yields or why not is taken down with it.
void Batch::make(Doing& doing, DoingContext& context) {
    auto made = doing.type().make(context, *doing.planned, doing.action);
    if (made) {
        doing.action.madeChecksum = made->checksums.file;
        doing.made = std::move(*made);
    } else {
        doing.failure = made.error();
    }
}

Outcome Batch::makeAll() {
    const auto begun = going();
    if (begun.empty() || !begun.front()->type().isMade()) {
        return done();
    }
    for (auto* doing : begun) {
        doing->taken.push_back({Step::make, Way::forth});
        unflushed_.noteParentOf(doing->action.made);
        const auto folder = makeFolder(BytePath(parentOf(doing->action.made)), 0777, unflushed_);
        if (!folder) {
            doing->failure = folder.error();
        }
    }
    if (begun.front()->type().madeBesideEachOther) {
        makeBesideEachOther(going());
    } else {
        std::optional<Error> stopped;
        for (auto* doing : going()) {
            if (stopped) {
                doing->failure = stopped;
                continue;
            }
            make(*doing, context_);
            stopped = doing->failure ? whyNoMore(*doing) : std::nullopt;
            if (doing->made) {
                hooks_.onInstant(Instant::made);
            }
        }
    }
    confirmAll();
    std::vector<const LedgerAction*> replanned;
    for (const auto* doing : begun) {
        replanned.push_back(&doing->action);
    }
    return ledger_.replan(replanned);
}

void Batch::makeBesideEachOther(const std::vector<Doing*>& doings) {
    std::mutex telling;
    auto context = context_;
    context.onBytes = [&](std::uint64_t bytes, const BytePath& path) {
        const std::lock_guard lock(telling);
        context_.onBytes(bytes, path);
    };
    std::atomic<std::size_t> next = 0;
    std::optional<Error> stopped;
    const auto work = [&] {
        for (auto at = next++; at < doings.size(); at = next++) {
            auto& doing = *doings[at];
            const auto why = [&] {
                const std::lock_guard lock(telling);
                return stopped;
            }();
            if (why) {
                doing.failure = why;
                continue;
            }
            make(doing, context);
            const std::lock_guard lock(telling);
            if (doing.failure && !stopped) {
                stopped = whyNoMore(doing);
            } else if (doing.made) {
                hooks_.onInstant(Instant::made);
            }
        }
    };
    std::vector<std::jthread> threads;
    const auto count =
        std::min<std::size_t>(std::max(1U, std::thread::hardware_concurrency()), doings.size());
    for (std::size_t i = 0; i < count; ++i) {
        threads.emplace_back(work);
    }
}

/// What was made together is flushed together and read from the medium.
void Batch::confirmAll() {
    const auto made = going();
    if (made.empty() || !made.front()->type().madeTogether) {
        return;
    }
    std::vector<BytePath> paths;
    std::ranges::transform(made, std::back_inserter(paths),
                           [](const Doing* each) { return each->action.made; });
    if (const auto flushed = flushFiles(paths); !flushed) {
        for (auto* doing : made) {
            doing->failure = flushed.error();
        }
        return;
    }
    RunControl toTheEnd;
    readForFixity(
        paths, {}, toTheEnd,
        [&](std::uint64_t bytes) {
            // Of what is in another form nobody could say before how much it would be.
            if (!made.front()->type().madeBesideEachOther) {
                context_.onBytes(bytes, made.front()->action.place);
            }
        },
        [&](std::size_t at, const Result<FixityReading>& reading) {
            auto& doing = *made[at];
            if (!reading) {
                doing.failure = reading.error();
            } else if (!reading->unreadable.empty() || reading->blocks != doing.made->checksums.blocks) {
                doing.failure = Error{Cause::damaged, doing.action.place,
                                      displayPath(doing.action.place) +
                                          " reads back otherwise than it was written: its drive does not "
                                          "keep what it is given."};
            }
        });
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
    // What came into it until then went with it.
    if (const auto holds = doing.type().holds; !doing.failure && holds != nullptr) {
        if (const auto held = holds(doing.action.aside); !held) {
            doing.failure = refusedError(doing.action.place, displayPath(doing.action.place) +
                                                                 " is not empty any more; it was put back.");
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
