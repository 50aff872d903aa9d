#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// A folder in which no file is left goes to the trash as it is, with the empty folders in it. Whatever comes
/// into it meanwhile keeps it where it is.
ActionType clearFolderType();

} // namespace sober
