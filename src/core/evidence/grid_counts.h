#pragma once

#include "core/evidence/trace_segments.h"

#include <array>
#include <string>
#include <vector>

namespace sober {

/// Limits below which a coefficient counts as zero, in 16-bit steps. Each is a float whose lower 16 bits
/// are zero: the upper half of a magnitude tells which side it lies on.
inline constexpr std::array<float, 6> traceThresholds{1, 3, 10, 30, 100, 300};

/// For each threshold, how many coefficients of a transform were near zero at each position of its
/// grid. Left/right and middle/side are counted apart.
struct GridCounts {
    std::string codec;
    std::string channels; ///< "left/right" or "middle/side"
    std::size_t period = 0;
    std::size_t coefficients = 0; ///< looked at, at each position
    std::array<std::vector<float>, traceThresholds.size()> nearZero;

    GridCounts(std::string codec, std::string channels, std::size_t period);
};

/// Counts the magnitudes of both channels below each threshold at one position, and those of their middle
/// and side.
void countNearZero(const float* left, const float* right, std::size_t length, std::size_t position,
                   GridCounts& leftRight, GridCounts& middleSide);

/// Where in the recording's grid an offset within a segment lies, so that the segments agree.
inline std::size_t positionInGrid(const TraceSegment& segment, std::size_t offset, std::size_t period) {
    return (static_cast<std::size_t>(segment.start) + offset) % period;
}

} // namespace sober
