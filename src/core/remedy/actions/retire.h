#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A holding goes to the trash; another that carries its recording stays.
ActionType retireType();

} // namespace sober
