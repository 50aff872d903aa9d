#include "core/evidence/held_samples.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::size_t window = 32;        // samples
constexpr double shortestDropout = 0.003; // seconds
constexpr double shortestStuck = 0.02;    // seconds
constexpr float soundEdge = 0.01F;        // -40 dBFS: what breaks off here was sound
constexpr float dcOffset = 0.001F;        // below it a steady value is silence
constexpr std::size_t most = 100;

/// True where all samples are alike; three of them tell in nearly every case.
bool standsStill(std::span<const float> samples) {
    const float value = samples.front();
    return samples.back() == value && samples[samples.size() / 2] == value &&
           std::ranges::all_of(samples, [value](float sample) { return sample == value; });
}

float peakOf(std::span<const float> samples) {
    float peak = 0;
    for (const float sample : samples) {
        peak = std::max(peak, std::abs(sample));
    }
    return peak;
}

} // namespace

void HeldSamplesPass::begin(const SampleFormat& format) {
    format_ = format;
    value_.assign(static_cast<std::size_t>(format.channels), 0);
}

void HeldSamplesPass::take(const DecodedBlock& block) {
    for (std::size_t first = 0; first < block.frames; first += window) {
        takeWindow(block, first, std::min(window, block.frames - first));
    }
    const auto tail = std::min(window, block.frames);
    lastPeak_ = 0;
    for (std::size_t channel = 0; channel < value_.size(); ++channel) {
        lastPeak_ = std::max(lastPeak_, peakOf(block.channel(channel).last(tail)));
    }
}

void HeldSamplesPass::takeWindow(const DecodedBlock& block, std::size_t first, std::size_t length) {
    bool still = true;
    for (std::size_t channel = 0; channel < value_.size() && still; ++channel) {
        const auto samples = block.channel(channel).subspan(first, length);
        still = standsStill(samples) && (runFrames_ == 0 || samples.front() == value_[channel]);
    }
    if (still && runFrames_ == 0) {
        runBegan_ = frames_;
        before_ = lastPeak_;
        if (first > 0) {
            before_ = 0;
            const auto from = first - std::min(window, first);
            for (std::size_t channel = 0; channel < value_.size(); ++channel) {
                before_ = std::max(before_, peakOf(block.channel(channel).subspan(from, first - from)));
            }
        }
        for (std::size_t channel = 0; channel < value_.size(); ++channel) {
            value_[channel] = block.channel(channel)[first];
        }
    }
    if (still) {
        runFrames_ += static_cast<std::int64_t>(length);
    } else if (runFrames_ > 0) {
        float after = 0;
        for (std::size_t channel = 0; channel < value_.size(); ++channel) {
            after = std::max(after, peakOf(block.channel(channel).subspan(first, length)));
        }
        endRun(after);
    }
    frames_ += static_cast<std::int64_t>(length);
}

void HeldSamplesPass::endRun(float after) {
    const double seconds = static_cast<double>(std::exchange(runFrames_, 0)) / format_.sampleRate;
    const float value = peakOf(value_);
    const bool silent = value < dcOffset;
    const bool abrupt = runBegan_ > 0 && before_ > soundEdge && after > soundEdge;
    if (!abrupt || seconds < (silent ? shortestDropout : shortestStuck) || found_.size() == most) {
        return;
    }
    found_.push_back({silent ? "dropout" : "stuck", static_cast<double>(runBegan_) / format_.sampleRate,
                      fmt::format("{:.0f} ms {}", seconds * 1000,
                                  silent ? "of nothing in the midst of sound" : "that stand at one value")});
}

} // namespace sober
