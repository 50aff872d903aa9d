#include "core/media/frame_converter.h"

extern "C" {
#include <libavutil/channel_layout.h>
#include <libswresample/swresample.h>
}

namespace sober {
namespace {

/// A form of samples; two of the same number of channels are one, wherever those stand in the room.
struct Form {
    int format = AV_SAMPLE_FMT_NONE;
    int channels = 0;
    int rate = 0;

    bool operator==(const Form&) const = default;
};

Form formOf(const AVFrame& frame) {
    return {frame.format, frame.ch_layout.nb_channels, frame.sample_rate};
}

} // namespace

struct FrameConverter::State {
    struct Free {
        void operator()(SwrContext* context) const { swr_free(&context); }
    };

    Form to;
    Form from;
    std::unique_ptr<SwrContext, Free> context;
    OwnedFrame made{av_frame_alloc()};

    bool start(const AVFrame& frame) {
        AVChannelLayout target;
        av_channel_layout_default(&target, to.channels);
        AVChannelLayout source;
        av_channel_layout_copy(&source, &frame.ch_layout);
        if (source.order == AV_CHANNEL_ORDER_UNSPEC) {
            av_channel_layout_default(&source, frame.ch_layout.nb_channels);
        }
        SwrContext* fresh = nullptr;
        swr_alloc_set_opts2(&fresh, &target, static_cast<AVSampleFormat>(to.format), to.rate, &source,
                            static_cast<AVSampleFormat>(frame.format), frame.sample_rate, 0, nullptr);
        context.reset(fresh);
        av_channel_layout_uninit(&source);
        from = formOf(frame);
        if (fresh == nullptr || swr_init(fresh) < 0) {
            context.reset();
        }
        return context != nullptr;
    }

    /// Of no frame: what the resampler still holds.
    bool push(const AVFrame* frame, const std::function<void(const AVFrame&)>& take) {
        const int most = swr_get_out_samples(context.get(), frame != nullptr ? frame->nb_samples : 0);
        if (most <= 0) {
            return most == 0;
        }
        av_frame_unref(made.get());
        made->format = to.format;
        made->sample_rate = to.rate;
        made->nb_samples = most;
        av_channel_layout_default(&made->ch_layout, to.channels);
        if (av_frame_get_buffer(made.get(), 0) < 0) {
            return false;
        }
        const int got =
            swr_convert(context.get(), made->extended_data, most,
                        frame != nullptr ? const_cast<const std::uint8_t**>(frame->extended_data) : nullptr,
                        frame != nullptr ? frame->nb_samples : 0);
        made->nb_samples = got;
        if (got > 0) {
            take(*made);
        }
        return got >= 0;
    }
};

FrameConverter::FrameConverter(AVSampleFormat format, int channels, int rate)
    : state_(std::make_unique<State>()) {
    state_->to = {format, channels, rate};
}
FrameConverter::~FrameConverter() = default;
FrameConverter::FrameConverter(FrameConverter&&) noexcept = default;
FrameConverter& FrameConverter::operator=(FrameConverter&&) noexcept = default;

bool FrameConverter::isOfForm(const AVFrame& frame) const {
    return formOf(frame) == state_->to;
}

bool FrameConverter::convert(const AVFrame& frame, const std::function<void(const AVFrame&)>& take) {
    if (state_->context && state_->from != formOf(frame)) {
        state_->push(nullptr, take);
        state_->context.reset();
    }
    if (isOfForm(frame)) {
        take(frame);
        return true;
    }
    return (state_->context || state_->start(frame)) && state_->push(&frame, take);
}

void FrameConverter::reset() {
    state_->context.reset();
}

} // namespace sober
