#include "core/remedy/journal/putting_back.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/trash.h"
#include "core/remedy/journal/settlements.h"
#include "core/remedy/journal/steps.h"

#include <set>

namespace sober {

Outcome PuttingBack::change(std::vector<Doing>& doings) {
    if (const auto begun = begin(doings); !begun) {
        return begun;
    }
    for (auto& doing : doings) {
        putBack(doing);
    }
    unflushed_.flush();
    return giveUp(doings);
}

Outcome PuttingBack::begin(std::vector<Doing>& doings) {
    std::set<BytePath> chosen;
    std::vector<const LedgerAction*> replanned;
    for (auto& doing : doings) {
        auto& action = doing.action;
        const auto back = doing.type().back;
        // What was brought back goes to the trash, and needs a name there.
        if (!back.empty() && back.front().step == Step::note && presenceOf(action.place) == Presence::there) {
            const auto trash = trashFor(action.place, unflushed_);
            if (!trash) {
                doing.failure = trash.error();
                continue;
            }
            const auto slot = freeSlot(*trash, nameOf(action.place), chosen);
            chosen.insert(slot.note);
            action.aside = slot.file;
            action.note = slot.note;
            replanned.push_back(&action);
        }
    }
    if (const auto planned = replanned.empty() ? done() : ledger_.replan(replanned); !planned) {
        return planned;
    }
    std::vector<const LedgerAction*> begun;
    for (auto& doing : doings) {
        if (doing.type().changesVolume()) {
            doing.action.step = ActionStep::undoStarted;
            begun.push_back(&doing.action);
        }
    }
    const auto marked = begun.empty() ? done() : ledger_.markAll(begun, ActionStep::undoStarted);
    for (std::size_t i = 0; marked && i < begun.size(); ++i) {
        hooks_.onInstant(Instant::journalled);
    }
    return marked;
}

void PuttingBack::putBack(Doing& doing) {
    const auto& action = doing.action;
    const bool isGone = presenceOf(standsAt(action)) == Presence::gone;
    for (const auto& leg : doing.type().back) {
        // Where nothing stands at the place any more there is nothing to take from it.
        const bool takesFromPlace = leg.step == Step::place || (leg.way == Way::forth && isGone);
        if (doing.failure || (takesFromPlace && isGone)) {
            continue;
        }
        if (const auto taken = take(leg, action, unflushed_); !taken) {
            // With the file back at its place, what is left beside it is only to be tidied.
            const bool isLeftover =
                leg.way == Way::back && (leg.step == Step::make || leg.step == Step::note);
            doing.action.unflushed = doing.action.unflushed || isLeftover;
            if (!isLeftover) {
                doing.failure = taken.error();
            }
            continue;
        }
        doing.taken.push_back(leg);
        hooks_.onInstant(leg.step == Step::note       ? Instant::noteWritten
                         : leg.step == Step::setAside ? Instant::moved
                                                      : Instant::replaced);
    }
}

/// Those that could not go back are as they were before or, where that fails too, wait to be settled.
Outcome PuttingBack::giveUp(std::vector<Doing>& doings) {
    for (auto& doing : doings) {
        if (!doing.failure) {
            continue;
        }
        auto& action = doing.action;
        auto sentence = doing.failure->sentence;
        const auto back = takeBack(doing.taken, action, unflushed_);
        if (!back) {
            action.waits = displayPath(action.place) + " waits to be settled: " + back.error().sentence;
            sentence += " " + action.waits;
        }
        result_.refused.push_back({action.place, sentence});
        // What the ledger says of its carrying out stays.
        if (const auto marked = ledger_.mark(action, back ? ActionStep::carriedOut : ActionStep::undoStarted,
                                             action.sentence);
            !marked) {
            return marked;
        }
    }
    std::erase_if(doings, [](const Doing& doing) { return doing.failure.has_value(); });
    unflushed_.flush();
    return done();
}

Outcome PuttingBack::record(std::vector<Doing>& doings) {
    RunControl toTheEnd;
    EvidenceWorker worker;
    std::vector<Settlement> settlements;
    for (auto& doing : doings) {
        auto& action = doing.action;
        action.unflushed = action.unflushed || isUnflushed(action, unflushed_);
        const auto& back = doing.type().back;
        if (!back.empty() && back.front().step == Step::place) {
            auto record = readAsItIs(worker, action.place, toTheEnd);
            if (!record) {
                result_.refused.push_back({action.place, record.error().sentence});
                continue;
            }
            doing.made = std::move(*record);
        }
        // Kept until the lists have followed, in case that one of them cannot.
        const bool leavesMade =
            std::ranges::none_of(back, [](const Leg& leg) { return leg.step == Step::make; }) &&
            !back.empty() && back.front().step == Step::place;
        if (leavesMade && !take({Step::make, Way::back}, action, unflushed_)) {
            action.unflushed = true;
        }
        auto settlement = changesPlace(action)
                              ? settlementMoved(action, ActionStep::undone, action.place, volumes_)
                              : Result(settlementFor(action, ActionStep::undone));
        RETURN_IF_FAILED(settlement);
        settlements.push_back(std::move(*settlement));
    }
    const auto recorded = catalogue_.together([&]() -> Outcome {
        for (const auto& doing : doings) {
            const auto withdraw = doing.type().withdraw;
            auto said = withdraw != nullptr ? withdraw(catalogue_, doing.action) : done();
            if (said && doing.made) {
                said = takeIn(catalogue_, doing.action, *doing.made);
            }
            if (!said) {
                return said;
            }
        }
        return ledger_.settle(settlements);
    });
    for (std::size_t i = 0; recorded && i < settlements.size(); ++i) {
        hooks_.onInstant(Instant::recorded);
        ++result_.done;
    }
    return recorded;
}

} // namespace sober
