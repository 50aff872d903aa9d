#include "core/evidence/mdct_grid.h"

#include "core/base/wide.h"
#include "core/evidence/fourier.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sober {
namespace {

constexpr double pi = std::numbers::pi;
constexpr std::size_t margin = 5; ///< bins beside those counted that the windows' terms reach
/// A transform is slid on from its neighbour so many times before it is made anew: rounding adds up.
constexpr std::size_t slides = 128;
constexpr std::size_t sixteen = 16;
constexpr std::size_t mostTerms = 5;

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

/// The first terms of up to three windows' coefficients: of the pairs' sums that belong to them.
struct Weights {
    float first = 0;
    std::array<float, mostTerms - 1> rest{};
    bool plain = true; ///< nothing but the first
};

/// coefficient k = sum w_m P_m(k), P_m(k) = A(k+m+1) + B(k-m), where A and B are imaginary and real part for
/// even m, real and imaginary for odd. Sixteen bins at a time, for all windows: `out` [window][stride].
SOBER_WIDE void combine(const float* re, const float* im, const Weights* weights, std::size_t windows,
                        std::size_t bins, std::size_t stride, float* out) {
    for (std::size_t k = 0; k < bins; k += sixteen) {
        const Sixteen p0 = SOBER_SIXTEEN_AT(im + k + 1) + SOBER_SIXTEEN_AT(re + k);
        const Sixteen p1 = SOBER_SIXTEEN_AT(re + k + 2) + SOBER_SIXTEEN_AT(im + k - 1);
        const Sixteen p2 = SOBER_SIXTEEN_AT(im + k + 3) + SOBER_SIXTEEN_AT(re + k - 2);
        const Sixteen p3 = SOBER_SIXTEEN_AT(re + k + 4) + SOBER_SIXTEEN_AT(im + k - 3);
        const Sixteen p4 = SOBER_SIXTEEN_AT(im + k + 5) + SOBER_SIXTEEN_AT(re + k - 4);
        for (std::size_t w = 0; w < windows; ++w) {
            Sixteen sum = weights[w].first * p0;
            if (!weights[w].plain) {
                const auto& rest = weights[w].rest;
                sum += rest[0] * p1 + rest[1] * p2 + rest[2] * p3 + rest[3] * p4;
            }
            SOBER_PUT_SIXTEEN(out + w * stride + k, sum);
        }
    }
}

Weights weightsOf(const std::vector<float>& terms) {
    // The turn by a right angle from one term to the next: signs - - + + -.
    constexpr std::array<float, mostTerms> signs{-1, -1, 1, 1, -1};
    Weights weights;
    weights.first = signs[0] * terms[0];
    for (std::size_t m = 1; m < std::min(terms.size(), mostTerms); ++m) {
        weights.rest[m - 1] = signs[m] * terms[m];
        weights.plain = false;
    }
    return weights;
}

} // namespace

/// With u = n + 1/2 and a window of half-sines, the MDCT's coefficient k is
///   1/2 sum a_m (Re(c_k F(k+m+1)) - Re(c_k F(k-m))),  c_k = i exp(-i pi/2 (k + 1/2)),
/// where F(j) = sum x[n] exp(-2 pi i u j / N): one Fourier transform at each position serves every window,
/// and a sample later it is the same transform slid on. Kept is c_j F(j), scaled: c_k differs from it by
/// right angles.
struct MdctGrid::Slide {
    explicit Slide(const Shape& shape)
        : length(shape.length),
          lowest(shape.firstBin - margin),
          bins(shape.lastBin - shape.firstBin + 1),
          stride((bins + sixteen - 1) / sixteen * sixteen),
          span(stride + 2 * margin + 1),
          fourier(length) {
        const double scale = 0.5 * std::sqrt(2.0 / static_cast<double>(length / 2));
        for (std::size_t j = 0; j < span; ++j) {
            const auto bin = static_cast<double>(lowest + j);
            const double angle = pi * bin / static_cast<double>(length);
            const double turn = pi / 2 * (1 - (bin + 0.5)) - angle;
            twistRe.push_back(static_cast<float>(scale * std::cos(turn)));
            twistIm.push_back(static_cast<float>(scale * std::sin(turn)));
            turnRe.push_back(static_cast<float>(std::cos(2 * angle)));
            turnIm.push_back(static_cast<float>(std::sin(2 * angle)));
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
            const auto mirror = bin[length - lowest - j];
            const float leftRe = 0.5F * (here.real() + mirror.real());
            const float leftIm = 0.5F * (here.imag() - mirror.imag());
            const float rightRe = 0.5F * (here.imag() + mirror.imag());
            const float rightIm = 0.5F * (mirror.real() - here.real());
            parts[0][j] = leftRe * twistRe[j] - leftIm * twistIm[j];
            parts[1][j] = leftRe * twistIm[j] + leftIm * twistRe[j];
            parts[2][j] = rightRe * twistRe[j] - rightIm * twistIm[j];
            parts[3][j] = rightRe * twistIm[j] + rightIm * twistRe[j];
        }
    }

    void on(float leftChange, float rightChange) {
        slideOn(leftChange, twistRe.data(), twistIm.data(), turnRe.data(), turnIm.data(), span,
                parts[0].data(), parts[1].data());
        slideOn(rightChange, twistRe.data(), twistIm.data(), turnRe.data(), turnIm.data(), span,
                parts[2].data(), parts[3].data());
    }

    void coefficients(std::size_t channel, const std::vector<Weights>& weights, float* out) const {
        combine(parts[2 * channel].data() + margin, parts[2 * channel + 1].data() + margin, weights.data(),
                weights.size(), bins, stride, out);
    }

    std::size_t length, lowest, bins;
    std::size_t stride; ///< bins, to the next multiple of sixteen
    std::size_t span;
    ComplexFourier fourier;
    std::vector<float> twistRe, twistIm, turnRe, turnIm;
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

std::size_t MdctGrid::mostUnits() const {
    const std::size_t period = shape_.length / 2;
    const std::size_t room = traceBlock * traceBlocks - shape_.length - period;
    return room / shape_.frames < 2 * period ? shape_.frames : 2 * shape_.frames;
}

void MdctGrid::add(const TraceSegment& segment, std::size_t from, std::size_t to) {
    const std::size_t length = shape_.length;
    const std::size_t period = length / 2;
    Slide slide(shape_);
    std::vector<Weights> weights;
    for (const auto& window : windows_) {
        weights.push_back(weightsOf(window.terms));
    }
    std::array<std::vector<float>, 2> out;
    for (auto& channel : out) {
        channel.resize(windows_.size() * slide.stride);
    }
    for (std::size_t frame = from; frame < to; ++frame) {
        const std::size_t room = segment.left.size() - length - period;
        const std::size_t usual = frame % shape_.frames * room / shape_.frames / period * period;
        const std::size_t base = frame < shape_.frames ? usual : usual + period;
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
            slide.coefficients(0, weights, out[0].data());
            slide.coefficients(1, weights, out[1].data());
            for (std::size_t w = 0; w < windows_.size(); ++w) {
                countNearZero(out[0].data() + w * slide.stride, out[1].data() + w * slide.stride, slide.bins,
                              place, counts_[2 * w], counts_[2 * w + 1]);
            }
        }
    }
    for (auto& counts : counts_) {
        counts.coefficients += 2 * (to - from) * slide.bins;
    }
}

} // namespace sober
