#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// What is missing, or a place that references point to, is not missed.
ActionType writeOffType();

} // namespace sober
