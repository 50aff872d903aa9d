#include "core/remedy/journal/list_change.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/remedy/actions/list_places.h"
#include "core/remedy/changes/file_changes.h"

#include <fmt/format.h>

#include <array>

namespace sober {
namespace {

/// The checksum of what stands at a list's place; nothing where nothing can be read there.
std::optional<Checksum128> checksumAt(const BytePath& list) {
    const auto text = wholeFile(list, largestList);
    return text ? std::optional(checksumOfText(*text)) : std::nullopt;
}

Error writtenMeanwhile(const BytePath& list) {
    return refusedError(list,
                        displayPath(list) + " was written by its player meanwhile; it is left as it is.");
}

/// One exchange of a list: from what its action calls `checksum` to what it calls `madeChecksum`.
class Exchange {
  public:
    Exchange(const LedgerAction& action, const CarryOutHooks& hooks) : action_(action), hooks_(hooks) {}

    /// Writes what is to be the list beside it and reads it back from the medium.
    Outcome make(std::string_view text) {
        if (const auto removed = removeFile(action_.made, unflushed_); !removed) {
            return removed;
        }
        auto made = copyToNew(action_.place, action_.made, unflushed_, std::array{ByteRange{0, UINT64_MAX}});
        if (made) {
            made = appendTo(action_.made, text);
        }
        if (made) {
            made = flushFile(action_.made);
        }
        if (made && checksumAt(action_.made) != action_.madeChecksum) {
            made =
                Outcome(Error{Cause::unreadable, action_.made,
                              displayPath(action_.place) + ": what was written is not what is read back."});
        }
        if (made) {
            hooks_.onInstant(Instant::made);
        }
        if (!made) {
            isTidy_ = removeFile(action_.made, unflushed_).ok();
        }
        return made;
    }

    /// They change names. An Error says that the list is what it was, or what its player made of it.
    Outcome swap() {
        const auto exchanged = exchangeEntries(action_.made, action_.place, unflushed_);
        if (exchanged && *exchanged) {
            hooks_.onInstant(Instant::replaced);
            // Whatever its player wrote between the look and the exchange has come out, and goes back.
            if (checksumAt(action_.made) != action_.checksum) {
                return swapBack(writtenMeanwhile(action_.place));
            }
            isTidy_ =
                removeFile(action_.made, unflushed_).ok(); // the list is changed, whatever becomes of that
            return done();
        }
        if (!exchanged) {
            return giveUp(exchanged.error());
        }
        const auto replaced = replaceEntry(action_.made, action_.place, unflushed_);
        if (replaced) {
            hooks_.onInstant(Instant::replaced);
        }
        return replaced ? replaced : giveUp(replaced.error());
    }

    Outcome giveUp(const Error& error) {
        // What lies beside the list is ours to remove only while it is what was made.
        const bool isOurs = checksumAt(action_.made) == action_.madeChecksum;
        isTidy_ = isOurs && removeFile(action_.made, unflushed_).ok();
        return error;
    }

    Outcome swapBack(const Error& error) {
        const auto back = exchangeEntries(action_.made, action_.place, unflushed_);
        isUndecided_ = !back || !*back;
        return isUndecided_ ? Outcome(error) : giveUp(error);
    }

    /// What its player wrote lies beside the list and could not go back yet.
    bool isUndecided() const { return isUndecided_; }

    /// Flushes the names; false where that is not confirmed, or something of ours is left.
    bool flush() {
        unflushed_.flush();
        return unflushed_.isEmpty() && isTidy_;
    }

