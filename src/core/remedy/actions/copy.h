#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A holding's bytes are put at another place too, as a holding of its own with all that is known of them.
/// They come from the holding or, where its file is not what was recorded, from another that has them.
ActionType copyType();

/// From the catalogue: why a holding cannot be put at the action's target too.
Result<Refusal> whyNotCopy(ReviewContext& context, PlannedAction& planned, const Volume& volume);
/// From here on the action is about the new place, where nothing stands and `bytes` have room.
Outcome beginAtTarget(const PlannedAction& planned, LedgerAction& action, std::uint64_t bytes);

} // namespace sober
