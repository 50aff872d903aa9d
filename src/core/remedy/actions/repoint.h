#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// Every reference that leads to a place leads to another. The lists are changed by the journal, each an
/// action of its own.
ActionType repointType();

} // namespace sober
