#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A holding's bytes are put at another place too, as a holding of its own with all that is known of them.
/// They come from the holding or, where its file is not what was recorded, from another that has them.
ActionType copyType();

} // namespace sober
