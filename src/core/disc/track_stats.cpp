#include "core/disc/track_stats.h"

#include "core/disc/sliding_crc.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

void note(RippedTrack& ripped, int sector, const SectorReading& reading) {
    ripped.readings = std::max<int>(ripped.readings, reading.readings);
    ripped.late += reading.state == SectorState::agreedLate ? 1 : 0;
    ripped.unread += reading.state == SectorState::unread ? 1 : 0;
    if (reading.isKnown()) {
        return;
    }
    if (!ripped.doubtful.empty() && ripped.doubtful.back().second == sector - 1) {
        ripped.doubtful.back().second = sector;
    } else {
        ripped.doubtful.emplace_back(sector, sector);
    }
}

} // namespace

RippedTrack statsOfTrack(const DiscTrack& track, std::span<const std::int16_t> samples,
                         const std::map<int, std::vector<SectorReading>>& stretches) {
    RippedTrack ripped;
    ripped.number = track.number;
    ripped.sectors = track.sectors;
    ripped.preEmphasis = track.preEmphasis;
    ripped.crc = crcOf(samples);
    for (const auto each : samples) {
        ripped.peak = std::max(ripped.peak, std::abs(static_cast<double>(each)) / 32'768);
    }
    for (const auto& [first, sectors] : stretches) {
        for (std::size_t i = 0; i < sectors.size(); ++i) {
            const int sector = first + static_cast<int>(i);
            if (sector >= track.firstSector && sector < track.end()) {
                note(ripped, sector, sectors[i]);
            }
        }
    }
    return ripped;
}

} // namespace sober
