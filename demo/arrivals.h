#pragma once

#include "core/base/paths.h"

namespace sober::demo {

/// What has landed in DOWNLOADS: held in another form, better than what is held, new without tags, with tags
/// in a wrong encoding, a false FLAC, one that was cut short. What is to be advised stands in the truth file
/// as "arrivals".
bool makeArrivals(const BytePath& folder);

} // namespace sober::demo
