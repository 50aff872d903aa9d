#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// For every holding under the bitrate set for its codec, the best other holdings of its copy set that are as
/// long, one on each volume, where any are known; the sets have to be those of the catalogue as it is. A copy
/// is better when it is sound, is not called doubtful or transcoded, and is lossless or not itself under its
/// limit.
Outcome findBetterCopies(const Catalogue& catalogue);

} // namespace sober
