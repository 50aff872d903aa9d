#pragma once

#include "core/evidence/grid_counts.h"

namespace sober {

/// The grid of Opus in its music mode (RFC 6716, section 4.3.7): frames of 20 ms at 48 kHz, a window
/// whose slopes are 120 samples long, after a pre-emphasis of 0.85.
class CeltGrid {
  public:
    static constexpr int rate = 48'000;

    CeltGrid();
    static constexpr std::size_t units() { return 6; } ///< frames that are looked at in a segment
    static constexpr std::size_t quickUnits() { return 1; }
    static constexpr std::size_t mostUnits() { return units(); }
    /// Counts frames [from, to) of a segment at 48 kHz.
    void add(const TraceSegment& segment, std::size_t from, std::size_t to);
    std::span<const GridCounts> counts() const { return counts_; }

  private:
    std::vector<GridCounts> counts_;
};

} // namespace sober
