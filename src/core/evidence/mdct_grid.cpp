#include "core/evidence/mdct_grid.h"

#include "core/evidence/fourier.h"
#include "core/evidence/wide.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sober {
namespace {

constexpr double pi = std::numbers::pi;
constexpr std::size_t margin = 5; ///< bins beside those counted that the windows' terms reach
/// A transform is slid on from its neighbour so many times before it is made anew: rounding adds up.
constexpr std::size_t slides = 128;

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

/// ISO/IEC 13818-7: Kaiser-Bessel derived window.
std::vector<double> kbdWindow(std::size_t length, double alpha) {
    const std::size_t period = length / 2;
    std::vector<double> kernel(period + 1);
    for (std::size_t n = 0; n < kernel.size(); ++n) {
        const double x = 2 * static_cast<double>(n) / static_cast<double>(period) - 1;
        kernel[n] = bessel0(pi * alpha * std::sqrt(std::max(0.0, 1 - x * x)));
    }
    double total = 0;
    for (const double value : kernel) {
        total += value;
    }
    std::vector<double> window(length);
    double sum = 0;
    for (std::size_t n = 0; n < period; ++n) {
        sum += kernel[n];
        window[n] = window[length - 1 - n] = std::sqrt(sum / total);
    }
    return window;
}

/// Vorbis I specification, section 1.3.2.3.
std::vector<double> vorbisWindow(std::size_t length) {
    std::vector<double> window(length);
    for (std::size_t n = 0; n < length; ++n) {
        const double sine = std::sin(pi * (static_cast<double>(n) + 0.5) / static_cast<double>(length));
        window[n] = std::sin(pi / 2 * sine * sine);
    }
    return window;
}

/// One sample on: the oldest leaves, the newest comes, everything turns.
SOBER_WIDE void slideOn(float change, const float* twistRe, const float* twistIm, const float* turnRe,
                        const float* turnIm, std::size_t count, float* re, float* im) {
    for (std::size_t j = 0; j < count; ++j) {
        const float a = re[j] + change * twistRe[j];
        const float b = im[j] + change * twistIm[j];
        re[j] = turnRe[j] * a - turnIm[j] * b;
        im[j] = turnRe[j] * b + turnIm[j] * a;
    }
}

/// coefficient k = sin phi_k D_re - cos phi_k D_im, the differences weighted by the window's terms.
SOBER_WIDE void combine(const float* re, const float* im, const float* terms, std::size_t termCount,
                        const float* sines, const float* cosines, std::size_t bins, float* out) {
    constexpr std::size_t piece = 64;
    for (std::size_t first = 0; first < bins; first += piece) {
        float differenceRe[piece] = {};
        float differenceIm[piece] = {};
        const std::size_t now = bins - first < piece ? bins - first : piece;
        for (std::size_t m = 0; m < termCount; ++m) {
            const float term = terms[m];
            const float* reUp = re + first + m + 1;
            const float* reDown = re + first - m;
            const float* imUp = im + first + m + 1;
            const float* imDown = im + first - m;
            for (std::size_t k = 0; k < now; ++k) {
                differenceRe[k] += term * (reUp[k] - reDown[k]);
                differenceIm[k] += term * (imUp[k] - imDown[k]);
            }
        }
        for (std::size_t k = 0; k < now; ++k) {
            out[first + k] = sines[first + k] * differenceRe[k] - cosines[first + k] * differenceIm[k];
        }
    }
}

} // namespace

/// With u = n + 1/2 and a window of half-sines, the MDCT's coefficient k is
///   1/2 sum a_m (G(k+m+1) - G(k-m)),  G(j) = sin(phi_k) Re F(j) - cos(phi_k) Im F(j),
/// where F(j) = sum x[n] exp(-2 pi i u j / N) and phi_k = pi/2 (k + 1/2): one Fourier transform at each
/// position serves every window, and a sample later it is the same transform slid on.
struct MdctGrid::Slide {
    explicit Slide(const Shape& shape)
        : length(shape.length),
          lowest(shape.firstBin - margin),
          bins(shape.lastBin - shape.firstBin + 1),
          span(bins + 2 * margin + 1),
          fourier(length) {
        for (auto* values : {&twistRe, &twistIm, &turnRe, &turnIm}) {
            values->resize(span);
        }
        for (std::size_t j = 0; j < span; ++j) {
            const double angle = pi * static_cast<double>(lowest + j) / static_cast<double>(length);
            twistRe[j] = static_cast<float>(std::cos(angle));
            twistIm[j] = static_cast<float>(-std::sin(angle));
            turnRe[j] = static_cast<float>(std::cos(2 * angle));
            turnIm[j] = static_cast<float>(std::sin(2 * angle));
        }
        // sin and cos of phi_k are +-1/sqrt 2 in turn of four.
        const float scale = 0.5F * std::sqrt(2.0F / static_cast<float>(length / 2)) * 0.70710678F;
        for (std::size_t k = 0; k < bins; ++k) {
            const std::size_t turn = (shape.firstBin + k) % 4;
            sines.push_back(turn < 2 ? scale : -scale);
            cosines.push_back(turn == 0 || turn == 3 ? scale : -scale);
        }
        for (auto& part : parts) {
            part.resize(span);
        }
    }

