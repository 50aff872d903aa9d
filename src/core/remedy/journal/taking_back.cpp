#include "core/remedy/journal/taking_back.h"

#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/journal/can_go_back.h"
#include "core/remedy/journal/current_places.h"
#include "core/remedy/journal/doing.h"
#include "core/remedy/journal/following.h"
#include "core/remedy/journal/list_change.h"
#include "core/remedy/journal/made_folders.h"
#include "core/remedy/journal/putting_back.h"

#include <fmt/format.h>

#include <algorithm>
#include <ranges>

namespace sober {
namespace {

/// Files go back first, then the lists that lead to them, so that whatever interrupts it can be put in order
/// by where the files are.
class TakingBack {
  public:
    TakingBack(Catalogue& catalogue, EntryId undone, EntryId entry, std::vector<Volume> volumes,
               RunControl& control, const CarryOutHooks& hooks)
        : catalogue_(catalogue),
          undone_(undone),
          ledger_(catalogue),
          volumes_(std::move(volumes)),
          control_(control),
          hooks_(hooks),
          puttingBack_(catalogue, volumes_, hooks, result_) {
        result_.entry = entry;
    }

    Result<CarriedOut> run(std::vector<LedgerAction> actions) {
        // A file that waits to be settled needs the lists as they are.
        const bool isSettled = std::ranges::none_of(actions, [](const LedgerAction& each) {
            return each.step == ActionStep::started || each.step == ActionStep::undoStarted;
        });
        std::erase_if(actions, [](const LedgerAction& each) { return each.step != ActionStep::carriedOut; });
        std::ranges::reverse(actions);
        const auto lists = std::ranges::stable_partition(
            actions, [](const LedgerAction& each) { return each.kind != ActionKind::repoint; });
        const std::span files(actions.begin(), lists.begin());
        // What was done last goes back first: it may lie where something else returns to.
        std::ranges::stable_sort(files, [](const LedgerAction& one, const LedgerAction& other) {
            const auto turn = [](const LedgerAction& each) { return typeOf(each.kind).turn; };
            return std::pair(-turn(one), one.kind) < std::pair(-turn(other), other.kind);
        });
        progress_.totalFiles = actions.size();
        for (std::size_t at = 0; at < files.size();) {
            const auto batch = batchFrom(files, at);
            at += batch.size();
            RETURN_IF_FAILED(putBackAll(batch));
        }
        const bool isWhole = isSettled && result_.refused.empty() && !result_.interrupted;
        for (const auto& list : lists) {
            RETURN_IF_FAILED(isWhole ? putListBack(list) : done());
        }
        RETURN_IF_FAILED(endMoves());
        RETURN_IF_FAILED(removeMadeFolders(catalogue_, undone_));
        const auto unflushed = ledger_.unflushed();
        RETURN_IF_FAILED(unflushed);
        std::ranges::transform(*unflushed, std::back_inserter(result_.unflushed), &LedgerAction::place);
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
        std::unordered_set<BytePath> freed;
        std::vector<BytePath> folders;
        for (const auto& action : actions) {
            tell(action);
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            auto placed = asPlacedNow(catalogue_, action);
            RETURN_IF_FAILED(placed);
            Doing doing;
            doing.action = std::move(placed->action);
            const auto possible = whyNot(*placed, doing.action, freed);
            const bool isUnclear = !possible && (possible.error().cause == Cause::refused ||
                                                 possible.error().cause == Cause::unreadable);
            if (doing.action.kind == ActionKind::clearFolder && (possible || isUnclear)) {
                folders.push_back(doing.action.place);
            }
            if (possible) {
                if (changesPlace(doing.action)) {
                    freed.insert(standsAt(doing.action));
                }
                doings.push_back(std::move(doing));
            } else {
                refuse(doing.action, possible.error());
            }
        }
        if (const auto led = leaveWhatListsHold(doings); !led) {
            return led;
        }
        if (const auto changed = puttingBack_.change(doings); !changed) {
            return changed;
        }
        std::ranges::copy_if(folders, std::back_inserter(foldersToCome_), [&](const BytePath& folder) {
            return std::ranges::none_of(doings,
                                        [&](const Doing& each) { return each.action.place == folder; });
        });
        const auto stayed = std::ranges::stable_partition(
            doings, [](const Doing& doing) { return !changesPlace(doing.action); });
        std::ranges::move(stayed, std::back_inserter(moved_));
        doings.erase(stayed.begin(), doings.end());
        return doings.empty() ? done() : puttingBack_.record(doings);
    }

