#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A recording is kept as it is, whatever its evidence says.
ActionType acceptType();
/// A holding's content as it is now is what it should be.
ActionType acceptChangeType();

} // namespace sober
