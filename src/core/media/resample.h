#pragma once

#include <memory>
#include <span>

namespace sober {

/// Turns a stream of float frames into mono of another rate: every channel counts alike, 16 bits, by
/// FFmpeg's resampler.
class MonoResampler {
  public:
    MonoResampler(int channels, int fromRate, int toRate);
    ~MonoResampler();

    /// The samples that the next frames yield, given one channel after the other; valid until the next call.
    std::span<const std::int16_t> feed(std::span<const float> planar);
    /// What the filter still holds at the end.
    std::span<const std::int16_t> finish();

  private:
    struct State;
    std::span<const std::int16_t> convert(const std::int16_t* samples, int count);
    std::unique_ptr<State> state_;
};

} // namespace sober
