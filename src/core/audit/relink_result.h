#pragma once

#include "core/audit/relink.h"
#include "core/audit/relink_state.h"

namespace sober {

/// All that was found out, as it is told; the state is used up by it.
Relinking resultOf(RelinkState& state);

} // namespace sober
