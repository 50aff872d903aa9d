#include "core/work/take_ledger.h"

#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/journal/current_places.h"

#include <algorithm>
#include <map>
#include <ranges>

namespace sober {
namespace {

bool isDeed(const LedgerEntry& entry) {
    return entry.actions > 0 || entry.undoes;
}

bool isSettled(const LedgerEntry& entry, const std::vector<LedgerAction>& actions) {
    return entry.ended != 0 && std::ranges::none_of(actions, [](const LedgerAction& each) {
               return each.step == ActionStep::started || each.step == ActionStep::undoStarted;
           });
}

/// What the actions of the other catalogue are called here.
class Translation {
  public:
    Translation(std::vector<Volume> theirs, std::vector<Volume> ours, const Counterparts& counterparts)
        : theirs_(std::move(theirs)), ours_(std::move(ours)), counterparts_(counterparts) {}

    void translate(LedgerAction& action) const {
        action.holding = holdingOf(action.holding);
        if (const auto there = volumeHolding(theirs_, action.place)) {
            const auto here = counterparts_.volumes.find((*there)->id);
            if (here != counterparts_.volumes.end()) {
                followRoot(action, (*there)->root, std::ranges::find(ours_, here->second, &Volume::id)->root);
            }
        }
        if (action.kind != ActionKind::replace) {
            action.stays = placeOf(action.stays);
        }
    }
    BytePath placeOf(const BytePath& there) const { return placeHere(there, theirs_, ours_, counterparts_); }

  private:
    HoldingId holdingOf(HoldingId there) const {
        for (const auto* known : {&counterparts_.holdings, &counterparts_.others}) {
            if (const auto here = known->find(there); here != known->end()) {
                return here->second;
            }
        }
        return 0;
    }

    std::vector<Volume> theirs_;
    std::vector<Volume> ours_;
    const Counterparts& counterparts_;
};

/// Goes through what was done there, the oldest first: `fresh` hears of what is not known here, `known` of
/// what is.
template <typename Fresh, typename Known>
Result<LedgerMeeting> goThrough(const Catalogue& other, const Catalogue& here, const Fresh& fresh,
                                const Known& known) {
    const LedgerStore theirs(other);
    const LedgerStore ours(here);
    const auto entries = theirs.entries();
    RETURN_IF_FAILED(entries);
    LedgerMeeting meeting;
    for (const auto& entry : std::views::reverse(*entries)) {
        if (!isDeed(entry)) {
            continue;
        }
        const auto same = ours.entryAt(entry.time, entry.kind);
        RETURN_IF_FAILED(same);
        auto actions =
            *same && entry.undone == 0 ? Result(std::vector<LedgerAction>()) : theirs.actionsOf(entry.id);
        RETURN_IF_FAILED(actions);
        if (*same) {
            RETURN_IF_FAILED(known(entry, **same, std::move(*actions)));
        } else if (isSettled(entry, *actions)) {
            ++meeting.entries;
            RETURN_IF_FAILED(fresh(entry, std::move(*actions)));
        } else {
            ++meeting.entries;
            ++meeting.left;
        }
    }
    return meeting;
}

} // namespace

Result<LedgerMeeting> ledgerOf(const Catalogue& other, const Catalogue& here) {
    return goThrough(
        other, here, [](const LedgerEntry&, const std::vector<LedgerAction>&) { return done(); },
        [](const LedgerEntry&, EntryId, const std::vector<LedgerAction>&) { return done(); });
}

Result<LedgerMeeting> takeLedger(const Catalogue& other, const Catalogue& here,
                                 const Counterparts& counterparts) {
    auto theirVolumes = Volumes(other).all();
    auto ourVolumes = Volumes(here).all();
    RETURN_IF_FAILED(theirVolumes);
    RETURN_IF_FAILED(ourVolumes);
    const Translation translation(std::move(*theirVolumes), std::move(*ourVolumes), counterparts);
    const LedgerStore theirs(other);
    const LedgerStore ours(here);
    std::map<EntryId, EntryId> called; ///< there, here
    const auto fresh = [&](LedgerEntry entry, std::vector<LedgerAction> actions) -> Outcome {
        const auto folders = theirs.foldersMadeBy(entry.id);
        RETURN_IF_FAILED(folders);
        std::set<BytePath> made;
        for (const auto& folder : *folders) {
            made.insert(translation.placeOf(folder));
        }
        for (auto& action : actions) {
            translation.translate(action);
        }
        const auto undoes = entry.undoes ? called.find(*entry.undoes) : called.end();
        entry.undoes = undoes != called.end() ? std::optional(undoes->second) : std::nullopt;
        // What that catalogue has from another was done with the other.
        if (entry.origin.empty()) {
            entry.origin = other.path();
        }
        const auto taken = ours.takeEntry(theirs, entry, actions);
        RETURN_IF_FAILED(taken);
        called[entry.id] = *taken;
        return ours.noteFolders(*taken, made);
    };
    const auto known = [&](const LedgerEntry& entry, EntryId same, std::vector<LedgerAction> actions) {
        called[entry.id] = same;
        std::erase_if(actions, [](const LedgerAction& each) { return each.step != ActionStep::undone; });
        for (auto& action : actions) {
            translation.translate(action);
        }
        return actions.empty() ? done() : ours.takeUndone(same, actions);
    };
    LedgerMeeting meeting;
    const auto taken = here.together([&]() -> Outcome {
        const auto met = goThrough(other, here, fresh, known);
        RETURN_IF_FAILED(met);
        meeting = *met;
        return done();
    });
    return taken ? Result(meeting) : Result<LedgerMeeting>(taken.error());
}

Result<bool> hasDeedsOfItsOwn(const Catalogue& other, const Catalogue& here) {
    const auto deeds = ledgerOf(other, here);
    RETURN_IF_FAILED(deeds);
    return deeds->entries > 0 ? Result(true) : hasDecidedSince(other, here);
}

} // namespace sober
