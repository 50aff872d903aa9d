#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A file that was made of a disc's track is put at its place and read back: decoded, and held against the
/// samples that were read. Taken back, it goes to the trash.
ActionType ripType();

} // namespace sober
