#include "core/evidence/best_lag.h"

#include "core/evidence/fourier.h"

#include <algorithm>
#include <cmath>
#include <vector>

namespace sober {

double energyOf(std::span<const float> samples) {
    double sum = 0;
    for (const float sample : samples) {
        sum += static_cast<double>(sample * sample);
    }
    return sum;
}

Lag bestLag(std::span<const float> shorter, std::span<const float> longer, std::int64_t lead) {
    std::size_t length = 1;
    while (length < shorter.size() + longer.size()) {
        length *= 2;
    }
    ComplexFourier fourier(length);
    const auto spectrumOf = [&](std::span<const float> samples) {
        const auto input = fourier.input();
        std::ranges::fill(input, std::complex<float>(0, 0));
        // The steps between samples: low notes would otherwise drown where they lie.
        for (std::size_t i = 1; i < samples.size(); ++i) {
            input[i] = samples[i] - samples[i - 1];
        }
        const auto bins = fourier.transform();
        return std::vector<std::complex<float>>(bins.begin(), bins.end());
    };
    const auto a = spectrumOf(shorter);
    const auto b = spectrumOf(longer);
    const auto input = fourier.input();
    // A forward transform of the conjugate is the inverse one's conjugate.
    for (std::size_t k = 0; k < length; ++k) {
        input[k] = std::conj(std::conj(a[k]) * b[k]);
    }
    const auto correlation = fourier.transform();
    std::size_t best = 0;
    for (std::size_t at = 0; at + shorter.size() <= longer.size(); ++at) {
        if (correlation[at].real() > correlation[best].real()) {
            best = at;
        }
    }
    double shortEnergy = 0;
    double longEnergy = 0;
    for (std::size_t i = 1; i < shorter.size(); ++i) {
        const auto s = static_cast<double>(shorter[i] - shorter[i - 1]);
        const auto l = static_cast<double>(longer[best + i] - longer[best + i - 1]);
        shortEnergy += s * s;
        longEnergy += l * l;
    }
    const double scale = std::sqrt(shortEnergy * longEnergy) * static_cast<double>(length);
    return {static_cast<double>(static_cast<std::int64_t>(best) - lead),
            scale > 0 ? static_cast<double>(correlation[best].real()) / scale : 0};
}

} // namespace sober
