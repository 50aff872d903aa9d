#pragma once

#include "core/base/paths.h"

namespace sober::bench {

/// Writes a catalogue of `holdings` made-up holdings on four volumes: a quarter in copy sets, one in
/// fifty missing. Straight into the tables, since no disk holds a million recordings for a bench.
void writeBigCatalogue(const BytePath& path, int holdings);

} // namespace sober::bench
