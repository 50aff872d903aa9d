#include "core/remedy/undo.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/players/read_players.h"
#include "core/remedy/bringing_back.h"
#include "core/remedy/current_places.h"
#include "core/remedy/docket.h"
#include "core/remedy/file_changes.h"
#include "core/remedy/list_change.h"
#include "core/remedy/moving.h"
#include "core/remedy/replacement.h"
#include "core/remedy/take_in.h"

#include <fmt/format.h>

#include <algorithm>
#include <ranges>

namespace sober {
namespace {

HoldingState stateAfterUndo(const LedgerAction& action) {
    return action.kind == writeOffKind ? HoldingState::missing : HoldingState::present;
}

Outcome canPutBack(const LedgerAction& action) {
    const auto aside = stampAt(action.aside);
    if (!aside) {
        return Error{
            Cause::notFound, action.place,
            fmt::format("{} cannot be put back: the trash no longer holds it.", displayPath(action.place))};
    }
    if (const auto holds = holdsWhatWentAside(action.aside, action); !holds) {
        return Error{
            Cause::changed, action.place,
            fmt::format("{} cannot be put back: what the trash holds under its name is another file.",
                        displayPath(action.place))};
    }
    if (isTaken(action.place)) {
        return Error{Cause::alreadyThere, action.place,
                     fmt::format("{} cannot be put back: its place is taken.", displayPath(action.place))};
    }
    return done();
}

/// Kinds that change the catalogue alone: no file was set aside.
bool isOnlyRecorded(const LedgerAction& action) {
    return action.kind == writeOffKind || action.kind == acceptKind || action.kind == acceptChangeKind;
}

Outcome putBack(const LedgerStore& ledger, const LedgerAction& action, const CarryOutHooks& hooks) {
    if (action.kind == writeOffKind) {
        return action.holding == 0 ? ledger.finishPlace(action, ActionStep::undone, false)
                                   : ledger.finish(action, ActionStep::undone, stateAfterUndo(action));
    }
    if (const auto possible = canPutBack(action); !possible) {
        return possible;
    }
    if (const auto journalled = ledger.mark(action, ActionStep::undoStarted); !journalled) {
        return journalled;
    }
    hooks.onInstant(Instant::journalled);
    auto moved = makeFolder(BytePath(parentOf(action.place)), 0777);
    if (moved) {
        moved = moveEntry(action.aside, action.place);
    }
    if (!moved) {
        ledger.mark(action, ActionStep::carriedOut).ok();
        return moved;
    }
    hooks.onInstant(Instant::moved);
    if (const auto removed = removeFile(action.note); !removed) {
        return removed;
    }
    hooks.onInstant(Instant::noteWritten);
    const auto finished = ledger.finish(action, ActionStep::undone, HoldingState::present);
    hooks.onInstant(Instant::recorded);
    return finished;
}

Outcome putBackPlaced(Catalogue& catalogue, const LedgerStore& ledger, const PlacedAction& placed,
                      EntryId undoing, const CarryOutHooks& hooks) {
    if (placed.action.kind == repointKind) {
        return undoListChange(ledger, placed.action, hooks);
    }
    if (placed.action.kind == acceptKind) {
        const auto withdrawn = EvidenceStore(catalogue).withdrawAcceptance(placed.action.holding);
        return withdrawn ? ledger.mark(placed.action, ActionStep::undone) : withdrawn;
    }
    if (placed.action.kind == acceptChangeKind) {
        const auto withdrawn = FixityStore(catalogue).withdrawAcceptance(placed.action.holding);
        return withdrawn ? ledger.mark(placed.action, ActionStep::undone) : withdrawn;
    }
    if (!placed.atHand && !isOnlyRecorded(placed.action)) {
        return Error{
            Cause::notFound, placed.action.place,
            fmt::format("{} cannot be put back now: its volume is away.", displayPath(placed.action.place))};
    }
    if (placed.action.kind == moveKind) {
        return finishUndo(catalogue, placed.action, undoing, hooks);
    }
    if (placed.action.kind == bringBackKind) {
        return undoBringBack(ledger, placed.action, hooks);
    }
    return placed.action.made.empty() ? putBack(ledger, placed.action, hooks)
                                      : undoReplacement(catalogue, ledger, placed.action, hooks);
}

/// Files that were moved go back before the lists that point at them, so that whatever interrupts it can be
/// put in order by the move alone; everything else in the reverse of its order.
class UndoRun {
  public:
    UndoRun(Catalogue& catalogue, const LedgerStore& ledger, EntryId entry, const CarryOutHooks& hooks)
        : catalogue_(catalogue), ledger_(ledger), hooks_(hooks) {
        result_.entry = entry;
    }

