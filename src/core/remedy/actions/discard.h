#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// What lies in the trash and is held elsewhere, byte for byte, leaves the trash for good: what was set aside
/// is let go of, and nothing brings it back but the copy that stays.
ActionType discardType();

} // namespace sober