  private:
    const LedgerAction& action_;
    const CarryOutHooks& hooks_;
    Unflushed unflushed_;
    bool isTidy_ = true;
    bool isUndecided_ = false;
};

BytePath placeForMadeList(const BytePath& list, EntryId entry) {
    return joinPath(parentOf(list), fmt::format(".sober-{}-{}.new", entry, nameOf(list).substr(0, 200)));
}

/// An action that leads from what a list is now to what it was before another.
LedgerAction reversed(const LedgerAction& action, const Checksum128& now) {
    auto back = action;
    back.checksum = now;
    back.madeChecksum = action.checksum;
    return back;
}

Result<ListRecovery> settled(const LedgerStore& ledger, const LedgerAction& action, ActionStep step,
                             std::string_view words) {
    auto ended = action;
    ended.waits = {};
    const auto marked = ledger.mark(ended, step);
    return marked ? Result(ListRecovery{true, displayPath(action.place) + std::string(words)})
                  : Result<ListRecovery>(marked.error());
}

} // namespace

Result<LeftList> changeList(const LedgerStore& ledger, EntryId entry, const BytePath& list,
                            const ReadList& read, std::string_view text, const CarryOutHooks& hooks) {
    if (auto refusal = whyNotChange(list)) {
        return LeftList(std::move(refusal));
    }
    if (const auto checked = parsePlaylist(text, list);
        !checked || checked->entries.size() != read.playlist.entries.size()) {
        return LeftList(displayPath(list) +
                        " would not be read as the same list afterwards; it is left as it is.");
    }
    LedgerAction planned;
    planned.entry = entry;
    planned.kind = ActionKind::repoint;
    planned.place = list;
    planned.size = read.text.size();
    planned.checksum = checksumOfText(read.text);
    planned.madeChecksum = checksumOfText(text);
    planned.made = placeForMadeList(list, entry);
    auto action = ledger.startWithList(std::move(planned), read.text);
    RETURN_IF_FAILED(action);
    hooks.onInstant(Instant::journalled);
    Exchange exchange(*action, hooks);
    auto changed = exchange.make(text);
    if (changed) {
        const auto now = stampAt(list);
        const bool unchanged = now && now->sameContentAs(read.stamp) && !isOpenForWriting(list);
        changed = unchanged ? exchange.swap() : exchange.giveUp(writtenMeanwhile(list));
    }
    action->unflushed = !exchange.flush();
    const auto marked = ledger.mark(*action,
                                    changed                  ? ActionStep::carriedOut
                                    : exchange.isUndecided() ? ActionStep::started
                                                             : ActionStep::takenBack,
                                    changed ? std::string() : changed.error().sentence);
    RETURN_IF_FAILED(marked);
    hooks.onInstant(Instant::recorded);
    return changed ? LeftList() : LeftList(changed.error().sentence);
}

Result<LeftList> undoListChange(const LedgerStore& ledger, const LedgerAction& action,
                                const CarryOutHooks& hooks) {
    const auto before = ledger.listBefore(action);
    const auto ours = before ? ledger.listAfter(action) : Result<Checksum128>(before.error());
    RETURN_IF_FAILED(ours);
    const auto now = checksumAt(action.place);
    if (now == action.checksum) { // it followed a file back already
        const auto marked = ledger.mark(action, ActionStep::undone);
        return marked ? Result(LeftList()) : Result<LeftList>(marked.error());
    }
    if (auto refusal = whyNotChange(action.place)) {
        return LeftList(std::move(refusal));
    }
    const auto changedSince = [&] {
        return displayPath(action.place) +
               " was changed since, by its player or by a later entry of the ledger; it stays as it is.";
    };
    if (now != *ours) {
        return LeftList(changedSince());
    }
    RETURN_IF_FAILED(ledger.mark(action, ActionStep::undoStarted));
    hooks.onInstant(Instant::journalled);
    auto back = reversed(action, *ours);
    Exchange exchange(back, hooks);
    auto changed = exchange.make(*before);
    if (changed) {
        changed = checksumAt(action.place) == *ours
                      ? exchange.swap()
                      : exchange.giveUp(refusedError(action.place, changedSince()));
    }
    back.unflushed = !exchange.flush();
    const auto marked = ledger.mark(back, changed                  ? ActionStep::undone
                                          : exchange.isUndecided() ? ActionStep::undoStarted
                                                                   : ActionStep::carriedOut);
    RETURN_IF_FAILED(marked);
    hooks.onInstant(Instant::recorded);
    return changed ? LeftList() : LeftList(changed.error().sentence);
}

bool tidyList(const LedgerStore& ledger, const LedgerAction& action, Unflushed& unflushed) {
    const auto left = presenceOf(action.made);
    if (left != Presence::there) {
        return left == Presence::gone;
    }
    // It is what was made and never became the list, or what the list was, or a part of either that was cut
    // short; anything else is its player's.
    const auto content = wholeFile(action.made, largestList);
    const auto before = ledger.listBefore(action);
    if (!content || !before) {
        return false;
    }
    const auto checksum = checksumOfText(*content);
    const bool neverBecame =
        action.step == ActionStep::takenBack && checksumAt(action.place) == action.checksum;
    const bool isOurs = checksum == action.madeChecksum || neverBecame || before->starts_with(*content);
    return isOurs && removeFile(action.made, unflushed).ok();
}

Result<ListRecovery> recoverListChange(const LedgerStore& ledger, const LedgerAction& action) {
    const bool forth = action.step == ActionStep::started;
    const auto presence = presenceOf(action.place);
    const bool canTell =
        presence != Presence::unknown && presenceOf(BytePath(parentOf(action.place))) == Presence::there;
    if (!canTell || (presence == Presence::there && !checksumAt(action.place))) {
        return ListRecovery{false, "The change of the list " + displayPath(action.place) +
                                       " waits to be settled: it cannot be looked at now."};
    }
    if (presence == Presence::gone) {
        Unflushed unflushed;
        tidyList(ledger, action, unflushed);
        return settled(ledger, action, forth ? ActionStep::takenBack : ActionStep::undone,
                       " is not there any more; nothing is left to be changed in it.");
    }
    const auto ours = forth ? Result<Checksum128>(action.checksum) : ledger.listAfter(action);
    RETURN_IF_FAILED(ours);
    const auto change = forth ? action : reversed(action, *ours);
    Unflushed unflushed;
    auto now = checksumAt(action.place);
    // What came out in the exchange and is not what was read is its player's: it goes back.
    const auto out = checksumAt(action.made);
    if (now == change.madeChecksum && out && *out != change.checksum) {
        const auto back = exchangeEntries(action.made, action.place, unflushed);
        if (!back || !*back) {
            return ListRecovery{false, "The change of the list " + displayPath(action.place) +
                                           " waits to be settled: what its player wrote could not be put "
                                           "back."};
        }
        now = out;
    }
    if (const auto removed = removeFile(action.made, unflushed); !removed) {
        return ListRecovery{false, "The change of the list " + displayPath(action.place) +
                                       " waits to be settled: " + removed.error().sentence};
    }
    const bool isChanged = now == change.madeChecksum;
    return settled(ledger, action,
                   isChanged ? forth ? ActionStep::carriedOut : ActionStep::undone
                   : forth   ? ActionStep::takenBack
                             : ActionStep::carriedOut,
                   !isChanged ? " was not changed yet; it is as it was."
                   : forth    ? " had been changed as decided; the ledger now says so."
                              : " had been put back as it was; the ledger now says so.");
}

} // namespace sober
