#pragma once

#include "core/base/paths.h"
#include "core/media/decode.h"
#include "core/media/excerpt.h"
#include "core/media/loudest_stretch.h"

#include <deque>
#include <memory>

namespace sober {

/// Takes the loudest 20 seconds out of a decode while it goes by, in whole seconds, and the outline of all of
/// it. Holds two stretches of sound at most. More than two channels are folded to two.
class ExcerptPass final : public SampleSink {
  public:
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Without a cover.
    Excerpt finish(const BytePath& path);

  private:
    /// A second of one or two channels.
    using Second = std::vector<std::vector<float>>;

    void endSecond();
    std::string encoded(const BytePath& path, double& seconds) const;

    SampleFormat format_;
    std::size_t channels_ = 1;
    std::uint64_t frames_ = 0;
    std::shared_ptr<Second> now_;
    double energy_ = 0;
    std::deque<std::shared_ptr<const Second>> last_;
    std::vector<std::shared_ptr<const Second>> best_;
    LoudestStretch stretch_{static_cast<std::size_t>(Excerpt::usualSeconds)};
    std::vector<std::uint8_t> peaks_; ///< of each twentieth of a second
    float peak_ = 0;
    std::size_t inPeak_ = 0; ///< frames
};

/// `peaks` in so many columns at most: the greatest of those that fall into one.
std::vector<std::uint8_t> outlineOf(const std::vector<std::uint8_t>& peaks, std::size_t columns);

} // namespace sober
