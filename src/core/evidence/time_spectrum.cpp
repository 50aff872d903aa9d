#include "core/evidence/time_spectrum.h"

#include "core/evidence/fourier.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sober {
namespace {

constexpr std::size_t frameLength = 2 * TimeSpectrum::rows;

} // namespace

struct TimeSpectrumPass::State {
    explicit State(std::size_t columns) : mostColumns(std::max<std::size_t>(columns, 1)) {}

    void endFrame() {
        const auto input = fourier.input();
        for (std::size_t i = 0; i < frameLength; ++i) {
            input[i] = pending[i] * window[i];
        }
        const auto bins = fourier.transform();
        if (sums.empty() || framesInColumn == framesEach) {
            if (sums.size() == mostColumns * TimeSpectrum::rows) {
                halve();
            }
            sums.resize(sums.size() + TimeSpectrum::rows);
            framesInColumn = 0;
        }
        double* column = sums.data() + sums.size() - TimeSpectrum::rows;
        for (std::size_t row = 0; row < TimeSpectrum::rows; ++row) {
            column[row] += static_cast<double>(std::norm(bins[row]) * scale);
        }
        ++framesInColumn;
        filled = 0;
    }

    /// Two columns become one, so that any length finds room.
    void halve() {
        const std::size_t columns = sums.size() / TimeSpectrum::rows / 2;
        for (std::size_t column = 0; column < columns; ++column) {
            for (std::size_t row = 0; row < TimeSpectrum::rows; ++row) {
                sums[column * TimeSpectrum::rows + row] = sums[2 * column * TimeSpectrum::rows + row] +
                                                          sums[(2 * column + 1) * TimeSpectrum::rows + row];
            }
        }
        sums.resize(columns * TimeSpectrum::rows);
        framesEach *= 2;
    }

    std::size_t mostColumns;
    SampleFormat format;
    RealFourier fourier{frameLength};
    std::array<float, frameLength> window{};
    float scale = 0;
    std::array<float, frameLength> pending{};
    std::size_t filled = 0;
    std::vector<double> sums; ///< of the power, [column][row]
    std::size_t framesEach = 1;
    std::size_t framesInColumn = 0;
    std::int64_t frames = 0;
};

TimeSpectrumPass::TimeSpectrumPass(std::size_t mostColumns)
    : state_(std::make_unique<State>(mostColumns + mostColumns % 2)) {}
TimeSpectrumPass::~TimeSpectrumPass() = default;

void TimeSpectrumPass::begin(const SampleFormat& format) {
    state_->format = format;
    float energy = 0;
    for (std::size_t i = 0; i < frameLength; ++i) {
        state_->window[i] = 0.5F - 0.5F * std::cos(2 * std::numbers::pi_v<float> * static_cast<float>(i) /
                                                   static_cast<float>(frameLength));
        energy += state_->window[i] * state_->window[i];
    }
    constexpr float toSteps = 32768;
    state_->scale = toSteps * toSteps / energy;
}

void TimeSpectrumPass::take(const DecodedBlock& block) {
    auto& state = *state_;
    const auto channels = static_cast<std::size_t>(state.format.channels);
    for (std::size_t frame = 0; frame < block.frames; ++frame) {
        float sum = 0;
        for (std::size_t channel = 0; channel < channels; ++channel) {
            sum += block.floats[channel * block.frames + frame];
        }
        state.pending[state.filled++] = sum / static_cast<float>(channels);
        if (state.filled == frameLength) {
            state.endFrame();
        }
    }
    state.frames += static_cast<std::int64_t>(block.frames);
}

TimeSpectrum TimeSpectrumPass::finish() const {
    const auto& state = *state_;
    TimeSpectrum picture;
    if (state.format.sampleRate <= 0) {
        return picture;
    }
    picture.columns = state.sums.size() / TimeSpectrum::rows;
    picture.seconds = static_cast<double>(state.frames) / state.format.sampleRate;
    picture.highest = state.format.sampleRate / 2.0;
    picture.levels.resize(state.sums.size());
    for (std::size_t i = 0; i < state.sums.size(); ++i) {
        const bool last = i / TimeSpectrum::rows + 1 == picture.columns;
        const auto frames = static_cast<double>(last ? state.framesInColumn : state.framesEach);
        picture.levels[i] = static_cast<float>(10 * std::log10(state.sums[i] / frames + 1e-6));
    }
    return picture;
}

} // namespace sober
