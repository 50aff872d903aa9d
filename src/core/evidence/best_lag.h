#pragma once

#include <cstdint>
#include <span>

namespace sober {

/// Sum of squares.
double energyOf(std::span<const float> samples);

struct Lag {
    double samples = 0;  ///< the second's sample n lies on the first's n + samples
    double strength = 0; ///< normalised correlation
};

/// Where a short run fits best into a longer one that begins `lead` samples before it, by cross-correlation
/// of the steps between samples.
Lag bestLag(std::span<const float> shorter, std::span<const float> longer, std::int64_t lead);

} // namespace sober
