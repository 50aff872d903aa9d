#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

/// The names in a folder but for its own and its parent's, sorted by their bytes. Fails as opening and
/// listing do.
Result<std::vector<std::string>> namesIn(const BytePath& folder);

} // namespace sober
