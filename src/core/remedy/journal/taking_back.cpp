#include "core/remedy/journal/taking_back.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/actions/take_in.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/changes/trash.h"
#include "core/remedy/journal/batch.h"
#include "core/remedy/journal/current_places.h"
#include "core/remedy/journal/list_change.h"
#include "core/remedy/journal/steps.h"
#include "core/remedy/journal/why_not_back.h"

#include <fmt/format.h>

#include <algorithm>
#include <ranges>

namespace sober {
namespace {

constexpr std::size_t largestBatch = 4'096; // actions

/// Files go back first, then the lists that lead to them, so that whatever interrupts it can be put in order
/// by where the files are.
class TakingBack {
  public:
    TakingBack(Catalogue& catalogue, EntryId entry, std::vector<Volume> volumes, RunControl& control,
               const CarryOutHooks& hooks)
        : catalogue_(catalogue),
          ledger_(catalogue),
          volumes_(std::move(volumes)),
          control_(control),
          hooks_(hooks) {
        result_.entry = entry;
    }

    Result<CarriedOut> run(std::vector<LedgerAction> actions) {
        std::erase_if(actions, [](const LedgerAction& each) { return each.step != ActionStep::carriedOut; });
        std::ranges::reverse(actions);
        const auto lists = std::ranges::stable_partition(actions, [](const LedgerAction& each) {
            return each.kind != ActionKind::repoint;
        });
        const std::span files(actions.begin(), lists.begin());
        std::ranges::stable_sort(files, {}, &LedgerAction::kind);
        progress_.totalFiles = actions.size();
        for (std::size_t at = 0; at < files.size();) {
            const auto batch = batchFrom(files, at);
            at += batch.size();
            if (const auto outcome = putBackAll(batch); !outcome) {
                return outcome.error();
            }
        }
        const bool isWhole = result_.refused.empty() && !result_.interrupted;
        for (const auto& list : lists) {
            if (const auto outcome = isWhole ? putListBack(list) : done(); !outcome) {
                return outcome.error();
            }
        }
        if (const auto outcome = endMoves(); !outcome) {
            return outcome.error();
        }
        const auto unflushed = ledger_.unflushed();
        if (!unflushed) {
            return unflushed.error();
        }
        result_.unflushed = unflushed->size();
        return result_;
    }

  private:
    static std::span<const LedgerAction> batchFrom(std::span<const LedgerAction> files, std::size_t at) {
        std::size_t past = at + 1;
        while (past < files.size() && past - at < largestBatch && files[past].kind == files[at].kind) {
            ++past;
        }
        return files.subspan(at, past - at);
    }

    Outcome putBackAll(std::span<const LedgerAction> actions) {
        std::vector<Doing> doings;
        for (const auto& action : actions) {
            tell(action);
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            auto placed = asPlacedNow(catalogue_, action);
            if (!placed) {
                return placed.error();
            }
            Doing doing;
            doing.action = std::move(placed->action);
            if (const auto possible = whyNot(doing.action, placed->atHand); possible) {
                doings.push_back(std::move(doing));
            } else {
                refuse(doing.action, possible.error());
            }
        }
        if (const auto led = leaveWhatListsHold(doings); !led) {
            return led;
        }
        if (const auto begun = begin(doings); !begun) {
            return begun;
        }
        for (auto& doing : doings) {
            putBack(doing);
        }
        unflushed_.flush();
        if (const auto given = giveUp(doings); !given) {
            return given;
        }
        unflushed_.flush();
        if (!doings.empty() && doings.front().action.kind == ActionKind::move) {
            std::ranges::move(doings, std::back_inserter(moved_));
            return done();
        }
        return record(doings);
    }

    Outcome whyNot(const LedgerAction& action, bool atHand) const {
        if (!atHand && typeOf(action.kind).changesVolume()) {
            return refusedError(action.place,
                                fmt::format("{} cannot be put back now: its volume is away.",
                                            displayPath(action.place)));
        }
        return canGoBack(action);
    }

