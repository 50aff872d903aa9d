#pragma once

#include "core/catalogue/salvage_store.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/carried_out.h"

namespace sober {

/// After a docket was carried out: writes down which finds stand at their places now. What has come out of a
/// trash and is proven in its place leaves the trash, and its note with it: nothing is copied and left as
/// well.
Outcome settleFinds(const Catalogue& catalogue, std::span<const PlannedAction> actions, CarriedOut& carried);

/// After something was taken back: finds whose place is empty again were not taken.
Outcome forgetTaken(const Catalogue& catalogue);

} // namespace sober
