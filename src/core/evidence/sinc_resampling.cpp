#include "core/evidence/sinc_resampling.h"

#include "core/base/wide.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace sober {
namespace {

constexpr std::size_t taps = 64;
constexpr std::size_t reach = taps / 2;
/// Between two rows the table is taken for a straight line: an error below -100 dB.
constexpr std::size_t parts = 512;

/// A row of the table is `rows`, the next follows it.
SOBER_WIDE float between(const float* samples, const float* rows, float part) {
    constexpr std::size_t lanes = 16;
    Sixteen here{};
    Sixteen next{};
    for (std::size_t n = 0; n < taps; n += lanes) {
        const Sixteen from = SOBER_SIXTEEN_AT(samples + n);
        here += from * SOBER_SIXTEEN_AT(rows + n);
        next += from * SOBER_SIXTEEN_AT(rows + taps + n);
    }
    const Sixteen both = here + part * (next - here);
    float sum = 0;
    for (std::size_t lane = 0; lane < lanes; ++lane) {
        sum += both[lane];
    }
    return sum;
}

} // namespace

SincResampling::SincResampling(double fromRate, double toRate)
    : step_(fromRate / toRate), table_((parts + 1) * taps) {
    const double narrow = std::min(1.0, toRate / fromRate);
    for (std::size_t part = 0; part <= parts; ++part) {
        for (std::size_t n = 0; n < taps; ++n) {
            const double away =
                static_cast<double>(part) / parts + static_cast<double>(reach - 1) - static_cast<double>(n);
            const double angle = std::numbers::pi * away * narrow;
            const double sinc = std::abs(angle) < 1e-9 ? 1.0 : std::sin(angle) / angle;
            const double window = 0.5 + 0.5 * std::cos(std::numbers::pi * away / (reach + 1));
            table_[part * taps + n] = static_cast<float>(sinc * window * narrow);
        }
    }
}

std::vector<float> SincResampling::operator()(std::span<const float> samples, double shift) const {
    // Silence before the beginning, so that each tap has its sample.
    std::vector<float> padded(reach, 0.0F);
    padded.insert(padded.end(), samples.begin(), samples.end());
    std::vector<float> out;
    const auto length = static_cast<double>(samples.size());
    for (std::size_t i = 0;; ++i) {
        const double at = shift + static_cast<double>(i) * step_;
        if (at + static_cast<double>(reach) >= length) {
            return out;
        }
        const double middle = std::floor(at);
        const double part = (at - middle) * parts;
        const double row = std::floor(part);
        out.push_back(between(padded.data() + static_cast<std::size_t>(middle) + 1,
                              table_.data() + static_cast<std::size_t>(row) * taps,
                              static_cast<float>(part - row)));
    }
}

TraceSegment resampledSegment(const TraceSegment& segment, const SincResampling& resampling, double ratio,
                              double phase) {
    constexpr std::int64_t edge = 64; // samples that the filter's reach makes doubtful
    const auto first = static_cast<double>(segment.start);
    TraceSegment made;
    made.start = static_cast<std::int64_t>(std::ceil(first * ratio)) + edge;
    const double shift = (static_cast<double>(made.start) + phase) / ratio - first;
    made.left = resampling(segment.left, shift);
    made.right = resampling(segment.right, shift);
    const std::size_t whole = std::min(traceBlock * traceBlocks, made.left.size());
    made.left.resize(whole);
    made.right.resize(whole);
    return made;
}

} // namespace sober
