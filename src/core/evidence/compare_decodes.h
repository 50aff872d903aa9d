#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"
#include "core/base/run_control.h"

#include <array>
#include <vector>

namespace sober {

/// Edges of the bands in which two decodes are compared, in Hz.
inline constexpr std::array<float, 17> comparedBandEdges{
    60, 120, 250, 500, 1000, 1500, 2000, 3000, 4000, 6000, 8000, 10000, 12000, 14000, 16000, 18000, 20000};
inline constexpr std::size_t comparedBands = comparedBandEdges.size() - 1;

/// What is left where one decode is subtracted from another: a null test.
struct DecodeComparison {
    double offset = 0; ///< seconds: place t of the second is heard at t + offset of the first
    double drift = 0;  ///< parts in a million by which the second runs longer than the first
    double gain = 0;   ///< dB of the second over the first
    double spread =
        0; ///< dB: how far the bands that agree differ in gain (5th to 95th percentile): equalising
    double residual = 0; ///< dB relative to the second: what remains after gain and offset are taken off
    /// Share of the blocks that sound in both in which the middle bands (250 Hz to 4 kHz) are one waveform,
    /// whatever their gain and phase: near 1 for one recording, near 0 for two takes.
    double agreeing = 0;
    double compared = 0; ///< seconds in which both sound
    /// Seconds that sound in what one has before and behind the other; negative: not measured.
    double standsOver = -1;
    double firstSide = -99;                    ///< dB: side over middle; of mono stored as stereo −99
    double secondSide = -99;                   ///< dB
    std::vector<float> overTime;               ///< residual in dB for each block
    double blockSeconds = 0;                   ///< from one block to the next
    std::array<float, comparedBands> byBand{}; ///< residual in dB for each band, its own gain taken off
};

/// Decodes both files and lays them on each other from `coarse` seconds (as in `offset`, within a quarter
/// of a second). The offset is found by cross-correlation and followed; memory does not grow with
/// length. Fails where one cannot be decoded or the run is cancelled.
Result<DecodeComparison> compareOpen(const FileHandle& first, const BytePath& firstPath,
                                     const FileHandle& second, const BytePath& secondPath, double coarse,
                                     RunControl& control);
Result<DecodeComparison> compareDecodes(const BytePath& first, const BytePath& second, double coarse,
                                        RunControl& control);

} // namespace sober