    Result<CarriedOut> takeBack(std::span<const LedgerAction> actions, RunControl& control) {
        std::vector<PlacedAction> all;
        for (const auto& action : std::views::reverse(actions)) {
            if (action.step == ActionStep::carriedOut) {
                auto placed = asPlacedNow(catalogue_, action);
                if (!placed) {
                    return placed.error();
                }
                all.push_back(std::move(*placed));
            }
        }
        progress_.totalFiles = all.size();
        std::erase_if(all, [&](const PlacedAction& placed) {
            return placed.action.kind == moveKind && !settle(placed.action, startMoveBack(placed, control));
        });
        std::ranges::stable_partition(
            all, [](const PlacedAction& placed) { return placed.action.kind != moveKind; });
        for (const auto& placed : all) {
            // What was moved back already has to be told of.
            if (placed.action.kind != moveKind && !control.proceed()) {
                result_.interrupted = true;
                continue;
            }
            progress_.at = displayPath(placed.action.place);
            hooks_.onProgress(progress_);
            if (settle(placed.action, putBackPlaced(catalogue_, ledger_, placed, result_.entry, hooks_))) {
                ++result_.done;
            }
            ++progress_.files;
        }
        return result_;
    }

  private:
    Outcome startMoveBack(const PlacedAction& placed, RunControl& control) {
        if (!control.proceed()) {
            result_.interrupted = true;
            return Error{Cause::interrupted, placed.action.place, {}};
        }
        return startUndo(ledger_, placed.action, hooks_);
    }

    bool settle(const LedgerAction& action, const Outcome& outcome) {
        if (!outcome && outcome.error().cause != Cause::interrupted) {
            result_.refused.push_back({action.place, outcome.error().sentence});
        }
        return outcome.ok();
    }

