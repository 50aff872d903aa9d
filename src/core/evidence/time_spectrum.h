#pragma once

#include "core/media/decode.h"

#include <memory>

namespace sober {

/// How loud each frequency is over time, for a picture.
struct TimeSpectrum {
    static constexpr std::size_t rows = 256; ///< from 0 Hz to `highest`, evenly

    std::size_t columns = 0; ///< from the beginning to the end, evenly
    double seconds = 0;
    double highest = 0;        ///< Hz: the Nyquist frequency
    std::vector<float> levels; ///< dB as in Spectrum, [column][row]
};

/// Makes the picture while a decode goes by, in at most `mostColumns`; memory does not grow with length.
class TimeSpectrumPass final : public SampleSink {
  public:
    explicit TimeSpectrumPass(std::size_t mostColumns);
    ~TimeSpectrumPass() override;
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    TimeSpectrum finish() const;

  private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace sober
