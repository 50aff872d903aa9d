#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A holding is put at another place in another form, tags and its front picture along. What was made is
/// decoded and laid over the source before it counts.
ActionType encodeType();

} // namespace sober