    Catalogue& catalogue_;
    const LedgerStore& ledger_;
    const CarryOutHooks& hooks_;
    CarriedOut result_;
    Progress progress_;
};

/// True where the trash's note is there and is ours: a note of another file is never removed.
bool noteIsOurs(const LedgerAction& action) {
    return isTaken(action.note) && !isTaken(action.aside);
}

Result<std::string> recoverAccept(const Catalogue& catalogue, const LedgerStore& ledger,
                                  const LedgerAction& action) {
    const auto name = displayPath(action.place);
    const auto accepted = EvidenceStore(catalogue).acceptanceOf(action.holding);
    if (!accepted) {
        return accepted.error();
    }
    const auto outcome = *accepted ? ledger.finish(action, ActionStep::carriedOut, HoldingState::present)
                                   : ledger.mark(action, ActionStep::takenBack);
    return outcome ? Result<std::string>(name +
                                         (*accepted ? " had been accepted; the ledger now says so."
                                                    : " was not accepted yet; it still waits on the docket."))
                   : Result<std::string>(outcome.error());
}

Result<std::string> recoverAcceptChange(const Catalogue& catalogue, const LedgerStore& ledger,
                                        const LedgerAction& action) {
    const auto name = displayPath(action.place);
    const auto drift = FixityStore(catalogue).of(action.holding);
    if (!drift) {
        return drift.error();
    }
    const bool accepted = *drift && (*drift)->accepted != 0;
    const auto outcome = accepted ? ledger.finish(action, ActionStep::carriedOut, HoldingState::present)
                                  : ledger.mark(action, ActionStep::takenBack);
    return outcome ? Result<std::string>(name +
                                         (accepted ? " had been accepted as it is; the ledger now says so."
                                                   : " was not accepted yet; it still waits on the docket."))
                   : Result<std::string>(outcome.error());
}

Result<std::string> recoverStarted(const Catalogue& catalogue, const LedgerStore& ledger,
                                   const LedgerAction& action) {
    if (action.kind == acceptChangeKind) {
        return recoverAcceptChange(catalogue, ledger, action);
    }
    if (action.kind == acceptKind) {
        return recoverAccept(catalogue, ledger, action);
    }
    const auto name = displayPath(action.place);
    if (action.kind == writeOffKind) {
        const auto marked = ledger.mark(action, ActionStep::takenBack);
        return marked ? Result<std::string>(name + " was not written off yet; it still waits on the docket.")
                      : Result<std::string>(marked.error());
    }
    if (isTaken(action.aside) && holdsWhatWentAside(action.aside, action)) {
        const auto finished = ledger.finish(action, ActionStep::carriedOut, HoldingState::retired);
        return finished ? Result<std::string>(name + " had been retired; the ledger now says so.")
                        : Result<std::string>(finished.error());
    }
    if (!isTaken(action.place)) {
        return std::string(name + " is neither at its place nor in the trash: its volume seems to be away. "
                                  "This is looked at again at the next start.");
    }
    if (noteIsOurs(action)) {
        if (const auto removed = removeFile(action.note); !removed) {
            return removed.error();
        }
    }
    const auto marked = ledger.mark(action, ActionStep::takenBack);
    return marked
               ? Result<std::string>(name + " was not retired yet; it stays and still waits on the docket.")
               : Result<std::string>(marked.error());
}

Result<std::string> recoverUndo(const LedgerStore& ledger, const LedgerAction& action) {
    const auto name = displayPath(action.place);
    if (isTaken(action.aside)) {
        const auto marked = ledger.mark(action, ActionStep::carriedOut);
        return marked ? Result<std::string>(name + " was not put back yet; it is still in the trash.")
                      : Result<std::string>(marked.error());
    }
    if (!isTaken(action.place)) {
        return std::string(name + " is neither at its place nor in the trash: its volume seems to be away. "
                                  "This is looked at again at the next start.");
    }
    if (const auto removed = removeFile(action.note); !removed) {
        return removed.error();
    }
    const auto finished = ledger.finish(action, ActionStep::undone, HoldingState::present);
    return finished ? Result<std::string>(name + " had been put back; the ledger now says so.")
                    : Result<std::string>(finished.error());
}

} // namespace

Result<CarriedOut> undoEntry(Catalogue& catalogue, EntryId id, RunControl& control,
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
    if (!actions) {
        return actions.error();
    }
    const auto opened = ledger.open("undo", fmt::format("taking back entry {}", id), id);
    if (!opened) {
        return opened.error();
    }
    UndoRun run(catalogue, ledger, *opened, hooks);
    const auto ran = run.takeBack(*actions, control);
    if (!ran) {
        return ran.error();
    }
    auto result = *ran;
    if (const auto read = readPlayers(catalogue, control); !read) {
        return read.error();
    }
    std::string summary = fmt::format("entry {} taken back: {}", id, counted(result.done, "action"));
    if (!result.refused.empty()) {
        summary += fmt::format(", {} could not be", humanCount(result.refused.size()));
    }
    if (const auto closed = ledger.close(*opened, summary); !closed) {
        return closed.error();
    }
    return result;
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

Result<std::vector<std::string>> recoverInterrupted(Catalogue& catalogue) {
    const LedgerStore ledger(catalogue);
    const auto unfinished = ledger.unfinished();
    const auto unclosed = ledger.unclosed();
    if (!unfinished || !unclosed) {
        return unfinished ? unclosed.error() : unfinished.error();
    }
    std::vector<std::string> sentences;
    const auto recovery = unfinished->empty() ? Result<EntryId>(EntryId{0})
                                              : ledger.open("recovery", "putting in order", std::nullopt);
    if (!recovery) {
        return recovery.error();
    }
    for (const auto& action : *unfinished) {
        const auto placed = asPlacedNow(catalogue, action);
        if (!placed) {
            return placed.error();
        }
        auto sentence = action.kind == repointKind     ? recoverListChange(ledger, placed->action)
                        : action.kind == moveKind      ? recoverMove(catalogue, placed->action, *recovery)
                        : action.kind == bringBackKind ? recoverBringBack(catalogue, ledger, placed->action)
                        : !action.made.empty()         ? recoverReplacement(catalogue, ledger, placed->action)
                        : action.step == ActionStep::started
                            ? recoverStarted(catalogue, ledger, placed->action)
                            : recoverUndo(ledger, placed->action);
        if (!sentence) {
            return sentence.error();
        }
        sentences.push_back(std::move(*sentence));
    }
    if (!unfinished->empty()) {
        RunControl control;
        if (const auto read = readPlayers(catalogue, control); !read) {
            return read.error();
        }
    }
    for (const auto& entry : *unclosed) {
        if (const auto closed = ledger.close(entry.id, entry.summary + ", interrupted"); !closed) {
            return closed.error();
        }
    }
    if (*recovery != 0) {
        const auto summary =
            fmt::format("{} after an interruption",
                        counted(sentences.size(), "action put in order", "actions put in order"));
        if (const auto closed = ledger.close(*recovery, summary); !closed) {
            return closed.error();
        }
    }
    return sentences;
}

} // namespace sober
