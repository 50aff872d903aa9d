#include "core/evidence/celt_grid.h"

#include "core/evidence/fourier.h"

#include <cmath>
#include <numbers>

namespace sober {
namespace {

constexpr double pi = std::numbers::pi;
constexpr std::size_t length = 1920;
constexpr std::size_t period = length / 2;
constexpr std::size_t slope = 120;
constexpr std::size_t silent = (period - slope) / 2; ///< samples at either end that the window leaves out
constexpr float emphasis = 0.85F;
// 4.75 to 18.75 kHz, in bins of 25 Hz.
constexpr std::size_t firstBin = 190;
constexpr std::size_t bins = 560;

std::vector<float> emphasised(const std::vector<float>& samples) {
    std::vector<float> out(samples.size());
    float before = 0;
    for (std::size_t i = 0; i < samples.size(); ++i) {
        out[i] = samples[i] - emphasis * before;
        before = samples[i];
    }
    return out;
}

/// The window, turned by exp(-i pi n / N) so that a Fourier transform yields half bins.
std::vector<std::complex<float>> turnedWindow() {
    std::vector<std::complex<float>> window(length);
    for (std::size_t n = 0; n < length; ++n) {
        const std::size_t inward = std::min(n, length - 1 - n);
        double value = inward < silent ? 0 : 1;
        if (inward >= silent && inward < silent + slope) {
            const double sine = std::sin(pi / 2 * (static_cast<double>(inward - silent) + 0.5) / slope);
            value = std::sin(pi / 2 * sine * sine);
        }
        const double angle = -pi * static_cast<double>(n) / length;
        window[n] = {static_cast<float>(value * std::cos(angle)),
                     static_cast<float>(value * std::sin(angle))};
    }
    return window;
}

} // namespace

CeltGrid::CeltGrid() {
    for (const auto* channels : {"left/right", "middle/side"}) {
        counts_.emplace_back("opus", channels, period);
    }
}

/// coefficient k = Re(F(k + 1/2) exp(-i phi_k)), phi_k = 2 pi / N (1/2 + N/4)(k + 1/2), of both channels by
/// one complex transform.
void CeltGrid::add(const TraceSegment& segment, std::size_t from, std::size_t to) {
    const auto left = emphasised(segment.left);
    const auto right = emphasised(segment.right);
    const auto window = turnedWindow();
    std::vector<std::complex<float>> phase(bins);
    const auto scale = std::sqrt(2.0 / period);
    for (std::size_t k = 0; k < bins; ++k) {
        const double angle =
            -2 * pi / length * (0.5 + length / 4.0) * (static_cast<double>(firstBin + k) + 0.5);
        phase[k] = {static_cast<float>(scale * std::cos(angle)), static_cast<float>(scale * std::sin(angle))};
    }
    ComplexFourier fourier(length);
    std::array<std::vector<float>, 2> out{std::vector<float>(bins), std::vector<float>(bins)};
    for (std::size_t frame = from; frame < to; ++frame) {
        const std::size_t base = frame * (left.size() - length - period) / units();
        for (std::size_t position = 0; position < period; ++position) {
            const auto input = fourier.input();
            for (std::size_t n = silent; n < length - silent; ++n) {
                input[n] =
                    std::complex<float>(left[base + position + n], right[base + position + n]) * window[n];
            }
            std::fill_n(input.begin(), silent, 0.0F);
            std::fill_n(input.end() - silent, silent, 0.0F);
            const auto bin = fourier.transform();
            for (std::size_t k = 0; k < bins; ++k) {
                const auto here = bin[firstBin + k];
                const auto mirror = std::conj(bin[length - 1 - firstBin - k]);
                out[0][k] = (0.5F * (here + mirror) * phase[k]).real();
                out[1][k] = (std::complex<float>(0, -0.5F) * (here - mirror) * phase[k]).real();
            }
            const std::size_t place = positionInGrid(segment, base + position, period);
            countNearZero(out[0].data(), out[1].data(), bins, place, counts_[0], counts_[1]);
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * (to - from) * bins;
    }
}

} // namespace sober
