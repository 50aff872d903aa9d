#pragma once

#include "core/media/decode.h"

#include <array>

namespace sober {

/// What the samples themselves show. Levels in dB relative to full scale.
struct Levels {
    double peak = -999;             ///< dBFS of the largest sample
    double rms = -999;              ///< dBFS over all channels
    std::int64_t clipped = 0;       ///< samples in runs of three or more at full scale
    int effectiveBitDepth = 0;      ///< of integer samples: bits that are ever used; 0 where not integer
    bool identicalChannels = false; ///< two channels, every sample alike: mono stored as stereo
    bool silent = false;            ///< nothing above -80 dBFS
    double clippedAt = 0;           ///< seconds: the first clipped sample
};

/// Takes levels while a decode goes by.
class LevelPass final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    Levels finish() const;

  private:
    SampleFormat format_;
    double sumOfSquares_ = 0;
    std::int64_t samples_ = 0;
    float peak_ = 0;
    std::int64_t clipped_ = 0;
    std::int64_t frames_ = 0;
    std::int64_t firstClip_ = 0; ///< frame
    std::vector<int> run_;
    std::uint32_t usedBits_ = 0;
    bool identical_ = true;
};

} // namespace sober
