#pragma once

#include "core/catalogue/catalogue.h"
#include "core/remedy/actions/planned_action.h"

#include <span>

namespace sober {

/// What was read of discs goes once nothing of it waits on the docket any more.
Outcome settleDiscs(const Catalogue& catalogue, std::span<const PlannedAction> actions);

} // namespace sober
