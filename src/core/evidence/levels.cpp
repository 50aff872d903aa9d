#include "core/evidence/levels.h"

#include "core/base/wide.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <utility>

namespace sober {
namespace {

constexpr int shortestClip = 3; // samples in a row; common practice, no source
constexpr double silence = -80; // dBFS

struct PeakAndEnergy {
    float peak = 0;
    float energy = 0;
};

SOBER_WIDE PeakAndEnergy peakAndEnergy(const float* samples, std::size_t length) {
    constexpr std::size_t lanes = 16;
    Sixteen highest{};
    Sixteen lowest{};
    Sixteen energies{};
    const std::size_t whole = length / lanes * lanes;
    for (std::size_t i = 0; i < whole; i += lanes) {
        const Sixteen now = SOBER_SIXTEEN_AT(samples + i);
        highest = now > highest ? now : highest;
        lowest = now < lowest ? now : lowest;
        energies += now * now;
    }
    PeakAndEnergy both;
    for (std::size_t lane = 0; lane < lanes; ++lane) {
        both.peak = std::max({both.peak, highest[lane], -lowest[lane]});
        both.energy += energies[lane];
    }
    for (std::size_t i = whole; i < length; ++i) {
        both.peak = std::max(both.peak, std::abs(samples[i]));
        both.energy += samples[i] * samples[i];
    }
    return both;
}

SOBER_WIDE std::uint32_t bitsIn(const std::int32_t* samples, std::size_t length) {
    std::uint32_t bits = 0;
    for (std::size_t i = 0; i < length; ++i) {
        bits |= static_cast<std::uint32_t>(samples[i]);
    }
    return bits;
}

double decibels(double amplitude) {
    return amplitude > 0 ? 20 * std::log10(amplitude) : -999;
}

} // namespace

void LevelPass::begin(const SampleFormat& format) {
    format_ = format;
    run_.assign(static_cast<std::size_t>(format.channels), 0);
}

void LevelPass::take(const DecodedBlock& block) {
    const auto channels = static_cast<std::size_t>(format_.channels);
    // The largest positive integer sample lies one step below full scale.
    const float full = format_.bitDepth > 0 ? 1.0F - std::ldexp(1.0F, 1 - format_.bitDepth) : 1.0F;
    const auto [peak, energy] = peakAndEnergy(block.floats.data(), block.floats.size());
    peak_ = std::max(peak_, peak);
    sumOfSquares_ += static_cast<double>(energy);
    samples_ += static_cast<std::int64_t>(block.floats.size());
    usedBits_ |= bitsIn(block.integers.data(), block.integers.size());
    if (channels == 2 && identical_) {
        identical_ = std::ranges::equal(block.channel(0), block.channel(1));
    }
    const auto began = std::exchange(frames_, frames_ + static_cast<std::int64_t>(block.frames));
    if (peak < full) {
        std::ranges::fill(run_, 0);
        return;
    }
    for (std::size_t channel = 0; channel < channels; ++channel) {
        int& run = run_[channel];
        const auto samples = block.channel(channel);
        for (std::size_t i = 0; i < samples.size(); ++i) {
            if (std::abs(samples[i]) < full) {
                run = 0;
            } else if (++run >= shortestClip) {
                firstClip_ = clipped_ == 0 ? began + static_cast<std::int64_t>(i) : firstClip_;
                clipped_ += run == shortestClip ? shortestClip : 1;
            }
        }
    }
}

Levels LevelPass::finish() const {
    Levels levels;
    levels.peak = decibels(static_cast<double>(peak_));
    levels.rms = samples_ > 0 ? decibels(std::sqrt(sumOfSquares_ / static_cast<double>(samples_))) : -999;
    levels.clipped = clipped_;
    levels.clippedAt = format_.sampleRate > 0 ? static_cast<double>(firstClip_) / format_.sampleRate : 0;
    levels.silent = levels.peak < silence;
    levels.identicalChannels = format_.channels == 2 && identical_ && !levels.silent;
    if (format_.bitDepth > 0) {
        const int unused = usedBits_ != 0 ? std::countr_zero(usedBits_) : format_.bitDepth;
        levels.effectiveBitDepth = std::max(0, format_.bitDepth - unused);
    }
    return levels;
}

} // namespace sober
