#include "core/remedy/actions/discard.h"

#include "core/base/inner_path.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/salvage_store.h"
#include "core/evidence/compare_content.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/changes/file_changes.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

const char* const notHeld = "No holding at hand has its bytes any more.";

/// A holding at hand that has its bytes and is not about to go itself.
Result<BytePath> holderOf(const Catalogue& catalogue, const Checksum128& checksum,
                          const std::vector<Volume>& volumes, const std::unordered_set<HoldingId>& toRetire) {
    const auto ids = SalvageStore(catalogue).withBytes(checksum);
    const auto holdings = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
    RETURN_IF_FAILED(holdings);
    for (const auto& holding : *holdings) {
        const auto volume = std::ranges::find(volumes, holding.volume, &Volume::id);
        if (holding.state == HoldingState::present && !isInsideArchive(holding.path) &&
            !toRetire.contains(holding.id) && volume != volumes.end() && volume->reaches(holding.path)) {
            return joinPath(volume->root, holding.path);
        }
    }
    return BytePath();
}

Result<Refusal> whyNotDiscard(ReviewContext& context, PlannedAction& planned, const Volume& /*volume*/) {
    const auto bytes = unpackFindBytes(planned.action.change);
    if (!bytes) {
        return Refusal("What it is is not known any more; look at the trash again.");
    }
    planned.holding.size = bytes->size();
    planned.holding.checksum = bytes->checksum;
    const auto on = std::ranges::find_if(
        context.volumes, [&](const Volume& each) { return isWithin(planned.path, each.root); });
    planned.volume = on != context.volumes.end() ? on->label : "";
    const auto presence = presenceOf(planned.path);
    if (presence != Presence::there) {
        return Refusal(presence == Presence::gone ? "It is not in the trash any more."
                                                  : "The trash cannot be looked at now.");
    }
    const auto entry = SalvageStore(context.catalogue).entryThatSetAside(planned.path);
    RETURN_IF_FAILED(entry);
    if (*entry != 0) {
        return Refusal(
            fmt::format("Entry {} of the ledger has set it aside: what can be undone rests on it.", *entry));
    }
    auto holder = holderOf(context.catalogue, bytes->checksum, context.volumes, context.toRetire);
    RETURN_IF_FAILED(holder);
    planned.target = std::move(*holder);
    return planned.target.empty() ? Refusal(notHeld) : Refusal();
}

/// The two are held against each other now.
Result<Proven> proveDiscardable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    if (isSameEntry(planned.path, planned.target)) {
        return refusedError(planned.path, displayPath(planned.path) + " is the holding itself.");
    }
    const auto compared = compareContent(planned.path, planned.target, context.control,
                                         [&](std::uint64_t more) { context.onBytes(more, planned.path); });
    RETURN_IF_FAILED(compared);
    if (!compared->equal || compared->checksum != planned.holding.checksum) {
        return refusedError(planned.path, displayPath(planned.path) + " is not what is held at " +
                                              displayPath(planned.target) + "; it stays in the trash.");
    }
    action.stays = planned.target;
    return Proven{compared->first, {}};
}

} // namespace

ActionType discardType() {
    static constexpr Leg legs[]{{Step::discard, Way::forth}};
    ActionType type;
    type.turn = 3; // what is put back or retired comes first
    type.forth = legs;
    type.whyNot = whyNotDiscard;
    type.prove = proveDiscardable;
    type.record = [](Catalogue& catalogue, const PlannedAction& planned) {
        const auto bytes = unpackFindBytes(planned.action.change);
        return bytes ? SalvageStore(catalogue).remove(std::array{bytes->find}) : done();
    };
    return type;
}

} // namespace sober
