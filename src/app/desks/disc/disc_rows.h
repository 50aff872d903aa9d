#pragma once

#include "app/lists/columns.h"
#include "core/disc/rip_report.h"

namespace sober::app {

/// A track of the disc in the tray, and what was read of it.
struct DiscLine {
    DiscTrack track; ///< number 0: what is hidden before the first
    DiscNames::Track name;
    std::optional<RippedTrack> read;
};

std::vector<Column<DiscLine>> discColumns();

/// What became of a track, in lines for a person.
QString evidenceOf(const DiscLine& line);

} // namespace sober::app
