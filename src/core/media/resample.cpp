#include "core/media/resample.h"

#include "core/base/wide.h"

#include <algorithm>
#include <cmath>
#include <numbers>

extern "C" {
#include <libavutil/channel_layout.h>
#include <libavutil/opt.h>
#include <libswresample/swresample.h>
}

namespace sober {

namespace {

SOBER_WIDE void addTo(float* sum, const float* values, std::size_t count) {
    for (std::size_t i = 0; i < count; ++i) {
        sum[i] += values[i];
    }
}

SOBER_WIDE void toShorts(const float* values, float scale, std::size_t count, std::int16_t* out) {
    for (std::size_t i = 0; i < count; ++i) {
        const float scaled = values[i] * scale;
        const float above = scaled < -32768.0F ? -32768.0F : scaled;
        const float within = above > 32767.0F ? 32767.0F : above;
        out[i] = static_cast<std::int16_t>(static_cast<std::int32_t>(within));
    }
}

} // namespace

struct MonoResampler::State {
    struct Free {
        void operator()(SwrContext* context) const { swr_free(&context); }
    };
    std::unique_ptr<SwrContext, Free> context;
    std::size_t channels = 0;
    std::vector<float> sum;
    std::vector<std::int16_t> mono;
    std::vector<std::int16_t> out;
};

MonoResampler::MonoResampler(int channels, int fromRate, int toRate) : state_(std::make_unique<State>()) {
    AVChannelLayout mono;
    av_channel_layout_default(&mono, 1);
    state_->channels = static_cast<std::size_t>(channels);
    SwrContext* context = nullptr;
    if (swr_alloc_set_opts2(&context, &mono, AV_SAMPLE_FMT_S16, toRate, &mono, AV_SAMPLE_FMT_S16, fromRate, 0,
                            nullptr) == 0) {
        av_opt_set_int(context, "filter_size", 8, 0);
    }
    state_->context.reset(context);
    if (context == nullptr || swr_init(context) < 0) {
        state_->context.reset();
    }
}
MonoResampler::~MonoResampler() = default;

std::span<const std::int16_t> MonoResampler::convert(const std::int16_t* samples, int count) {
    if (!state_->context) {
        return {};
    }
    const int most = swr_get_out_samples(state_->context.get(), count);
    state_->out.resize(static_cast<std::size_t>(std::max(most, 0)));
    auto* out = reinterpret_cast<std::uint8_t*>(state_->out.data());
    const auto* in = reinterpret_cast<const std::uint8_t*>(samples);
    const int made =
        swr_convert(state_->context.get(), &out, most, samples != nullptr ? &in : nullptr, count);
    return std::span(state_->out).first(static_cast<std::size_t>(std::max(made, 0)));
}

std::span<const std::int16_t> MonoResampler::feed(std::span<const float> planar) {
    const std::size_t frames = planar.size() / state_->channels;
    state_->sum.assign(planar.begin(), planar.begin() + static_cast<std::ptrdiff_t>(frames));
    for (std::size_t channel = 1; channel < state_->channels; ++channel) {
        addTo(state_->sum.data(), planar.data() + channel * frames, frames);
    }
    state_->mono.resize(frames);
    toShorts(state_->sum.data(), 32768.0F / static_cast<float>(state_->channels), frames,
             state_->mono.data());
    return convert(state_->mono.data(), static_cast<int>(frames));
}

std::span<const std::int16_t> MonoResampler::finish() {
    return convert(nullptr, 0);
}

} // namespace sober
