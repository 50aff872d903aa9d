#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A list is written where nothing stands; the action's `change` is its text.
ActionType writeListType();

/// The same in the place of a list that a transfer has written before, which goes to the trash.
ActionType replaceListType();

} // namespace sober
