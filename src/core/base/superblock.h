#pragma once

#include "core/base/paths.h"

#include <string>

namespace sober {

/// What libblkid reads of a device or an image, by its name for it ("UUID", "LABEL"); "" where it cannot.
std::string superblockValue(const BytePath& device, const char* name);

} // namespace sober
