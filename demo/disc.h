#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

namespace sober::demo {

/// An image of a scratched disc, in DISC: six tracks of a record that is held as lossy files only, with what
/// the stand-in drive (KELP.faults) and the stand-in services (discs.json) need.
bool makeDisc(const BytePath& folder);

/// What is to be read of it: the checksum of each track, the sectors that no reading gives, the drive's
/// offset.
nlohmann::ordered_json discTruth();

} // namespace sober::demo
