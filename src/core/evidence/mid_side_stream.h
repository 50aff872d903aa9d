#pragma once

#include "core/media/pcm_reader.h"

#include <vector>

namespace sober {

/// Samples of a stereo decode as middle and side, from any place, with what was read kept for a while. For
/// one thread.
class MidSideStream {
  public:
    static constexpr int rate = 44'100; ///< Hz, to which the decode is brought

    explicit MidSideStream(PcmReader reader) : reader_(std::move(reader)) {}

    double seconds() const { return reader_.seconds(); }
    void seek(std::int64_t sample);
    /// The middle from `sample` on, in 16-bit steps; false where the decode does not reach so far. Places
    /// before what is kept are sought anew. The side's energy is added to `sideEnergy`.
    bool at(std::int64_t sample, std::size_t count, std::vector<float>& middle, double* sideEnergy = nullptr);

  private:
    void readTo(std::int64_t end);

    PcmReader reader_;
    std::int64_t start_ = 0; ///< place of the first sample kept
    std::vector<float> middle_;
    std::vector<float> side_;
    bool ended_ = false;
};

} // namespace sober
