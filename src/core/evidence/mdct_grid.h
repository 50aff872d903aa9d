#pragma once

#include "core/evidence/grid_counts.h"

#include <span>

namespace sober {

/// The grid of codecs whose transform is one MDCT with a window of its own: AAC, Vorbis, WMA, AC-3.
class MdctGrid {
  public:
    /// A codec's window; the first terms of its expansion in sin((2m+1) pi (n + 1/2) / N).
    struct Window {
        std::string codec;
        std::vector<float> terms;
    };
    struct Shape {
        std::size_t length;   ///< N, of the window; the grid's period is the half of it
        std::size_t firstBin; ///< that is counted
        std::size_t lastBin;
        std::size_t frames; ///< that are looked at in a segment
    };

    MdctGrid(const Shape& shape, std::vector<Window> windows);
    /// AAC (sine and KBD windows, ISO/IEC 13818-7) and Vorbis (Vorbis I, section 1.3.2.3), N = 2,048.
    static MdctGrid ofAacAndVorbis();
    /// WMA, N = 4,096, sine; from memory.
    static MdctGrid ofWma();
    /// AC-3 (ATSC A/52), N = 512, KBD of alpha 5.
    static MdctGrid ofAc3();

    std::size_t units() const { return shape_.frames; } ///< frames that are looked at in a segment
    std::size_t quickUnits() const { return (shape_.frames + 2) / 3; }
    std::size_t mostUnits() const; ///< where doubt remains
    /// Counts frames [from, to) of a segment; those past the usual lie between them.
    void add(const TraceSegment& segment, std::size_t from, std::size_t to);
    std::span<const GridCounts> counts() const { return counts_; }

  private:
    struct Slide;
    Shape shape_;
    std::vector<Window> windows_;
    std::vector<GridCounts> counts_; ///< two for each window
};

} // namespace sober
