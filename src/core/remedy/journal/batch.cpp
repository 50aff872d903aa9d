#include "core/remedy/journal/batch.h"

#include "core/base/text.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/journal/settlements.h"
#include "core/remedy/journal/steps.h"

#include <algorithm>

namespace sober {
namespace {

/// What is missing is brought back; there is nothing to set aside.
ActionKind kindNow(const PlannedAction& planned) {
    const auto kind = planned.action.kind;
    const bool fills =
        kind == ActionKind::restore || (kind == ActionKind::salvage && planned.holding.id != 0);
    return fills && planned.holding.state == HoldingState::missing ? ActionKind::bringBack
                                                                   : planned.action.kind;
}

std::vector<LedgerAction*> actionsOf(const std::vector<Doing*>& doings) {
    std::vector<LedgerAction*> actions;
    std::ranges::transform(doings, std::back_inserter(actions), [](Doing* each) { return &each->action; });
    return actions;
}

} // namespace

Outcome Batch::run(std::span<const PlannedAction* const> actions,
                   const std::function<void(const PlannedAction&)>& onFile) {
    prove(actions, onFile);
    auto outcome = writeDown();
    if (outcome) {
        outcome = leadBefore();
    }
    if (outcome) {
        outcome = makeAll();
    }
    if (outcome) {
        outcome = noteAll();
    }
    if (outcome) {
        changeAll();
        outcome = leadAfter();
    }
    if (outcome) {
        outcome = record();
    }
    return outcome ? giveUpAll() : outcome;
}

std::vector<Doing*> Batch::going() {
    std::vector<Doing*> going;
    for (auto& each : doings_) {
        if (!each.failure) {
            going.push_back(&each);
        }
    }
    return going;
}

void Batch::prove(std::span<const PlannedAction* const> actions,
                  const std::function<void(const PlannedAction&)>& onFile) {
    for (const auto* planned : actions) {
        if (result_.interrupted || !context_.control.proceed()) {
            result_.interrupted = true;
            return;
        }
        onFile(*planned);
        Doing doing;
        doing.planned = planned;
        doing.action.entry = result_.entry;
        doing.action.kind = kindNow(*planned);
        doing.action.holding = planned->holding.id;
        doing.action.place = planned->path;
        doing.action.size = planned->holding.size;
        doing.action.checksum = planned->holding.checksum;
        const auto& type = doing.type();
        auto proven = planned->refused        ? Result<Proven>(refusedError(planned->path, *planned->refused))
                      : type.prove != nullptr ? type.prove(context_, *planned, doing.action)
                                              : Result(Proven{});
        if (!proven && proven.error().cause == Cause::interrupted) {
            result_.interrupted = true;
            return;
        }
        if (proven) {
            doing.proven = std::move(*proven);
            hooks_.onInstant(Instant::checked);
        } else {
            doing.failure = proven.error();
        }
        doings_.push_back(std::move(doing));
    }
}

Outcome Batch::writeDown() {
    const auto proven = going();
    if (proven.empty()) {
        return done();
    }
    const auto layOut = proven.front()->type().layOut;
    std::vector<Doing*> begun;
    const auto started = context_.catalogue.together([&]() -> Outcome {
        const auto laidOut = layOut != nullptr ? layOut(context_.catalogue, actionsOf(proven)) : done();
        if (!laidOut) {
            return laidOut;
        }
        for (auto* doing : proven) {
            choosePlaces(*doing);
        }
        begun = going();
        foreseeFolders(begun);
        RETURN_IF_FAILED(ledger_.noteFolders(result_.entry, folders_));
        return ledger_.start(actionsOf(begun));
    });
    for (std::size_t i = 0; started && i < begun.size(); ++i) {
        hooks_.onInstant(Instant::journalled);
    }
    return started;
}

/// No reference leads nowhere at any instant: they lead to what stays before a file goes, and to where it is
/// once it is there.
Outcome Batch::leadBefore() {
    return lead(References::beforeItGoes);
}
Outcome Batch::leadAfter() {
    return lead(References::afterItWent);
}

Outcome Batch::lead(References when) {
    NewPlaces places;
    for (const auto* doing : going()) {
        if (doing->type().references == when && !doing->planned->target.empty()) {
            // To what was proven to stay, and not to what was only expected to.
            const auto& action = doing->action;
            if (when == References::beforeItGoes || changesPlace(action)) {
                places.emplace(action.place,
                               when == References::beforeItGoes ? action.stays : standsAt(action));
            }
        }
    }
    if (places.empty()) {
        return done();
    }
    RunControl toTheEnd; // stopped between two batches, not within one
    auto following =
        Following::lead(context_.catalogue, result_.entry, std::move(places), toTheEnd, hooks_, &written_);
    RETURN_IF_FAILED(following);
    for (auto* doing : going()) {
        if (const auto why = following->left().find(doing->action.place); why != following->left().end()) {
            doing->failure = refusedError(doing->action.place, why->second);
        }
    }
    following_ = std::move(*following);
    return done();
}

Outcome Batch::record() {
    std::vector<Settlement> settlements;
    for (auto* doing : going()) {
        auto& action = doing->action;
        action.unflushed = isUnflushed(action, unflushed_);
        auto settlement = changesPlace(action) ? settlementMoved(action, ActionStep::carriedOut,
                                                                 standsAt(action), context_.volumes)
                                               : Result(settlementFor(action, ActionStep::carriedOut));
        if (settlement) {
            settlements.push_back(std::move(*settlement));
        } else {
            doing->failure = settlement.error();
        }
    }
    const auto finished = going();
    const auto recorded = context_.catalogue.together([&]() -> Outcome {
        for (const auto* doing : finished) {
            if (doing->made && doing->type().takeIn == nullptr) {
                auto record = *doing->made;
                const auto stamp = stampAt(standsAt(doing->action));
                record.stamp = stamp ? *stamp : record.stamp; // the rename has changed its ctime
                if (const auto taken = takeIn(context_.catalogue, doing->action, record); !taken) {
                    return taken;
                }
            }
            if (doing->type().record != nullptr) {
                if (const auto said = doing->type().record(context_.catalogue, *doing->planned); !said) {
                    return said;
                }
            }
        }
        const auto known = finished.empty() ? nullptr : finished.front()->type().takeIn;
        std::vector<const LedgerAction*> actions;
        for (const auto* doing : finished) {
            actions.push_back(&doing->action);
        }
        RETURN_IF_FAILED(known != nullptr ? known(context_.catalogue, actions) : done());
        std::set<BytePath> notMade;
        std::ranges::remove_copy_if(folders_, std::inserter(notMade, notMade.end()), isFolder);
        RETURN_IF_FAILED(ledger_.forgetFolders(result_.entry, notMade));
        return ledger_.settle(settlements);
    });
    if (!recorded) {
        return recorded;
    }
    for (const auto* doing : finished) {
        hooks_.onInstant(Instant::recorded);
        ++result_.done;
        result_.frees += doing->planned->frees;
    }
    return done();
}

/// What failed is taken back; what cannot be taken back now waits to be settled.
Outcome Batch::giveUpAll() {
    std::vector<BytePath> stayed;
    for (auto& doing : doings_) {
        if (!doing.failure) {
            continue;
        }
        doing.action.sentence = doing.failure->sentence;
        const bool isInterrupted = doing.failure->cause == Cause::interrupted;
        result_.interrupted = result_.interrupted || isInterrupted;
        if (const auto back = takeBack(doing.taken, doing.action, unflushed_); !back) {
            doing.action.waits = displayPath(doing.action.place) +
                                 " waits to be settled: it could not be put back (" + back.error().sentence +
                                 ")";
            result_.refused.push_back({doing.action.place, doing.action.sentence + " " + doing.action.waits});
            continue;
        }
        stayed.push_back(doing.action.place);
        doing.action.step = isInterrupted ? ActionStep::takenBack : ActionStep::refused;
        if (!isInterrupted) {
            result_.refused.push_back({doing.action.place, doing.action.sentence});
        }
    }
    unflushed_.flush();
    // Before the journal forgets them: whatever interrupts this, their references are led back.
    const auto withdrawn = following_ && !stayed.empty() ? following_->withdraw(stayed, hooks_) : done();
    result_.references += following_ ? following_->references() : 0;
    return withdrawn ? markGivenUp() : withdrawn;
}

Outcome Batch::markGivenUp() {
    for (auto& doing : doings_) {
        if (doing.failure) {
            auto* action = &doing.action;
            const auto noted = action->id != 0 ? ledger_.mark(*action, action->step, action->sentence)
                                               : ledger_.start(std::span(&action, 1));
            if (!noted) {
                return noted;
            }
        }
    }
    return done();
}

} // namespace sober