    /// Both channels at once, as real and imaginary part of one transform.
    void begin(const float* left, const float* right) {
        const auto input = fourier.input();
        for (std::size_t n = 0; n < length; ++n) {
            input[n] = {left[n], right[n]};
        }
        const auto bin = fourier.transform();
        for (std::size_t j = 0; j < span; ++j) {
            const auto here = bin[lowest + j];
            const auto mirror = std::conj(bin[length - lowest - j]);
            const std::complex<float> twist(twistRe[j], twistIm[j]);
            const auto first = 0.5F * (here + mirror) * twist;
            const auto second = std::complex<float>(0, -0.5F) * (here - mirror) * twist;
            parts[0][j] = first.real();
            parts[1][j] = first.imag();
            parts[2][j] = second.real();
            parts[3][j] = second.imag();
        }
    }

    void on(float leftChange, float rightChange) {
        slideOn(leftChange, twistRe.data(), twistIm.data(), turnRe.data(), turnIm.data(), span,
                parts[0].data(), parts[1].data());
        slideOn(rightChange, twistRe.data(), twistIm.data(), turnRe.data(), turnIm.data(), span,
                parts[2].data(), parts[3].data());
    }

    void coefficients(std::size_t channel, const std::vector<float>& terms, float* out) const {
        combine(parts[2 * channel].data() + margin, parts[2 * channel + 1].data() + margin, terms.data(),
                terms.size(), sines.data(), cosines.data(), bins, out);
    }

    std::size_t length, lowest, bins, span;
    ComplexFourier fourier;
    std::vector<float> twistRe, twistIm, turnRe, turnIm, sines, cosines;
    std::array<std::vector<float>, 4> parts; ///< re and im of the left, re and im of the right
};

MdctGrid::MdctGrid(const Shape& shape, std::vector<Window> windows)
    : shape_(shape), windows_(std::move(windows)) {
    for (const auto& window : windows_) {
        for (const auto* channels : {"left/right", "middle/side"}) {
            counts_.emplace_back(window.codec, channels, shape_.length / 2);
        }
    }
}

MdctGrid MdctGrid::ofAacAndVorbis() {
    constexpr std::size_t length = 2048;
    return {{length, 190, 749, 3},
            {{"aac", {1.0F}},
             {"aac", expansion(kbdWindow(length, 4), 5)},
             {"vorbis", expansion(vorbisWindow(length), 4)}}};
}

MdctGrid MdctGrid::ofWma() {
    return {{4096, 380, 1499, 2}, {{"wma", {1.0F}}}};
}

MdctGrid MdctGrid::ofAc3() {
    constexpr std::size_t length = 512;
    return {{length, 48, 187, 12}, {{"ac3", expansion(kbdWindow(length, 5), 5)}}};
}

void MdctGrid::add(const TraceSegment& segment, std::size_t from, std::size_t to) {
    const std::size_t length = shape_.length;
    const std::size_t period = length / 2;
    Slide slide(shape_);
    std::array<std::vector<float>, 2> out{std::vector<float>(slide.bins), std::vector<float>(slide.bins)};
    for (std::size_t frame = from; frame < to; ++frame) {
        const std::size_t base =
            frame * (segment.left.size() - length - period) / shape_.frames / period * period;
        const float* left = segment.left.data() + base;
        const float* right = segment.right.data() + base;
        for (std::size_t position = 0; position < period; ++position) {
            if (position % slides == 0) {
                slide.begin(left + position, right + position);
            } else {
                slide.on(left[position + length - 1] - left[position - 1],
                         right[position + length - 1] - right[position - 1]);
            }
            const std::size_t place = positionInGrid(segment, base + position, period);
            for (std::size_t w = 0; w < windows_.size(); ++w) {
                for (std::size_t channel = 0; channel < 2; ++channel) {
                    slide.coefficients(channel, windows_[w].terms, out[channel].data());
                    counts_[2 * w].count(place, out[channel].data(), slide.bins);
                }
                counts_[2 * w + 1].countMixed(place, out[0].data(), out[1].data(), slide.bins);
            }
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * (to - from) * slide.bins;
    }
}

} // namespace sober