    Outcome whyNot(const PlacedAction& placed, const LedgerAction& action,
                   const std::unordered_set<BytePath>& freed) const {
        if (placed.forgotten) {
            return refusedError(action.place, fmt::format("{} cannot be put back: its volume was forgotten.",
                                                          displayPath(action.place)));
        }
        if (!placed.atHand && typeOf(action.kind).changesVolume()) {
            return refusedError(action.place, fmt::format("{} cannot be put back now: its volume is away.",
                                                          displayPath(action.place)));
        }
        // A folder made anew in its place would keep it from coming back.
        const auto folder = std::ranges::find_if(
            foldersToCome_, [&](const BytePath& each) { return isWithin(action.place, each); });
        if (folder != foldersToCome_.end()) {
            return refusedError(action.place,
                                fmt::format("{} cannot be put back yet: its folder {} is still in the trash.",
                                            displayPath(action.place), displayPath(*folder)));
        }
        return canGoBack(action, freed);
    }

    /// A file does not move back under a list that cannot be changed now.
    Outcome leaveWhatListsHold(std::vector<Doing>& doings) {
        std::vector<BytePath> places;
        for (const auto& doing : doings) {
            if (changesPlace(doing.action)) {
                places.push_back(standsAt(doing.action));
            }
        }
        if (places.empty()) {
            return done();
        }
        const auto shelf = PlayerShelf::of(catalogue_);
        const auto references =
            shelf ? PlayerStore(catalogue_).leadingTo(places) : Result<std::vector<Reference>>(shelf.error());
        RETURN_IF_FAILED(references);
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
            const auto why = held.find(standsAt(doing.action));
            if (why != held.end()) {
                refuse(doing.action, refusedError(doing.action.place, why->second));
            }
            return why != held.end();
        });
        return done();
    }

    Outcome putListBack(const LedgerAction& action) {
        tell(action);
        const auto left = undoListChange(ledger_, action, hooks_);
        RETURN_IF_FAILED(left);
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
            places.emplace(standsAt(doing.action), doing.action.place);
        }
        const auto following =
            Following::lead(catalogue_, result_.entry, std::move(places), toTheEnd_, hooks_);
        RETURN_IF_FAILED(following);
        for (auto& doing : moved_) {
            const auto why = following->left().find(standsAt(doing.action));
            if (why != following->left().end()) {
                doing.failure = refusedError(doing.action.place, why->second);
            }
        }
        NewPlaces forthAgain;
        for (const auto& doing : moved_) {
            if (doing.failure) {
                forthAgain.emplace(doing.action.place, standsAt(doing.action));
            }
        }
        if (const auto given = puttingBack_.giveUp(moved_); !given) {
            return given;
        }
        const auto again =
            Following::lead(catalogue_, result_.entry, std::move(forthAgain), toTheEnd_, hooks_);
        return again ? puttingBack_.record(moved_) : Outcome(again.error());
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
    EntryId undone_;
    LedgerStore ledger_;
    std::vector<Volume> volumes_;
    RunControl& control_;
    RunControl toTheEnd_; ///< of what has to end once it was begun
    const CarryOutHooks& hooks_;
    CarriedOut result_;
    Progress progress_;
    PuttingBack puttingBack_;
    std::vector<Doing> moved_;            ///< back, and their lists not yet
    std::vector<BytePath> foldersToCome_; ///< that could not be put back, and may be another time
};

} // namespace

Result<CarriedOut> takeBackEntry(Catalogue& catalogue, EntryId id, RunControl& control,
                                 const CarryOutHooks& hooks) {
    const LedgerStore ledger(catalogue);
    const auto entry = ledger.entry(id);
    RETURN_IF_FAILED(entry);
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
    RETURN_IF_FAILED(opened);
    const auto result =
        TakingBack(catalogue, id, *opened, std::move(*volumes), control, hooks).run(std::move(*actions));
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
    RETURN_IF_FAILED(entries);
    const auto found = std::ranges::find_if(
        *entries, [](const LedgerEntry& entry) { return entry.kind == "carry-out" && entry.carriedOut > 0; });
    return found != entries->end() ? std::optional(found->id) : std::nullopt;
}

} // namespace sober
