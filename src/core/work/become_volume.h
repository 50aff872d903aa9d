#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/transfer/target_place.h"

namespace sober {

/// A folder into which something is to be put; one that is on no volume is made and becomes one.
Result<TargetPlace> placeOnVolume(Catalogue& catalogue, const BytePath& folder, RunControl& control);

} // namespace sober
