#include "core/work/carry_out.h"

#include "core/catalogue/volumes.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/carrying_out.h"
#include "core/remedy/journal/recovery.h"
#include "core/remedy/journal/taking_back.h"
#include "core/survey/volume_identity.h"
#include "core/work/settle_discs.h"
#include "core/work/settle_finds.h"

#include <algorithm>

namespace sober {
namespace {

/// What was done has to be known, whether or not the rest is given up.
Result<CarriedOut> endRun(Catalogue& catalogue, Result<CarriedOut> result) {
    if (!result) {
        recoverInterrupted(catalogue).ok(); // what cannot be settled now waits for the next start
        return result;
    }
    RunControl toTheEnd;
    const auto read = result->done > 0 ? readPlayers(catalogue, toTheEnd) : Result(PlayersRead{});
    return read ? std::move(result) : Result<CarriedOut>(read.error());
}

} // namespace

Result<CarriedOut> carryOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                            const std::function<bool(const DocketAction&)>& which) {
    RETURN_IF_FAILED(lookForVolumes(catalogue));
    // What the lists say now decides which references go along.
    RETURN_IF_FAILED(readPlayers(catalogue, control));
    auto review = reviewDocket(catalogue);
    RETURN_IF_FAILED(review);
    if (which) {
        std::erase_if(review->actions, [&](const PlannedAction& planned) { return !which(planned.action); });
    }
    if (review->actions.empty()) {
        return CarriedOut{};
    }
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::vector<PlannedAction> fromElsewhere;
    std::ranges::copy_if(
        review->actions, std::back_inserter(fromElsewhere), [](const PlannedAction& planned) {
            return (planned.action.kind == ActionKind::salvage || planned.action.kind == ActionKind::rip) &&
                   !planned.refused;
        });
    auto carried =
        endRun(catalogue, carryOutReviewed(catalogue, control, hooks, std::move(*review), *volumes));
    auto settled = carried ? settleFinds(catalogue, fromElsewhere, *carried) : done();
    settled = carried && settled ? settleDiscs(catalogue, fromElsewhere) : settled;
    return settled ? std::move(carried) : Result<CarriedOut>(settled.error());
}

Result<CarriedOut> undoEntry(Catalogue& catalogue, EntryId entry, RunControl& control,
                             const CarryOutHooks& hooks) {
    RETURN_IF_FAILED(lookForVolumes(catalogue));
    auto undone = endRun(catalogue, takeBackEntry(catalogue, entry, control, hooks));
    const auto settled = undone ? forgetTaken(catalogue) : done();
    return settled ? std::move(undone) : Result<CarriedOut>(settled.error());
}

} // namespace sober
