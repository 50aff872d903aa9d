#include "core/remedy/journal/recovery.h"

#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/journal/current_places.h"
#include "core/remedy/journal/following.h"
#include "core/remedy/journal/list_change.h"
#include "core/remedy/journal/made_folders.h"
#include "core/remedy/journal/settlements.h"
#include "core/remedy/journal/settling.h"
#include "core/remedy/journal/steps.h"

#include <fmt/format.h>

#include <map>

namespace sober {
namespace {

bool isForth(const LedgerAction& action) {
    return action.step == ActionStep::started;
}

/// Whether the ledger has something that is to be settled or closed.
struct Leftovers {
    std::vector<LedgerAction> unfinished;
    std::vector<LedgerEntry> unclosed;
    std::vector<LedgerAction> unflushed;

    static Result<Leftovers> in(const LedgerStore& ledger) {
        auto unfinished = ledger.unfinished();
        auto unclosed = ledger.unclosed();
        auto unflushed = ledger.unflushed();
        if (!unfinished || !unclosed || !unflushed) {
            return !unfinished ? unfinished.error() : !unclosed ? unclosed.error() : unflushed.error();
        }
        return Leftovers{std::move(*unfinished), std::move(*unclosed), std::move(*unflushed)};
    }
};

class Recovery {
  public:
    Recovery(Catalogue& catalogue, std::vector<Volume> volumes)
        : catalogue_(catalogue), ledger_(catalogue), volumes_(std::move(volumes)) {}

    Result<Recovered> run(const Leftovers& leftovers) {
        for (const auto& action : leftovers.unfinished) {
            if (action.kind == ActionKind::repoint) {
                RETURN_IF_FAILED(settleList(action));
            }
        }
        for (const auto& action : leftovers.unfinished) {
            if (action.kind != ActionKind::repoint) {
                RETURN_IF_FAILED(settle(action));
            }
        }
        for (const auto& action : leftovers.unflushed) {
            RETURN_IF_FAILED(lookAtUnflushed(action));
        }
        unflushed_.flush();
        for (const auto phase : {&Recovery::lead, &Recovery::record, &Recovery::sayWaiting}) {
            RETURN_IF_FAILED((this->*phase)());
        }
        for (const auto& entry : leftovers.unclosed) {
            RETURN_IF_FAILED(removeMadeFolders(catalogue_, entry.id));
            RETURN_IF_FAILED(ledger_.close(entry.id, entry.summary + ", interrupted"));
        }
        const auto closed = close();
        return closed ? Result(std::move(recovered_)) : Result<Recovered>(closed.error());
    }

  private:
    Outcome settleList(const LedgerAction& action) {
        auto became = recoverListChange(ledger_, action);
        RETURN_IF_FAILED(became);
        if (became->isSettled) {
            recovered_.settled.push_back(std::move(became->sentence));
            return done();
        }
        auto waits = action;
        waits.waits = std::move(became->sentence);
        waiting_.push_back(std::move(waits));
        return done();
    }

    Outcome settle(const LedgerAction& action) {
        auto placed = asPlacedNow(catalogue_, action);
        RETURN_IF_FAILED(placed);
        Doing doing;
        doing.action = std::move(placed->action);
        if (!placed->atHand) {
            placed->action = doing.action;
            doing.action.waits = waitingSentence(*placed);
            waiting_.push_back(std::move(doing.action));
            return done();
        }
        const auto settled = settleChanges(doing, unflushed_);
        if (settled == Settled::waiting) {
            waiting_.push_back(std::move(doing.action));
        } else {
            (settled == Settled::finished ? finished_ : takenBack_).push_back(std::move(doing));
        }
        return done();
    }

    /// Lists lead to where the file is now, whichever way it was under way. What leads there when a docket
    /// was under way belongs to that docket; what is led while it was taken back belongs to the recovery.
    Outcome lead() {
        std::map<EntryId, NewPlaces> places;
        for (const auto* doings : {&finished_, &takenBack_}) {
            for (const auto& doing : *doings) {
                const auto& action = doing.action;
                if (!changesPlace(action)) {
                    continue;
                }
                if (!isForth(action)) {
                    if (const auto opened = open(); !opened) {
                        return opened;
                    }
                }
                const bool isMoved = isForth(action) == (doings == &finished_);
                auto& entry = places[isForth(action) ? action.entry : entry_];
                entry.emplace(isMoved ? action.place : standsAt(action),
                              isMoved ? standsAt(action) : action.place);
            }
        }
        for (auto& [entry, news] : places) {
            RunControl toTheEnd;
            const auto following = Following::lead(catalogue_, entry, news, toTheEnd, {});
            RETURN_IF_FAILED(following);
            for (const auto& [place, why] : following->left()) {
                waitFor(finished_, place, why);
                waitFor(takenBack_, place, why);
            }
        }
        return done();
    }

    void waitFor(std::vector<Doing>& doings, const BytePath& place, const std::string& why) {
        std::erase_if(doings, [&](const Doing& doing) {
            const auto& action = doing.action;
            const bool waits = changesPlace(action) && (action.place == place || standsAt(action) == place);
            if (waits) {
                waiting_.push_back(action);
                waiting_.back().waits = displayPath(action.place) + " waits to be settled: " + why;
            }
            return waits;
        });
    }

