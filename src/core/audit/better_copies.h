#pragma once

#include "core/catalogue/catalogue.h"

namespace sober {

/// For every holding under the bitrate set for its codec, the best other holdings of the
/// same recording, one on each volume, where any are known. Candidates have the same title (as tagged, else
/// the file's name) and nearly the same length; the acoustic fingerprints then have to agree. A copy is
/// better when it is sound, is not called doubtful or transcoded, and is lossless or not itself under its
/// limit.
Outcome findBetterCopies(const Catalogue& catalogue);

} // namespace sober
