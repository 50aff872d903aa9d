#pragma once

#include "core/disc/rip_report.h"

#include <map>

namespace sober {

/// What is told of a track: its checksum and peak by its samples as they are written, its readings by the
/// sectors in which it lies, as they were read. `stretches` by their first sector.
RippedTrack statsOfTrack(const DiscTrack& track, std::span<const std::int16_t> samples,
                         const std::map<int, std::vector<SectorReading>>& stretches);

} // namespace sober