    Outcome record() {
        std::vector<Settlement> settlements;
        std::vector<const Doing*> taken;
        for (auto& doing : finished_) {
            auto settlement = settlementOf(doing);
            if (!settlement) {
                doing.action.waits =
                    displayPath(doing.action.place) + " waits to be settled: " + settlement.error().sentence;
                waiting_.push_back(doing.action);
                continue;
            }
            settlements.push_back(std::move(*settlement));
            taken.push_back(&doing);
        }
        if (const auto opened = settlements.empty() && takenBack_.empty() ? done() : open(); !opened) {
            return opened;
        }
        const auto recorded = catalogue_.together([&]() -> Outcome {
            for (const auto* doing : taken) {
                const auto known = isForth(doing->action) ? doing->type().takeIn : nullptr;
                const auto in = doing->made ? takeIn(catalogue_, doing->action, *doing->made)
                                : known != nullptr
                                    ? known(catalogue_, std::array{&std::as_const(doing->action)})
                                    : done();
                if (!in) {
                    return in;
                }
            }
            for (auto& doing : takenBack_) {
                const auto& action = doing.action;
                const auto step = isForth(action) ? ActionStep::takenBack : ActionStep::carriedOut;
                doing.action.waits = {};
                const auto marked = ledger_.mark(action, step, action.sentence);
                if (!marked) {
                    return marked;
                }
            }
            return ledger_.settle(settlements);
        });
        if (!recorded) {
            return recorded;
        }
        for (const auto* doing : taken) {
            say(doing->action,
                isForth(doing->action)
                    ? fmt::format(" had been {}; the ledger now says so.", pastOf(doing->action.kind))
                    : std::string(" had been put back; the ledger now says so."));
        }
        for (const auto& doing : takenBack_) {
            say(doing.action,
                isForth(doing.action)
                    ? fmt::format(" was not {} yet; it still waits on the docket.", pastOf(doing.action.kind))
                    : std::string(" was not put back yet."));
        }
        return done();
    }

    Result<Settlement> settlementOf(Doing& doing) {
        auto& action = doing.action;
        const bool forth = isForth(action);
        const auto step = forth ? ActionStep::carriedOut : ActionStep::undone;
        action.unflushed = isUnflushed(action, unflushed_);
        action.waits = {};
        const auto& type = doing.type();
        const auto& place = forth ? standsAt(action) : action.place;
        const bool isRead = type.isMade() && (forth ? type.takeIn == nullptr : !type.adds());
        if (isRead) {
            RunControl toTheEnd;
            auto record = readAsItIs(worker_, place, toTheEnd);
            RETURN_IF_FAILED(record);
            doing.made = std::move(*record);
        }
        return changesPlace(action) ? settlementMoved(action, step, place, volumes_)
                                    : Result(settlementFor(action, step));
    }

    Outcome sayWaiting() {
        for (const auto& action : waiting_) {
            recovered_.waiting.push_back(action.waits);
            if (const auto marked = ledger_.mark(action, action.step, action.sentence); !marked) {
                return marked;
            }
        }
        return done();
    }

    /// What was done and not confirmed is flushed again. Where a loss of power has taken it back, the
    /// catalogue follows.
    Outcome lookAtUnflushed(const LedgerAction& action) {
        auto placed = asPlacedNow(catalogue_, action);
        RETURN_IF_FAILED(placed);
        if (!placed->atHand) {
            return done();
        }
        if (wasReverted(placed->action)) {
            const bool wasDone = action.step == ActionStep::carriedOut;
            placed->action.step = wasDone ? ActionStep::undoStarted : ActionStep::started;
            return settle(placed->action);
        }
        Unflushed folders;
        const bool isTidy = action.kind == ActionKind::repoint ? tidyList(ledger_, placed->action, folders)
                                                               : tidy(placed->action, folders).ok();
        noteFolders(placed->action, folders);
        folders.flush();
        return isTidy && folders.isEmpty() ? ledger_.setUnflushed(action, false) : done();
    }

    void say(const LedgerAction& action, const std::string& words) {
        recovered_.settled.push_back(displayPath(action.place) + words);
    }

    Outcome open() {
        if (entry_ != 0) {
            return done();
        }
        const auto opened = ledger_.open("recovery", "putting in order what was interrupted", std::nullopt);
        RETURN_IF_FAILED(opened);
        entry_ = *opened;
        return done();
    }

    Outcome close() {
        return entry_ == 0 ? done()
                           : ledger_.close(
                                 entry_, fmt::format("{} after an interruption",
                                                     counted(recovered_.settled.size(), "action put in order",
                                                             "actions put in order")));
    }

    Catalogue& catalogue_;
    LedgerStore ledger_;
    std::vector<Volume> volumes_;
    EvidenceWorker worker_;
    EntryId entry_ = 0;
    Unflushed unflushed_;
    std::vector<Doing> finished_;
    std::vector<Doing> takenBack_;
    std::vector<LedgerAction> waiting_;
    Recovered recovered_;
};

} // namespace

Result<Recovered> recoverInterrupted(Catalogue& catalogue) {
    const auto leftovers = Leftovers::in(LedgerStore(catalogue));
    auto volumes = Volumes(catalogue).all();
    if (!leftovers || !volumes) {
        return leftovers ? volumes.error() : leftovers.error();
    }
    return leftovers->unfinished.empty() && leftovers->unclosed.empty() && leftovers->unflushed.empty()
               ? Result(Recovered{})
               : Recovery(catalogue, std::move(*volumes)).run(*leftovers);
}

} // namespace sober
