#include "core/evidence/grid_counts.h"

#include "core/evidence/wide.h"

#include <cmath>

namespace sober {
namespace {

constexpr float half = 0.70710678F;

SOBER_WIDE void countBelow(const float* values, std::size_t length, int* below) {
    static_assert(traceThresholds.size() == 6);
    int sums[6] = {};
    for (std::size_t i = 0; i < length; ++i) {
        const float size = std::abs(values[i]);
        sums[0] += size < traceThresholds[0] ? 1 : 0;
        sums[1] += size < traceThresholds[1] ? 1 : 0;
        sums[2] += size < traceThresholds[2] ? 1 : 0;
        sums[3] += size < traceThresholds[3] ? 1 : 0;
        sums[4] += size < traceThresholds[4] ? 1 : 0;
        sums[5] += size < traceThresholds[5] ? 1 : 0;
    }
    for (std::size_t t = 0; t < 6; ++t) {
        below[t] += sums[t];
    }
}

SOBER_WIDE void countMixedBelow(const float* left, const float* right, std::size_t length, int* below) {
    int sums[6] = {};
    for (std::size_t i = 0; i < length; ++i) {
        const float middle = std::abs(half * (left[i] + right[i]));
        const float side = std::abs(half * (left[i] - right[i]));
        sums[0] += (middle < traceThresholds[0] ? 1 : 0) + (side < traceThresholds[0] ? 1 : 0);
        sums[1] += (middle < traceThresholds[1] ? 1 : 0) + (side < traceThresholds[1] ? 1 : 0);
        sums[2] += (middle < traceThresholds[2] ? 1 : 0) + (side < traceThresholds[2] ? 1 : 0);
        sums[3] += (middle < traceThresholds[3] ? 1 : 0) + (side < traceThresholds[3] ? 1 : 0);
        sums[4] += (middle < traceThresholds[4] ? 1 : 0) + (side < traceThresholds[4] ? 1 : 0);
        sums[5] += (middle < traceThresholds[5] ? 1 : 0) + (side < traceThresholds[5] ? 1 : 0);
    }
    for (std::size_t t = 0; t < 6; ++t) {
        below[t] += sums[t];
    }
}

} // namespace

GridCounts::GridCounts(std::string codecName, std::string channelSet, std::size_t positions)
    : codec(std::move(codecName)), channels(std::move(channelSet)), period(positions) {
    for (auto& row : nearZero) {
        row.assign(period, 0.0F);
    }
}

void GridCounts::count(std::size_t position, const float* values, std::size_t length) {
    std::array<int, traceThresholds.size()> below{};
    countBelow(values, length, below.data());
    for (std::size_t t = 0; t < traceThresholds.size(); ++t) {
        nearZero[t][position] += static_cast<float>(below[t]);
    }
}

void GridCounts::countMixed(std::size_t position, const float* left, const float* right, std::size_t length) {
    std::array<int, traceThresholds.size()> below{};
    countMixedBelow(left, right, length, below.data());
    for (std::size_t t = 0; t < traceThresholds.size(); ++t) {
        nearZero[t][position] += static_cast<float>(below[t]);
    }
}

} // namespace sober
