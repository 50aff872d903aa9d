#pragma once

#include "core/evidence/grid_peaks.h"

namespace sober {

/// What the search for an earlier lossy encode found.
struct CodecTrace {
    /// The strongest grid: a hit has a strength of 8 and a share of 1 % at least. In a lossy file the
    /// grid of its own codec, which is expected.
    std::optional<TracePeak> last;
    std::optional<TracePeak> first;   ///< of an earlier encode, below the last
    std::optional<TracePeak> highest; ///< the best position, hit or not
    std::size_t segments = 0;         ///< that could be looked at
    /// Of MPEG Layer III in a lossless file: lines that are not zero in a granule and channel; 0 where
    /// not looked at.
    double linesPerGranule = 0;
    /// Samples after which the sound repeats itself where a grid was found that this may have made; such a
    /// grid is left out. 0: none was.
    std::size_t repeats = 0;
};

/// What is known of a file before its samples are looked at.
struct TraceQuestion {
    int rate = 44'100;    ///< Hz of the segments, 32,000 to 48,000
    std::string ownCodec; ///< whose grid is expected; "" where the file is lossless
    /// Also look for the rarer grids (Opus, AC-3, WMA) and for what was resampled since: worth their
    /// time only where something else raises doubt.
    bool everything = false;
    /// The sound stops dead, as lossy encoders make it: also look for what was played at another speed since.
    bool wall = false;
    /// Where the frames of the file's own codec begin in the decode, within their length, where that is
    /// known: of MP3 it tells which grid is the file's own.
    std::optional<std::size_t> ownFrames = {};
};

/// Looks for the block grids of MPEG Layer III (ISO/IEC 11172-3: polyphase filter and 36-point MDCT), AAC
/// (ISO/IEC 13818-7: sine and KBD windows), Vorbis and others, by taking each transform at every
/// position and counting coefficients near zero. A part of the segments accepts what is plain; doubt
/// looks at more. From memory related to published inverse-decoder and framing-offset detection and
/// to double-compression statistics (about 2008-2019).
CodecTrace findCodecTrace(std::span<const TraceSegment> segments, const TraceQuestion& question);

} // namespace sober
