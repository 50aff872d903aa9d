#include "core/remedy/actions/mend.h"

#include "core/base/text.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/mending.h"
#include "core/remedy/actions/reach.h"
#include "core/remedy/actions/salvage.h"

namespace sober {
namespace {

Result<Refusal> whyNotMend(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    const auto& holding = planned.holding;
    const bool isRestored = planned.action.kind == ActionKind::restore;
    const bool missing = holding.state == HoldingState::missing && isRestored;
    if (auto gone = missing ? whyAway(holding, volume) : whyOutOfReach(holding, volume)) {
        return gone;
    }
    if (!missing && holding.links > 1) {
        return Refusal("It is one file with several names; the others would keep the damage.");
    }
    if (missing) {
        if (const auto free =
                isFree(planned.path, "Something stands at its place again; survey the volume first.");
            !free) {
            return Refusal(free.error().sentence);
        }
    }
    const auto plan = mendingOf(context.catalogue, holding.id, context.volumes);
    if (!plan) {
        return plan.error().cause == Cause::invalid ? Result<Refusal>(Refusal(plan.error().sentence))
                                                    : plan.error();
    }
    if (isRestored) {
        return plan->healthy.empty() ? Refusal("No healthy copy of what was recorded is at hand.")
                                     : Refusal();
    }
    return plan->canBeAssembled ? Refusal() : Refusal("The copies at hand do not hold every block sound.");
}

Result<Proven> proveMendable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    const auto mending = mendingOf(context.catalogue, planned.holding.id, context.volumes);
    const auto stamp =
        mending ? context.prover.mendable(planned, action) : Result<FileStamp>(mending.error());
    RETURN_IF_FAILED(stamp);
    action.madeChecksum = mending->drift.recorded.content;
    const auto room = hasRoomFor(planned.path, mending->drift.recorded.size);
    return room ? Result<Proven>(Proven{*stamp, std::nullopt}) : Result<Proven>(room.error());
}

Result<Proven> proveBringable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    if (planned.action.kind == ActionKind::salvage) {
        return proveSalvageable(context, planned, action);
    }
    const auto mending = mendingOf(context.catalogue, planned.holding.id, context.volumes);
    RETURN_IF_FAILED(mending);
    const auto& recorded = mending->drift.recorded;
    if (const auto free = isFree(planned.path, displayPath(planned.path) +
                                                   ": something stands at its place again; survey the volume "
                                                   "first.");
        !free) {
        return free.error();
    }
    action.size = recorded.size;
    action.madeChecksum = recorded.content;
    const auto room = hasRoomFor(planned.path, recorded.size);
    return room ? Result<Proven>(Proven{}) : Result<Proven>(room.error());
}

Result<FileRecord> makeRecorded(DoingContext& context, const PlannedAction& planned,
                                const LedgerAction& action) {
    if (planned.action.kind == ActionKind::salvage) {
        return makeSalvaged(context, planned, action);
    }
    const auto mending = mendingOf(context.catalogue, planned.holding.id, context.volumes);
    return mending ? makeMended(context.worker, *mending, planned.action.kind == ActionKind::repair,
                                action.made, context.control)
                   : Result<FileRecord>(mending.error());
}

} // namespace

ActionType restoreType() {
    ActionType type;
    type.turn = 0;
    type.forth = replaceLegs;
    type.back = giveBackLegs;
    type.whyNot = whyNotMend;
    type.prove = proveMendable;
    type.make = makeRecorded;
    return type;
}

ActionType repairType() {
    return restoreType();
}

ActionType bringBackType() {
    ActionType type = restoreType();
    type.forth = addLegs;
    type.back = setAsideLegs;
    type.before = HoldingState::missing;
    type.prove = proveBringable;
    return type;
}

} // namespace sober
