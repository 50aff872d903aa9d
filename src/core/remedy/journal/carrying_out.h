#pragma once

#include "core/remedy/docket/review.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Carries out what a review found, in batches, as an entry of the ledger. What is refused stays on the
/// docket. An Error is the catalogue's: what was begun waits to be settled (recovery.h).
Result<CarriedOut> carryOutReviewed(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                                    DocketReview review, const std::vector<Volume>& volumes);

} // namespace sober
