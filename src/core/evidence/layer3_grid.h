#pragma once

#include "core/evidence/grid_counts.h"

#include <span>

namespace sober {

/// The grid of MPEG Layer III (ISO/IEC 11172-3: polyphase filter, 36-point MDCT, alias reduction): 576
/// positions, long blocks, subbands 6 to 29.
class LayerIIIGrid {
  public:
    LayerIIIGrid();
    static constexpr std::size_t units() { return 6; } ///< granules that are looked at in a segment
    static constexpr std::size_t quickUnits() { return 3; }
    static constexpr std::size_t mostUnits() { return 12; } ///< where doubt remains
    /// Counts granules [from, to) of a segment.
    void add(const TraceSegment& segment, std::size_t from, std::size_t to);
    std::span<const GridCounts> counts() const { return counts_; }

    /// Where the grid of an encode lies whose decode has a frame begin at `start`: what synthesis and
    /// analysis delay together is a multiple of the period, less one sample (measured).
    static constexpr std::size_t positionOfFrames(std::size_t start) { return (start + 1) % (32 * 18); }

    /// Lines of a granule and channel that an encoder at this position left, on average over the
    /// segments: magnitudes of 1.5 steps or more in all 576 lines, the smaller of left/right and
    /// middle/side. Grows with the bitrate.
    double linesKept(std::span<const TraceSegment> segments, std::size_t position) const;

  private:
    static constexpr std::size_t bands = 32;
    void polyphase(const float* left, const float* right, std::size_t slots, std::size_t firstBand,
                   std::size_t count, std::vector<float>& out) const;
    void granule(const float* subbands, std::size_t firstBand, std::size_t count, float* out) const;

    std::vector<float> matrix_;    ///< [folded sample][band], rows of unit norm
    std::vector<float> transform_; ///< [folded slot][line]
    std::vector<float> window_;    ///< of the transform
    std::array<GridCounts, 2> counts_;
};

} // namespace sober
