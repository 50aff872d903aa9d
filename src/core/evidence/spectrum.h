#pragma once

#include "core/media/decode.h"

#include <memory>
#include <optional>
#include <vector>

namespace sober {

/// The long-term spectrum of a recording: 4,096-point Hann frames, the power of up to two channels
/// averaged. Levels in dB relative to the square of one 16-bit step, scaled so that white noise of
/// variance v stands at 10 log10 v in every bin.
struct Spectrum {
    double binWidth = 0;     ///< Hz
    std::vector<float> mean; ///< dB by bin, 0 to the Nyquist frequency
    std::vector<float> high; ///< dB by bin: the 95th percentile over time
    std::int64_t frames = 0;
};

/// Where the bandwidth of a recording ends.
struct Bandwidth {
    double cutoff = 0;      ///< Hz: the edge of a brickwall, else the highest frequency that holds anything
    double drop = 0;        ///< dB across the steepest place between 9 and 20.6 kHz
    double above = 0;       ///< dB: level above that place
    bool brickwall = false; ///< drop of 34 dB or more down to +6 dB or less
};

/// Makes the spectrum while a decode goes by. Memory does not grow with length.
class SpectrumPass final : public SampleSink {
  public:
    SpectrumPass();
    ~SpectrumPass() override;
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Nothing where the recording is shorter than one frame.
    std::optional<Spectrum> finish();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

Bandwidth bandwidthOf(const Spectrum& spectrum);

} // namespace sober