    /// A file does not move back under a list that cannot be changed now.
    Outcome leaveWhatListsHold(std::vector<Doing>& doings) {
        if (doings.empty() || doings.front().action.kind != ActionKind::move) {
            return done();
        }
        std::vector<BytePath> places;
        std::ranges::transform(doings, std::back_inserter(places),
                               [](const Doing& each) { return each.action.made; });
        const auto shelf = PlayerShelf::of(catalogue_);
        const auto references =
            shelf ? PlayerStore(catalogue_).leadingTo(places) : Result<std::vector<Reference>>(shelf.error());
        if (!references) {
            return references.error();
        }
        std::map<ListFileId, std::optional<std::string>> whys;
        std::map<BytePath, std::string> held;
        for (const auto& reference : *references) {
            const auto* list = shelf->list(reference.list);
            auto why = whys.find(reference.list);
            if (why == whys.end() && list != nullptr) {
                auto never = shelf->whyNever(*list);
                why = whys.emplace(reference.list, never ? never : whyNotChange(list->path)).first;
            }
            if (why != whys.end() && why->second) {
                held.emplace(reference.path, *why->second);
            }
        }
        std::erase_if(doings, [&](const Doing& doing) {
            const auto why = held.find(doing.action.made);
            if (why != held.end()) {
                refuse(doing.action, refusedError(doing.action.place, why->second));
            }
            return why != held.end();
        });
        return done();
    }

