#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

namespace sober::demo {

/// What the stand-in offer shelf has, in OFFERS: a better file, one that is not what it promises, another
/// recording of that name, another length.
bool makeOffers(const BytePath& folder);

/// File, what it is offered for, and what it is to be called once it was fetched.
nlohmann::ordered_json offersTruth();

} // namespace sober::demo
