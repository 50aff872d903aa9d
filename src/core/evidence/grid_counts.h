#pragma once

#include "core/evidence/trace_segments.h"

#include <array>
#include <string>
#include <vector>

namespace sober {

/// Limits below which a coefficient counts as zero, in 16-bit steps.
inline constexpr std::array<float, 6> traceThresholds{1, 3, 10, 30, 100, 300};

/// For each threshold, how many coefficients of a transform were near zero at each position of its
/// grid. Left/right and middle/side are counted apart.
struct GridCounts {
    std::string codec;
    std::string channels; ///< "left/right" or "middle/side"
    std::size_t period = 0;
    std::size_t coefficients = 0; ///< looked at, at each position
    std::array<std::vector<float>, traceThresholds.size()> nearZero;
};

/// Adds one segment's counts. `counts` holds the two channel sets.
class LayerIIIGrid {
  public:
    LayerIIIGrid();
    void add(const TraceSegment& segment);
    const std::array<GridCounts, 2>& counts() const { return counts_; }

  private:
    static constexpr std::size_t firstBand = 6;
    static constexpr std::size_t bands = 24;
    void polyphase(const std::vector<float>& samples, std::size_t phase, std::vector<float>& out) const;

    std::vector<float> filter_;    ///< [tap][band], rows of unit norm
    std::vector<float> transform_; ///< [slot][line]: window and cosine of the 36-point MDCT
    std::array<GridCounts, 2> counts_;
};

/// The MDCT grids of 2,048 points: AAC with its two windows, and Vorbis.
class MdctGrid {
  public:
    MdctGrid();
    void add(const TraceSegment& segment);
    const std::vector<GridCounts>& counts() const { return counts_; }

  private:
    struct Window {
        std::string codec;
        std::vector<float> terms; ///< of its expansion in odd half-sines
    };
    std::vector<Window> windows_;
    std::vector<GridCounts> counts_; ///< two for each window
};

} // namespace sober
