#pragma once

#include "core/media/decode.h"

#include <array>

namespace sober {

/// Takes note of places where every channel stands still in the midst of sound: at zero (a dropout) or at
/// another value (stuck). Only where the sound breaks off and sets in again at once, which music that fades
/// does not do. Places and lengths are right to 64 samples. Lengths from which they count: common practice,
/// no source.
class HeldSamplesPass final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Dropouts and stuck samples in order of time, of many alike the first hundred.
    std::vector<DecodeProblem> finish() const { return found_; }

  private:
    void takeWindow(const DecodedBlock& block, std::size_t first, std::size_t length);
    void endRun(float after);

    SampleFormat format_;
    std::int64_t frames_ = 0;    ///< before the window
    std::vector<float> value_;   ///< of each channel in the run
    std::int64_t runFrames_ = 0; ///< 0: no run
    std::int64_t runBegan_ = 0;
    float before_ = 0;   ///< highest distance from the run's value in the window before it
    float lastPeak_ = 0; ///< of the window before, whatever follows
    std::vector<DecodeProblem> found_;
};

} // namespace sober
