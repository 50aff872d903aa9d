#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// What was recorded of a drifted or missing holding is put back from a healthy copy.
ActionType restoreType();
/// The same, put together from damaged copies.
ActionType repairType();
/// What a missing holding's restoring is in the ledger: nothing stands at its place. Taken back, it goes to
/// the trash and is missing again.
ActionType bringBackType();

} // namespace sober
