#pragma once

#include "core/disc/disc_contents.h"

#include <cstdint>
#include <functional>
#include <optional>
#include <span>

namespace sober {

/// Where on a disc a sector lies, as its subcode says.
struct DiscPosition {
    int track = 0;
    int index = 0;  ///< 0: the gap before the track
    int sector = 0; ///< counted from 00:02:00
    bool operator==(const DiscPosition&) const = default;
};

/// The position in the Q channel of a sector (IEC 60908, mode 1), as a drive gives it for the
/// sector `asked`: control and mode, track, index, the time in the track, a zero, the time on the disc; as
/// decimal digits, or as plain numbers, which some drives make of them (common practice, no source). Nothing
/// where another mode is there, or a place that is not near the one that was asked for.
std::optional<DiscPosition> positionFrom(std::span<const std::uint8_t> subcode, int asked);

/// What the subcode at a sector says; nothing where that is no position, or cannot be read.
using PositionReader = std::function<std::optional<DiscPosition>(int sector)>;

/// Finds the gaps before tracks and the index marks within them, by halving: a few readings for each track.
/// Of a drive that tells no positions, or others than its table of contents, the contents stay as they are.
void findPositions(DiscContents& contents, const PositionReader& read);

} // namespace sober
