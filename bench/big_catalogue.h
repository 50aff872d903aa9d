#pragma once

#include "core/base/paths.h"

namespace sober::bench {

/// Writes a catalogue of `holdings` made-up holdings on four volumes: two in five in copy sets of two, one in
/// fifty missing, one in ten referred to by a player's lists (of which one in twenty leads nowhere), one in
/// twenty on the docket. Straight into the tables, since no disk holds a million recordings for a bench.
void writeBigCatalogue(const BytePath& path, int holdings);

} // namespace sober::bench
