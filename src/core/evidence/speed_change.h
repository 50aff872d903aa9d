#pragma once

#include "core/evidence/grid_peaks.h"

namespace sober {

/// The grid of an encode whose decode was played faster or slower since, by up to half a per cent: the
/// segments are taken at such speeds, one after the other, and a grid shows at one of them as at no other.
/// The segments count each for itself, as nothing says how far a speed moves them against each other. Peaks
/// of Layer III, AAC and Vorbis; `rate` is the one at which the grid lies. Takes seconds: for what raises
/// doubt otherwise.
std::optional<TracePeak> findGridAtOtherSpeed(std::span<const TraceSegment> segments);

} // namespace sober
