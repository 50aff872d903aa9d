#include "core/remedy/actions/accept.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"

#include <fmt/format.h>

namespace sober {
namespace {

Result<Refusal> whyNotAccept(ReviewContext& context, PlannedAction& planned, const Volume& /*volume*/) {
    const EvidenceStore store(context.catalogue);
    const auto evidence = store.of(planned.holding.id);
    const auto before = store.acceptanceOf(planned.holding.id);
    if (!evidence || !before) {
        return evidence ? before.error() : evidence.error();
    }
    if (planned.holding.state != HoldingState::present) {
        return Refusal("It is not there any more.");
    }
    if (!*evidence) {
        return Refusal("It was not examined yet: survey its volume at full effort first.");
    }
    return *before ? Refusal(fmt::format("It was accepted before: {}.", (*before)->reason)) : Refusal();
}

Result<Refusal> whyNotAcceptChange(ReviewContext& context, PlannedAction& planned, const Volume& /*volume*/) {
    const auto drift = FixityStore(context.catalogue).of(planned.holding.id);
    RETURN_IF_FAILED(drift);
    return *drift && (*drift)->accepted == 0 ? Refusal()
                                             : Refusal("It is what was recorded: nothing to accept.");
}

} // namespace

ActionType acceptType() {
    ActionType type;
    type.turn = 2;
    type.whyNot = whyNotAccept;
    type.record = [](Catalogue& catalogue, const PlannedAction& planned) {
        return EvidenceStore(catalogue).accept(planned.holding.id, planned.action.reason);
    };
    type.withdraw = [](Catalogue& catalogue, const LedgerAction& action) {
        return EvidenceStore(catalogue).withdrawAcceptance(action.holding);
    };
    return type;
}

ActionType acceptChangeType() {
    ActionType type;
    type.turn = 2;
    type.whyNot = whyNotAcceptChange;
    type.record = [](Catalogue& catalogue, const PlannedAction& planned) {
        return FixityStore(catalogue).accept(planned.holding.id, planned.action.reason);
    };
    type.withdraw = [](Catalogue& catalogue, const LedgerAction& action) {
        return FixityStore(catalogue).withdrawAcceptance(action.holding);
    };
    return type;
}

} // namespace sober
