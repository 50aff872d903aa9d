#pragma once

#include "core/base/paths.h"

namespace sober::bench {

/// Writes a catalogue of `count` examined holdings on a volume that is away, a third of them in sets of two
/// to six, with fingerprints of about four minutes. Yields the number of holdings that have a fellow.
int writeAwayCatalogue(const BytePath& path, int count);

} // namespace sober::bench
