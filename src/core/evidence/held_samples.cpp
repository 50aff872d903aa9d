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
constexpr std::size_t mostAlone = 8; // more in one channel are the music's own

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
    const auto channels = static_cast<std::size_t>(format.channels);
    value_.assign(channels, 0);
    still_.assign(channels, false);
    lastPeak_.assign(channels, 0);
    runs_.assign(1, Run{0, channels});
    for (std::size_t channel = 0; channels > 1 && channel < channels; ++channel) {
        runs_.push_back({channel, channel + 1});
    }
}

void HeldSamplesPass::take(const DecodedBlock& block) {
    for (std::size_t first = 0; first < block.frames; first += window) {
        takeWindow(block, first, std::min(window, block.frames - first));
    }
    for (std::size_t channel = 0; channel < value_.size(); ++channel) {
        lastPeak_[channel] = peakOf(block.channel(channel).last(std::min(window, block.frames)));
    }
}

float HeldSamplesPass::peakBefore(const Run& run, const DecodedBlock& block, std::size_t first) const {
    const auto from = first - std::min(window, first);
    float peak = 0;
    for (auto channel = run.first; channel < run.past; ++channel) {
        peak = std::max(peak, first > 0 ? peakOf(block.channel(channel).subspan(from, first - from))
                                        : lastPeak_[channel]);
    }
    return peak;
}

void HeldSamplesPass::takeWindow(const DecodedBlock& block, std::size_t first, std::size_t length) {
    bool any = false;
    bool all = true;
    for (std::size_t channel = 0; channel < value_.size(); ++channel) {
        const auto samples = block.channel(channel).subspan(first, length);
        const bool stands = standsStill(samples);
        still_[channel] = stands && (!still_[channel] || samples.front() == value_[channel]);
        if (stands) {
            value_[channel] = samples.front();
        }
        any = any || stands;
        all = all && stands;
    }
    for (auto& run : runs_) {
        if (!any && run.frames == 0) {
            continue;
        }
        bool still = true;
        for (auto channel = run.first; channel < run.past && still; ++channel) {
            still = still_[channel];
        }
        if (still && run.frames == 0) {
            run.began = frames_;
            run.value = 0;
            for (auto channel = run.first; channel < run.past; ++channel) {
                run.value = std::max(run.value, std::abs(value_[channel]));
            }
            run.before = peakBefore(run, block, first);
            run.shared = false;
        }
        if (still) {
            run.frames += static_cast<std::int64_t>(length);
            run.shared = run.shared || all;
        } else if (run.frames > 0) {
            float after = 0;
            for (auto channel = run.first; channel < run.past; ++channel) {
                after = std::max(after, peakOf(block.channel(channel).subspan(first, length)));
            }
            endRun(run, after);
        }
    }
    frames_ += static_cast<std::int64_t>(length);
}

void HeldSamplesPass::endRun(Run& run, float after) {
    const double seconds = static_cast<double>(std::exchange(run.frames, 0)) / format_.sampleRate;
    const bool silent = run.value < dcOffset;
    const bool abrupt = run.began > 0 && run.before > soundEdge && after > soundEdge;
    auto& found = isAlone(run) ? alone_ : found_;
    if (!abrupt || run.shared != !isAlone(run) || seconds < (silent ? shortestDropout : shortestStuck) ||
        found.size() == most) {
        return;
    }
    found.push_back(
        {silent ? "dropout" : "stuck", static_cast<double>(run.began) / format_.sampleRate,
         fmt::format("{:.0f} ms {}{}", seconds * 1000,
                     silent ? "of nothing in the midst of sound" : "that stand at one value",
                     !isAlone(run)       ? std::string()
                     : value_.size() > 2 ? fmt::format(", in channel {} alone", run.first + 1)
                                         : std::string(run.first == 0 ? ", in the left channel alone"
                                                                      : ", in the right channel alone"))});
}

std::vector<DecodeProblem> HeldSamplesPass::finish() const {
    auto found = found_;
    if (alone_.size() <= mostAlone) {
        found.insert(found.end(), alone_.begin(), alone_.end());
        std::ranges::stable_sort(found, {}, &DecodeProblem::at);
    }
    return found;
}

} // namespace sober
