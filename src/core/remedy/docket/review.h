#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

struct DocketReview {
    std::vector<PlannedAction> actions; ///< in the order of the docket
    std::uint64_t frees = 0;
    std::vector<std::pair<std::string, std::uint64_t>> freesByVolume;
    std::uint64_t refused = 0;
    std::uint64_t references = 0; ///< that are taken along
};

/// Reads the docket through: what each action would do and free, and what has to be refused. Where
/// every copy at hand of a recording is told to retire, none of them is. What an earlier action has left to
/// be settled is not acted on.
Result<DocketReview> reviewDocket(const Catalogue& catalogue);

/// The same of actions that stand on no docket: a transfer's plan is one of its own.
Result<DocketReview> reviewActions(const Catalogue& catalogue, std::span<const DocketAction> actions);

/// Consents to the loss that retiring this one holding brings as the docket stands now, by name: should it
/// become another loss, that one is asked for anew. Cause::invalid where it is on no docket or nothing would
/// be lost.
Outcome consentToLoss(const Catalogue& catalogue, HoldingId holding);

} // namespace sober
