#include "core/remedy/actions/write_off.h"

#include "core/remedy/actions/reach.h"

namespace sober {

ActionType writeOffType() {
    ActionType type;
    type.turn = 2;
    type.after = HoldingState::writtenOff;
    type.before = HoldingState::missing;
    type.whyNot = [](ReviewContext& /*context*/, PlannedAction& planned,
                     const Volume& /*volume*/) -> Result<Refusal> {
        return planned.holding.state == HoldingState::missing ? Refusal()
                                                              : Refusal("It is not missing any more.");
    };
    type.prove = [](DoingContext& /*context*/, const PlannedAction& planned,
                    LedgerAction& /*action*/) -> Result<Proven> {
        const auto free =
            planned.holding.id == 0
                ? done()
                : isFree(planned.path, "Something stands at its place again; survey the volume first.");
        return free ? Result<Proven>(Proven{}) : Result<Proven>(free.error());
    };
    return type;
}

} // namespace sober
