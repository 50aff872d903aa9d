#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A better file of its recording takes a holding's place, or one beside it where its ending is another: made
/// with the tags that were chosen and read back, then the old one goes to the trash and all references lead
/// to the new. The holding stays what it is: its history, its lists and the day it came go with it.
ActionType replaceType();

} // namespace sober
