#pragma once

#include "core/base/paths.h"

namespace sober {

/// The user's home: $HOME, else the password database.
BytePath homeFolder();

/// $XDG_DATA_HOME, else ~/.local/share (freedesktop.org Base Directory specification: a relative
/// value is ignored).
BytePath dataHome();

/// $XDG_CONFIG_HOME, else ~/.config, by the same specification.
BytePath configHome();

/// Where the catalogue is kept unless told otherwise.
BytePath defaultCatalogue();

} // namespace sober
