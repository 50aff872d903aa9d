#include "core/remedy/journal/settlements.h"

#include "core/catalogue/volumes.h"
#include "core/remedy/actions/action_type.h"

namespace sober {

Settlement settlementFor(const LedgerAction& action, ActionStep step) {
    const auto& type = typeOf(action.kind);
    const bool isDone = step == ActionStep::carriedOut;
    Settlement settlement{action, step, std::nullopt, std::nullopt, std::nullopt};
    if (action.holding == 0) {
        if (action.kind == ActionKind::writeOff) {
            settlement.writtenOffPlace = isDone;
        }
    } else if (type.changesVolume() || type.after != type.before) {
        settlement.state = isDone ? type.after : type.before;
    }
    return settlement;
}

Result<Settlement> settlementMoved(const LedgerAction& action, ActionStep step, const BytePath& place,
                                   std::span<const Volume> volumes) {
    const auto volume = volumeHolding(volumes, place);
    RETURN_IF_FAILED(volume);
    Settlement settlement{action, step, std::nullopt, std::nullopt, std::nullopt};
    settlement.moved.emplace((*volume)->id, *relativeTo(place, (*volume)->root));
    return settlement;
}

} // namespace sober
