#include "core/evidence/levels.h"

#include <algorithm>
#include <bit>
#include <cmath>

namespace sober {
namespace {

constexpr int shortestClip = 3; // samples in a row; common practice, no source
constexpr double silence = -80; // dBFS

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
    float sum = 0;
    for (std::size_t i = 0; i < block.floats.size(); ++i) {
        const float sample = std::abs(block.floats[i]);
        sum += sample * sample;
        peak_ = std::max(peak_, sample);
        int& run = run_[i % channels];
        if (sample < full) {
            run = 0;
        } else if (++run >= shortestClip) {
            clipped_ += run == shortestClip ? shortestClip : 1;
        }
    }
    sumOfSquares_ += static_cast<double>(sum);
    samples_ += static_cast<std::int64_t>(block.floats.size());
    for (const auto sample : block.integers) {
        usedBits_ |= static_cast<std::uint32_t>(sample);
    }
    if (channels == 2 && identical_) {
        for (std::size_t i = 0; i + 1 < block.floats.size() && identical_; i += 2) {
            identical_ = block.floats[i] == block.floats[i + 1];
        }
    }
}

Levels LevelPass::finish() const {
    Levels levels;
    levels.peak = decibels(static_cast<double>(peak_));
    levels.rms = samples_ > 0 ? decibels(std::sqrt(sumOfSquares_ / static_cast<double>(samples_))) : -999;
    levels.clipped = clipped_;
    levels.silent = levels.peak < silence;
    levels.identicalChannels = format_.channels == 2 && identical_ && !levels.silent;
    if (format_.bitDepth > 0) {
        const int unused = usedBits_ != 0 ? std::countr_zero(usedBits_) : format_.bitDepth;
        levels.effectiveBitDepth = std::max(0, format_.bitDepth - unused);
    }
    return levels;
}

} // namespace sober