    Outcome begin(std::vector<Doing>& doings) {
        std::set<BytePath> chosen;
        std::vector<const LedgerAction*> replanned;
        for (auto& doing : doings) {
            auto& action = doing.action;
            const auto back = doing.type().back;
            // What was brought back goes to the trash, and needs a name there.
            if (!back.empty() && back.front().step == Step::note &&
                presenceOf(action.place) == Presence::there) {
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

    void putBack(Doing& doing) {
        const auto& action = doing.action;
        const bool isGone = presenceOf(action.place) == Presence::gone;
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
            hooks_.onInstant(leg.step == Step::note         ? Instant::noteWritten
                             : leg.step == Step::setAside ? Instant::moved
                                                          : Instant::replaced);
        }
    }

    /// Those that could not go back are as they were before or, where that fails too, wait to be settled.
    Outcome giveUp(std::vector<Doing>& doings) {
        for (auto& doing : doings) {
            if (!doing.failure) {
                continue;
            }
            auto error = *doing.failure;
            const auto back = takeBack(doing.taken, doing.action, unflushed_);
            if (!back) {
                error.sentence += " It waits to be settled: " + back.error().sentence;
            }
            refuse(doing.action, error);
            if (const auto marked = ledger_.mark(
                    doing.action, back ? ActionStep::carriedOut : ActionStep::undoStarted, error.sentence);
                !marked) {
                return marked;
            }
        }
        std::erase_if(doings, [](const Doing& doing) { return doing.failure.has_value(); });
        return done();
    }

    Outcome record(std::vector<Doing>& doings) {
        std::vector<Settlement> settlements;
        for (auto& doing : doings) {
            auto& action = doing.action;
            action.unflushed = action.unflushed || isUnflushed(action, unflushed_);
            const auto& back = doing.type().back;
            if (!back.empty() && back.front().step == Step::place) {
                auto record = readAsItIs(action.place, toTheEnd_);
                if (!record) {
                    refuse(action, record.error());
                    continue;
                }
                doing.made = std::move(*record);
            }
            auto settlement =
                action.kind == ActionKind::move
                    ? settlementMoved(action, ActionStep::undone, action.place, volumes_)
                    : Result(settlementFor(action, ActionStep::undone));
            if (!settlement) {
                return settlement.error();
            }
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

    Outcome putListBack(const LedgerAction& action) {
        tell(action);
        const auto left = undoListChange(ledger_, action, hooks_);
        if (!left) {
            return left.error();
        }
        if (*left) {
            refuse(action, refusedError(action.place, **left));
        } else {
            ++result_.done;
        }
        return done();
    }

    /// Whatever still leads to where a file was moved follows it back; only then is it said to be back.
    Outcome endMoves() {
        NewPlaces places;
        for (const auto& doing : moved_) {
            places.emplace(doing.action.made, doing.action.place);
        }
        const auto following =
            Following::lead(catalogue_, result_.entry, std::move(places), toTheEnd_, hooks_);
        if (!following) {
            return following.error();
        }
        for (auto& doing : moved_) {
            const auto why = following->left().find(doing.action.made);
            if (why != following->left().end()) {
                doing.failure = refusedError(doing.action.place, why->second);
            }
        }
        NewPlaces forthAgain;
        for (const auto& doing : moved_) {
            if (doing.failure) {
                forthAgain.emplace(doing.action.place, doing.action.made);
            }
        }
        if (const auto given = giveUp(moved_); !given) {
            return given;
        }
        unflushed_.flush();
        const auto again =
            Following::lead(catalogue_, result_.entry, std::move(forthAgain), toTheEnd_, hooks_);
        return again ? record(moved_) : Outcome(again.error());
    }

    void refuse(const LedgerAction& action, const Error& error) {
        result_.refused.push_back({action.place, error.sentence});
    }

    void tell(const LedgerAction& action) {
        progress_.at = displayPath(action.place);
        hooks_.onProgress(progress_);
        ++progress_.files;
    }

    Catalogue& catalogue_;
    LedgerStore ledger_;
    std::vector<Volume> volumes_;
    RunControl& control_;
    RunControl toTheEnd_; ///< of what has to end once it was begun
    const CarryOutHooks& hooks_;
    CarriedOut result_;
    Progress progress_;
    Unflushed unflushed_;
    std::vector<Doing> moved_; ///< back, and their lists not yet
};

} // namespace

Result<CarriedOut> takeBackEntry(Catalogue& catalogue, EntryId id, RunControl& control,
                                 const CarryOutHooks& hooks) {
    const LedgerStore ledger(catalogue);
    const auto entry = ledger.entry(id);
    if (!entry) {
        return entry.error();
    }
    if (!*entry || (*entry)->kind != "carry-out") {
        return Error{
            Cause::invalid, {}, fmt::format("Entry {} of the ledger is nothing that can be taken back.", id)};
    }
    if ((*entry)->carriedOut == 0) {
        return Error{Cause::invalid,
                     {},
                     (*entry)->undone > 0 ? fmt::format("Entry {} was taken back already.", id)
                                          : fmt::format("Nothing of entry {} was carried out.", id)};
    }
    auto actions = ledger.actionsOf(id);
    auto volumes = Volumes(catalogue).all();
    if (!actions || !volumes) {
        return actions ? volumes.error() : actions.error();
    }
    const auto opened = ledger.open("undo", fmt::format("taking back entry {}", id), id);
    if (!opened) {
        return opened.error();
    }
    const auto result = TakingBack(catalogue, *opened, std::move(*volumes), control, hooks)
                            .run(std::move(*actions));
    if (!result) {
        return result;
    }
    std::string summary = fmt::format("entry {} taken back: {}", id, counted(result->done, "action"));
    if (!result->refused.empty()) {
        summary += fmt::format(", {} could not be", humanCount(result->refused.size()));
    }
    const auto closed = ledger.close(*opened, summary);
    return closed ? result : Result<CarriedOut>(closed.error());
}

Result<std::optional<EntryId>> lastUndoable(const Catalogue& catalogue) {
    const auto entries = LedgerStore(catalogue).entries();
    if (!entries) {
        return entries.error();
    }
    const auto found = std::ranges::find_if(
        *entries, [](const LedgerEntry& entry) { return entry.kind == "carry-out" && entry.carriedOut > 0; });
    return found != entries->end() ? std::optional(found->id) : std::nullopt;
}

} // namespace sober
