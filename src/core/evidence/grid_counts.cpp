#include "core/evidence/grid_counts.h"

#include "core/base/wide.h"

#include <algorithm>
#include <bit>

namespace sober {
namespace {

constexpr std::size_t piece = 576; ///< coefficients of a channel that are counted together

constexpr std::int16_t upperHalf(float value) {
    return static_cast<std::int16_t>(std::bit_cast<std::uint32_t>(value) >> 16);
}

static_assert(std::ranges::all_of(traceThresholds, [](float threshold) {
    return (std::bit_cast<std::uint32_t>(threshold) & 0xFFFF) == 0;
}));

/// The upper halves of two magnitudes, beside each other.
inline std::uint32_t upperHalves(float a, float b) {
    const auto first = std::bit_cast<std::uint32_t>(a);
    const auto second = std::bit_cast<std::uint32_t>(b);
    return ((first >> 16) | (second & 0xFFFF0000)) & 0x7FFF7FFF;
}

using UpperHalf = std::int16_t __attribute__((may_alias));

SOBER_WIDE void countBelow(const std::uint32_t* pairs, std::size_t length, int* below) {
    static_assert(traceThresholds.size() == 6);
    constexpr std::int16_t t0 = upperHalf(traceThresholds[0]), t1 = upperHalf(traceThresholds[1]),
                           t2 = upperHalf(traceThresholds[2]), t3 = upperHalf(traceThresholds[3]),
                           t4 = upperHalf(traceThresholds[4]), t5 = upperHalf(traceThresholds[5]);
    const auto* halves = reinterpret_cast<const UpperHalf*>(pairs);
    std::int16_t s0 = 0, s1 = 0, s2 = 0, s3 = 0, s4 = 0, s5 = 0;
    for (std::size_t i = 0; i < 2 * length; ++i) {
        s0 = static_cast<std::int16_t>(s0 + (halves[i] < t0));
        s1 = static_cast<std::int16_t>(s1 + (halves[i] < t1));
        s2 = static_cast<std::int16_t>(s2 + (halves[i] < t2));
        s3 = static_cast<std::int16_t>(s3 + (halves[i] < t3));
        s4 = static_cast<std::int16_t>(s4 + (halves[i] < t4));
        s5 = static_cast<std::int16_t>(s5 + (halves[i] < t5));
    }
    below[0] += s0;
    below[1] += s1;
    below[2] += s2;
    below[3] += s3;
    below[4] += s4;
    below[5] += s5;
}

SOBER_WIDE void pairUp(const float* left, const float* right, std::size_t length, std::uint32_t* apart,
                       std::uint32_t* mixed) {
    constexpr float half = 0.70710678F;
    for (std::size_t i = 0; i < length; ++i) {
        apart[i] = upperHalves(left[i], right[i]);
        mixed[i] = upperHalves(half * (left[i] + right[i]), half * (left[i] - right[i]));
    }
}

} // namespace

GridCounts::GridCounts(std::string codecName, std::string channelSet, std::size_t positions)
    : codec(std::move(codecName)), channels(std::move(channelSet)), period(positions) {
    for (auto& row : nearZero) {
        row.assign(period, 0.0F);
    }
}

void countNearZero(const float* left, const float* right, std::size_t length, std::size_t position,
                   GridCounts& leftRight, GridCounts& middleSide) {
    std::array<std::uint32_t, piece> apart;
    std::array<std::uint32_t, piece> mixed;
    std::array<int, traceThresholds.size()> apartBelow{};
    std::array<int, traceThresholds.size()> mixedBelow{};
    for (std::size_t first = 0; first < length; first += piece) {
        const std::size_t now = std::min(piece, length - first);
        pairUp(left + first, right + first, now, apart.data(), mixed.data());
        countBelow(apart.data(), now, apartBelow.data());
        countBelow(mixed.data(), now, mixedBelow.data());
    }
    for (std::size_t t = 0; t < traceThresholds.size(); ++t) {
        leftRight.nearZero[t][position] += static_cast<float>(apartBelow[t]);
        middleSide.nearZero[t][position] += static_cast<float>(mixedBelow[t]);
    }
}

} // namespace sober
