#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A holding goes to another place on its file system by one rename; the lists that point at it follow.
ActionType moveType();

} // namespace sober
