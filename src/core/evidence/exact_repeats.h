#pragma once

#include "core/evidence/trace_segments.h"

#include <span>

namespace sober {

/// After how many samples most of the segments repeat themselves, as wavetables, square waves and clicks of
/// exact periods do; 0 where they do not. Looked for at multiples of 32 samples, which the blocks of all
/// encoders have in common with such periods: every block is then like the next, and statistics of blocks
/// tell nothing of an encoder.
std::size_t exactRepeats(std::span<const TraceSegment> segments);

} // namespace sober
