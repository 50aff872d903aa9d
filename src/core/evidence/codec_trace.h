#pragma once

#include "core/evidence/trace_segments.h"

#include <optional>
#include <span>
#include <string>

namespace sober {

/// An excess of coefficients near zero at one position of a lossy encoder's block grid.
struct TracePeak {
    std::string codec;      ///< "mp3", "aac", "vorbis"
    std::size_t offset = 0; ///< within the period of the grid, in samples
    std::size_t period = 0; ///< 576 or 1024
    double strength = 0;    ///< times above chance: excess over the spread between positions
    double share = 0;       ///< excess as a share of the coefficients looked at
    double threshold = 0;   ///< in 16-bit steps: below it a coefficient counts as zero
    std::string channels;   ///< "left/right" or "middle/side"
    int rate = 0; ///< Hz at which the grid lies: another than the file's where it was resampled since
    std::vector<float> excess; ///< over the positions, for the picture
};

/// What the search found: the strongest peak, and an earlier encode below it where one shows.
struct CodecTrace {
    std::optional<TracePeak> last;    ///< a hit: strength of 8 and a share of 1 % at least
    std::optional<TracePeak> first;   ///< of two encodes by the same method, the earlier
    std::optional<TracePeak> highest; ///< the best position, hit or not
    std::size_t segments = 0;         ///< that could be looked at
    /// Of MPEG Layer III: lines that are not zero in a granule and channel, on average; 0 where not looked
    /// at.
    double linesPerGranule = 0;
};

/// Looks for the block grids of MPEG Layer III (ISO/IEC 11172-3: polyphase filter and 36-point MDCT), AAC
/// (ISO/IEC 13818-7: sine and KBD windows) and Vorbis, by taking each transform at every position and
/// counting coefficients near zero. From memory related to published inverse-decoder and
/// framing-offset detection and to double-compression statistics (about 2008-2019).
CodecTrace findCodecTrace(std::span<const TraceSegment> segments);

} // namespace sober
