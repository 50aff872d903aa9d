#pragma once

#include "core/media/av_owned.h"

#include <functional>
#include <memory>

struct SwrContext;

namespace sober {

/// Brings decoded frames to one form, whatever form each of them has: streams change their rate and their
/// channels where recordings were joined.
class FrameConverter {
  public:
    FrameConverter(AVSampleFormat format, int channels, int rate);
    ~FrameConverter();
    FrameConverter(FrameConverter&&) noexcept;
    FrameConverter& operator=(FrameConverter&&) noexcept;

    /// `take` hears of what a frame yields: nothing, one frame, or two where the form has changed and
    /// something of the former was still held. False where it cannot be converted.
    bool convert(const AVFrame& frame, const std::function<void(const AVFrame&)>& take);
    /// True where a frame has the form already.
    bool isOfForm(const AVFrame& frame) const;
    /// Forgets what is held, for a new place in the stream.
    void reset();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace sober
