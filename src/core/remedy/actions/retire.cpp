#include "core/remedy/actions/retire.h"

#include "core/base/text.h"
#include "core/remedy/actions/legs.h"
#include "core/remedy/actions/reach.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

/// Takes down in the plan what stays, and what would be lost.
Result<Refusal> whyNotRetire(ReviewContext& context, PlannedAction& planned, const Volume& volume) {
    if (auto gone = whyOutOfReach(planned.holding, volume)) {
        return gone;
    }
    auto carriers = carriersOf(context.catalogue, planned.holding, context.volumes, context.toRetire);
    RETURN_IF_FAILED(carriers);
    planned.carriers = std::move(*carriers);
    if (planned.carriers.empty()) {
        const auto all = carriersOf(context.catalogue, planned.holding, context.volumes, {});
        return !all ? Result<Refusal>(all.error())
               : all->empty()
                   ? Refusal("It is the only copy at hand.")
                   : Refusal(fmt::format("All {} copies at hand are told to retire; one of them has to stay.",
                                         all->size() + 1));
    }
    // Of those at which as little is lost, the one that was named.
    const auto least = planned.carriers.front().loss;
    std::ranges::stable_partition(planned.carriers, [&](const Carrier& carrier) {
        return carrier.path == planned.action.target && carrier.loss == least;
    });
    planned.loss = planned.carriers.front().loss;
    planned.awaitsConsent = planned.loss != Loss::none && planned.action.consent != lossWord(planned.loss);
    return planned.awaitsConsent
               ? Refusal(fmt::format("If it goes, {}: {} stays. Consent to that loss first.",
                                     lossWords(planned.loss), displayPath(planned.carriers.front().path)))
               : Refusal();
}

Result<Proven> proveRetirable(DoingContext& context, const PlannedAction& planned, LedgerAction& action) {
    auto proven = context.prover.retirable(planned);
    if (proven) {
        action.stays = proven->stays->path;
        if (planned.loss != Loss::none) {
            action.sentence = fmt::format("Consented: {}.", lossWords(planned.loss));
        }
    }
    return proven;
}

} // namespace

ActionType retireType() {
    ActionType type;
    type.turn = 2;
    type.forth = setAsideLegs;
    type.back = putBackLegs;
    type.references = References::beforeItGoes;
    type.after = HoldingState::retired;
    type.whyNot = whyNotRetire;
    type.prove = proveRetirable;
    return type;
}

} // namespace sober
