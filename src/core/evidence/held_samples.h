#pragma once

#include "core/media/decode.h"

#include <array>

namespace sober {

/// Takes note of places where sound stands still in the midst of sound: at zero (a dropout) or at another
/// value (stuck), in every channel or in one alone. Only where it breaks off and sets in again at once, which
/// music that fades does not do. What happens in one channel more than a few times is how the music is made
/// (one side switched on and off), and no fault. Places and lengths are right to 64 samples. Lengths and
/// numbers from which they count: common practice, no source.
class HeldSamplesPass final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Dropouts and stuck samples in order of time, of many alike the first hundred.
    std::vector<DecodeProblem> finish() const;

  private:
    /// Standing still in some channels, all or one.
    struct Run {
        std::size_t first = 0; ///< channel
        std::size_t past = 0;
        std::int64_t frames = 0; ///< 0: none goes on
        std::int64_t began = 0;
        float value = 0;     ///< highest at which a channel of it stands, without its sign
        float before = 0;    ///< highest sample in the window before it
        bool shared = false; ///< every channel stood still meanwhile
    };
    bool isAlone(const Run& run) const { return run.past - run.first < value_.size(); }
    void takeWindow(const DecodedBlock& block, std::size_t first, std::size_t length);
    float peakBefore(const Run& run, const DecodedBlock& block, std::size_t first) const;
    void endRun(Run& run, float after);

    SampleFormat format_;
    std::int64_t frames_ = 0;     ///< before the window
    std::vector<float> value_;    ///< at which each channel stands
    std::vector<bool> still_;     ///< whether each channel stands in the window, at that value
    std::vector<float> lastPeak_; ///< of each channel in the window before the block
    std::vector<Run> runs_;       ///< of all channels, then of each alone where there are several
    std::vector<DecodeProblem> found_;
    std::vector<DecodeProblem> alone_; ///< in one channel
};

} // namespace sober
