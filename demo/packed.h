#pragma once

#include "core/base/paths.h"

namespace sober::demo {

/// A packed box that nobody has opened for years: two recordings that are held outside, and one that lies
/// nowhere else. A survey that looks inside tells them.
bool makePacked(const BytePath& folder);

} // namespace sober::demo
