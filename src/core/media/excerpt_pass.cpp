#include "core/media/excerpt_pass.h"

#include "core/media/encoding_sink.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::size_t peaksEachSecond = 20;

} // namespace

void ExcerptPass::begin(const SampleFormat& format) {
    format_ = format;
    format_.sampleRate = std::max(format.sampleRate, static_cast<int>(peaksEachSecond));
    channels_ = static_cast<std::size_t>(std::clamp(format.channels, 1, 2));
    now_ = std::make_shared<Second>(channels_);
}

void ExcerptPass::take(const DecodedBlock& block) {
    if (block.frames == 0 || !now_) {
        return;
    }
    const auto rate = static_cast<std::size_t>(format_.sampleRate);
    const auto sources = block.floats.size() / block.frames;
    for (std::size_t i = 0; i < block.frames; ++i) {
        std::array<float, 2> frame{};
        for (std::size_t channel = 0; channel < sources; ++channel) {
            frame[channel % channels_] += block.floats[channel * block.frames + i];
        }
        for (std::size_t channel = 0; channel < channels_; ++channel) {
            // Channels that share one count alike.
            const auto sharing = (sources + channels_ - 1 - channel) / channels_;
            const float sample = frame[channel] / static_cast<float>(std::max<std::size_t>(sharing, 1));
            (*now_)[channel].push_back(sample);
            energy_ += static_cast<double>(sample) * sample;
            peak_ = std::max(peak_, std::abs(sample));
        }
        ++frames_;
        if (++inPeak_ >= rate / peaksEachSecond) {
            peaks_.push_back(static_cast<std::uint8_t>(std::lround(std::min(peak_, 1.0F) * 255)));
            peak_ = 0;
            inPeak_ = 0;
        }
        if (now_->front().size() == rate) {
            endSecond();
        }
    }
}

void ExcerptPass::endSecond() {
    last_.push_back(std::exchange(now_, std::make_shared<Second>(channels_)));
    if (last_.size() > static_cast<std::size_t>(Excerpt::usualSeconds)) {
        last_.pop_front();
    }
    if (stretch_.take(std::exchange(energy_, 0))) {
        best_.assign(last_.begin(), last_.end());
    }
}

Excerpt ExcerptPass::finish(const BytePath& path) {
    Excerpt excerpt;
    excerpt.whole = static_cast<double>(frames_) / std::max(format_.sampleRate, 1);
    if (best_.empty() && now_) { // shorter than a stretch
        best_.assign(last_.begin(), last_.end());
        best_.push_back(now_);
    }
    if (inPeak_ > 0) {
        peaks_.push_back(static_cast<std::uint8_t>(std::lround(std::min(peak_, 1.0F) * 255)));
    }
    excerpt.begins = static_cast<double>(stretch_.begins());
    excerpt.outline = outlineOf(peaks_, Excerpt::mostColumns);
    excerpt.sound = encoded(path, excerpt.seconds);
    return excerpt;
}

std::string ExcerptPass::encoded(const BytePath& path, double& seconds) const {
    std::string bytes;
    if (best_.empty()) {
        return bytes;
    }
    EncodingForm form;
    form.codec = EncodingForm::Codec::opus;
    form.bitrate = Excerpt::bitrate;
    EncodingSink sink(path, bytes, form);
    auto format = format_;
    format.channels = static_cast<int>(channels_);
    format.bitDepth = 0;
    sink.begin(format);
    std::vector<float> planar;
    for (const auto& second : best_) {
        planar.clear();
        for (const auto& channel : *second) {
            planar.insert(planar.end(), channel.begin(), channel.end());
        }
        sink.take({planar, {}, second->front().size()});
    }
    if (!sink.finish()) {
        return {};
    }
    seconds = sink.seconds();
    return bytes;
}

std::vector<std::uint8_t> outlineOf(const std::vector<std::uint8_t>& peaks, std::size_t columns) {
    std::vector<std::uint8_t> outline(std::min(columns, peaks.size()));
    for (std::size_t i = 0; i < peaks.size(); ++i) {
        auto& column = outline[i * outline.size() / peaks.size()];
        column = std::max(column, peaks[i]);
    }
    return outline;
}

} // namespace sober
