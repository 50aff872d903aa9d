#include "core/evidence/grid_counts.h"

#include "core/evidence/fourier.h"
#include "core/evidence/layer3_window.h"

#include <algorithm>
#include <cmath>
#include <numbers>

// The counting loops are compiled twice, the processor chooses: nothing is built for one machine only.
#if defined(__x86_64__)
#define SOBER_WIDE __attribute__((target_clones("avx512f", "avx2", "default")))
#else
#define SOBER_WIDE
#endif

namespace sober {
namespace {

constexpr double pi = std::numbers::pi;
constexpr float half = 0.70710678F;

void prepare(GridCounts& counts, std::string codec, std::string channels, std::size_t period) {
    counts.codec = std::move(codec);
    counts.channels = std::move(channels);
    counts.period = period;
    for (auto& row : counts.nearZero) {
        row.assign(period, 0.0F);
    }
}

SOBER_WIDE void countBelow(const float* values, std::size_t length, int* below) {
    for (std::size_t t = 0; t < traceThresholds.size(); ++t) {
        const float limit = traceThresholds[t];
        int sum = 0;
        for (std::size_t i = 0; i < length; ++i) {
            sum += std::abs(values[i]) < limit ? 1 : 0;
        }
        below[t] = sum;
    }
}

/// Counts the magnitudes below each threshold.
void countNearZero(GridCounts& counts, std::size_t position, const float* values, std::size_t length) {
    std::array<int, traceThresholds.size()> below{};
    countBelow(values, length, below.data());
    for (std::size_t t = 0; t < traceThresholds.size(); ++t) {
        counts.nearZero[t][position] += static_cast<float>(below[t]);
    }
}

/// Where in the recording's grid an offset within a segment lies, so that the segments agree.
std::size_t positionInGrid(const TraceSegment& segment, std::size_t offset, std::size_t period) {
    return (static_cast<std::size_t>(segment.start) + offset) % period;
}

constexpr std::size_t taps = 512;
constexpr std::size_t slots = 32; // samples between two outputs of the polyphase filter
constexpr std::size_t lines = 18; // of one granule and subband
constexpr std::size_t granules = 6;
constexpr std::size_t slotsNeeded = lines - 1 + lines * (granules - 1) + 2 * lines;

constexpr std::size_t layerBands = 24;

/// One output slot of the polyphase filter, all bands: `samples` ends with the newest.
SOBER_WIDE void filterSlot(const float* newest, const float* filter, float* row) {
    for (std::size_t n = 0; n < taps; ++n) {
        const float sample = newest[-static_cast<std::ptrdiff_t>(n)];
        const float* taken = filter + n * layerBands;
        for (std::size_t band = 0; band < layerBands; ++band) {
            row[band] += sample * taken[band];
        }
    }
}

/// The 36-point MDCT of all bands: `subbands` [slot][band] of 36 slots, `odd` the sign of each band in
/// odd slots, `out` [line][band].
SOBER_WIDE void transformGranule(const float* subbands, const float* odd, const float* matrix, float* out) {
    for (std::size_t i = 0; i < lines * layerBands; ++i) {
        out[i] = 0;
    }
    for (std::size_t n = 0; n < 2 * lines; ++n) {
        float turned[layerBands];
        for (std::size_t band = 0; band < layerBands; ++band) {
            turned[band] = subbands[n * layerBands + band] * (n % 2 == 1 ? odd[band] : 1.0F);
        }
        for (std::size_t line = 0; line < lines; ++line) {
            const float factor = matrix[n * lines + line];
            float* row = out + line * layerBands;
            for (std::size_t band = 0; band < layerBands; ++band) {
                row[band] += factor * turned[band];
            }
        }
    }
}

/// Alias reduction, ISO/IEC 11172-3 table 3-B.9.
constexpr std::array<double, 8> butterflies{-0.6, -0.535, -0.33, -0.185, -0.095, -0.041, -0.0142, -0.0037};

} // namespace

LayerIIIGrid::LayerIIIGrid() : filter_(taps * bands), transform_(2 * lines * lines) {
    prepare(counts_[0], "mp3", "left/right", slots * lines);
    prepare(counts_[1], "mp3", "middle/side", slots * lines);
    for (std::size_t band = 0; band < bands; ++band) {
        double norm = 0;
        std::vector<double> row(taps);
        for (std::size_t n = 0; n < taps; ++n) {
            const double k = static_cast<double>(firstBand + band);
            // The window's table carries the sign of each run of 64, so that the cosine repeats.
            row[n] = layerIIIWindow[n] * std::cos((2 * k + 1) * (static_cast<double>(n % 64) - 16) * pi / 64);
            norm += row[n] * row[n];
        }
        for (std::size_t n = 0; n < taps; ++n) {
            filter_[n * bands + band] = static_cast<float>(row[n] / std::sqrt(norm));
        }
    }
    for (std::size_t n = 0; n < 2 * lines; ++n) {
        const double window = std::sin(pi / 36 * (static_cast<double>(n) + 0.5));
        for (std::size_t i = 0; i < lines; ++i) {
            transform_[n * lines + i] = static_cast<float>(
                std::sqrt(2.0 / lines) * window *
                std::cos(pi / 72 * (2 * static_cast<double>(n) + 19) * (2 * static_cast<double>(i) + 1)));
        }
    }
}

/// Subband samples [slot][band] for one phase. The standard runs its buffer backwards: x[0] is the
/// newest sample.
void LayerIIIGrid::polyphase(const std::vector<float>& samples, std::size_t phase,
                             std::vector<float>& out) const {
    out.assign(slotsNeeded * bands, 0.0F);
    for (std::size_t slot = 0; slot < slotsNeeded; ++slot) {
        const float* newest = samples.data() + phase + slot * slots + taps - 1;
        filterSlot(newest, filter_.data(), out.data() + slot * bands);
    }
}

void LayerIIIGrid::add(const TraceSegment& segment) {
    static_assert((slotsNeeded - 1) * slots + taps - 1 + slots <= traceBlock * traceBlocks);
    std::array<std::vector<float>, 2> subbands;
    // [channel][line * bands + band]
    std::array<std::vector<float>, 2> spectrum{std::vector<float>(lines * bands),
                                               std::vector<float>(lines * bands)};
    std::vector<float> mixed(lines * bands);
    // Odd slots of odd subbands are inverted in frequency.
    std::array<float, bands> oddSigns{};
    for (std::size_t band = 0; band < bands; ++band) {
        oddSigns[band] = (firstBand + band) % 2 == 1 ? -1.0F : 1.0F;
    }
    static_assert(bands == layerBands);
    for (std::size_t phase = 0; phase < slots; ++phase) {
        polyphase(segment.left, phase, subbands[0]);
        polyphase(segment.right, phase, subbands[1]);
        for (std::size_t alignment = 0; alignment < lines; ++alignment) {
            const std::size_t position = positionInGrid(segment, alignment * slots + phase, slots * lines);
            for (std::size_t granule = 0; granule < granules; ++granule) {
                for (std::size_t channel = 0; channel < 2; ++channel) {
                    auto& out = spectrum[channel];
                    const float* in = subbands[channel].data() + (alignment + granule * lines) * bands;
                    transformGranule(in, oddSigns.data(), transform_.data(), out.data());
                    for (std::size_t i = 0; i < butterflies.size(); ++i) {
                        const double c = butterflies[i];
                        const auto cs = static_cast<float>(1 / std::sqrt(1 + c * c));
                        const auto ca = static_cast<float>(c / std::sqrt(1 + c * c));
                        float* upper = out.data() + (lines - 1 - i) * bands;
                        float* lower = out.data() + i * bands;
                        for (std::size_t band = 0; band + 1 < bands; ++band) {
                            const float a = upper[band];
                            const float b = lower[band + 1];
                            upper[band] = a * cs + b * ca;
                            lower[band + 1] = b * cs - a * ca;
                        }
                    }
                    countNearZero(counts_[0], position, out.data(), out.size());
                }
                for (const float sign : {1.0F, -1.0F}) {
                    for (std::size_t i = 0; i < mixed.size(); ++i) {
                        mixed[i] = half * (spectrum[0][i] + sign * spectrum[1][i]);
                    }
                    countNearZero(counts_[1], position, mixed.data(), mixed.size());
                }
            }
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * granules * lines * bands;
    }
}

namespace {

constexpr std::size_t mdctLength = 2048;
constexpr std::size_t mdctPeriod = mdctLength / 2;
constexpr std::size_t mdctFrames = 3;
constexpr std::size_t firstBin = 190;
constexpr std::size_t lastBin = 749;
constexpr std::size_t bins = lastBin - firstBin + 1;

/// The first terms of a window's expansion in sin((2m+1) pi (n + 1/2) / N), which are orthogonal.
std::vector<float> expansion(const std::vector<double>& window, std::size_t terms) {
    std::vector<float> result;
    const auto length = static_cast<double>(window.size());
    for (std::size_t m = 0; m < terms; ++m) {
        double sum = 0;
        for (std::size_t n = 0; n < window.size(); ++n) {
            sum += window[n] *
                   std::sin((2 * static_cast<double>(m) + 1) * pi * (static_cast<double>(n) + 0.5) / length);
        }
        result.push_back(static_cast<float>(2 / length * sum));
    }
    return result;
}

/// Modified Bessel function of the first kind, order 0, by its power series.
double bessel0(double x) {
    double sum = 1;
    double term = 1;
    for (int k = 1; k < 50; ++k) {
        term *= (x / (2 * k)) * (x / (2 * k));
        sum += term;
    }
    return sum;
}

/// ISO/IEC 13818-7: Kaiser-Bessel derived window, alpha 4 for long blocks.
std::vector<double> kbdWindow(double alpha) {
    std::vector<double> kernel(mdctPeriod + 1);
    for (std::size_t n = 0; n < kernel.size(); ++n) {
        const double x = 2 * static_cast<double>(n) / mdctPeriod - 1;
        kernel[n] = bessel0(pi * alpha * std::sqrt(std::max(0.0, 1 - x * x)));
    }
    double total = 0;
    for (const double value : kernel) {
        total += value;
    }
    std::vector<double> window(mdctLength);
    double sum = 0;
    for (std::size_t n = 0; n < mdctPeriod; ++n) {
        sum += kernel[n];
        window[n] = window[mdctLength - 1 - n] = std::sqrt(sum / total);
    }
    return window;
}

/// Vorbis I specification, section 1.3.2.3.
std::vector<double> vorbisWindow() {
    std::vector<double> window(mdctLength);
    for (std::size_t n = 0; n < mdctLength; ++n) {
        const double sine = std::sin(pi * (static_cast<double>(n) + 0.5) / mdctLength);
        window[n] = std::sin(pi / 2 * sine * sine);
    }
    return window;
}

} // namespace

MdctGrid::MdctGrid() {
    windows_ = {
        {"aac", {1.0F}}, {"aac", expansion(kbdWindow(4), 5)}, {"vorbis", expansion(vorbisWindow(), 4)}};
    for (const auto& window : windows_) {
        for (const auto* channels : {"left/right", "middle/side"}) {
            prepare(counts_.emplace_back(), window.codec, channels, mdctPeriod);
        }
    }
}

namespace {

/// coefficient k = scale (sin phi_k D_re - cos phi_k D_im), the differences weighted by the window's terms.
SOBER_WIDE void combine(const float* re, const float* im, const float* terms, std::size_t termCount,
                        const float* sines, const float* cosines, float* out) {
    float differenceRe[bins] = {};
    float differenceIm[bins] = {};
    for (std::size_t m = 0; m < termCount; ++m) {
        const float term = terms[m];
        const float* reUp = re + m + 1;
        const float* reDown = re - m;
        const float* imUp = im + m + 1;
        const float* imDown = im - m;
        for (std::size_t k = 0; k < bins; ++k) {
            differenceRe[k] += term * (reUp[k] - reDown[k]);
            differenceIm[k] += term * (imUp[k] - imDown[k]);
        }
    }
    for (std::size_t k = 0; k < bins; ++k) {
        out[k] = sines[k] * differenceRe[k] - cosines[k] * differenceIm[k];
    }
}

} // namespace

/// With u = n + 1/2 and a window of half-sines, the MDCT's coefficient k is
///   1/2 sum a_m (G(k+m+1) - G(k-m)),  G(j) = sin(phi_k) Re F(j) - cos(phi_k) Im F(j),
/// where F(j) = sum x[n] exp(-2 pi i u j / N) and phi_k = pi/2 (k + 1/2): one Fourier transform at each
/// position serves every window, and both channels at once as real and imaginary part.
void MdctGrid::add(const TraceSegment& segment) {
    constexpr std::size_t margin = 5;
    constexpr std::size_t lowest = firstBin - margin;
    constexpr std::size_t span = bins + 2 * margin + 1;
    ComplexFourier fourier(mdctLength);
    std::array<std::array<float, span>, 4> parts{}; // re and im of the left, re and im of the right
    std::array<std::vector<float>, 2> out{std::vector<float>(bins), std::vector<float>(bins)};
    std::vector<float> mixed(bins);
    std::vector<std::complex<float>> twist(span);
    for (std::size_t j = 0; j < span; ++j) {
        twist[j] = std::polar(1.0F, static_cast<float>(-pi * static_cast<double>(lowest + j) / mdctLength));
    }
    // sin and cos of phi_k are +-1/sqrt 2 in turn of four.
    const float scale = 0.5F * std::sqrt(2.0F / mdctPeriod) * half;
    std::array<float, bins> sines{};
    std::array<float, bins> cosines{};
    for (std::size_t k = 0; k < bins; ++k) {
        const std::size_t turn = (firstBin + k) % 4;
        sines[k] = turn < 2 ? scale : -scale;
        cosines[k] = turn == 0 || turn == 3 ? scale : -scale;
    }
    const std::size_t length = segment.left.size();
    for (std::size_t frame = 0; frame < mdctFrames; ++frame) {
        const std::size_t base =
            frame * (length - mdctLength - mdctPeriod) / mdctFrames / mdctPeriod * mdctPeriod;
        for (std::size_t position = 0; position < mdctPeriod; ++position) {
            const auto input = fourier.input();
            for (std::size_t n = 0; n < mdctLength; ++n) {
                input[n] = {segment.left[base + position + n], segment.right[base + position + n]};
            }
            const auto bin = fourier.transform();
            for (std::size_t j = 0; j < span; ++j) {
                const auto here = bin[lowest + j];
                const auto mirror = std::conj(bin[mdctLength - lowest - j]);
                const auto left = 0.5F * (here + mirror) * twist[j];
                const auto right = std::complex<float>(0, -0.5F) * (here - mirror) * twist[j];
                parts[0][j] = left.real();
                parts[1][j] = left.imag();
                parts[2][j] = right.real();
                parts[3][j] = right.imag();
            }
            const std::size_t place = positionInGrid(segment, position, mdctPeriod);
            for (std::size_t w = 0; w < windows_.size(); ++w) {
                const auto& terms = windows_[w].terms;
                for (std::size_t channel = 0; channel < 2; ++channel) {
                    combine(parts[2 * channel].data() + margin, parts[2 * channel + 1].data() + margin,
                            terms.data(), terms.size(), sines.data(), cosines.data(), out[channel].data());
                    countNearZero(counts_[2 * w], place, out[channel].data(), bins);
                }
                for (const float sign : {1.0F, -1.0F}) {
                    for (std::size_t k = 0; k < bins; ++k) {
                        mixed[k] = half * (out[0][k] + sign * out[1][k]);
                    }
                    countNearZero(counts_[2 * w + 1], place, mixed.data(), bins);
                }
            }
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * mdctFrames * bins;
    }
}

} // namespace sober
