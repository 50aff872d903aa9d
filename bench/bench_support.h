#pragma once

#include "core/base/result.h"

#include <fmt/format.h>

#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <functional>
#include <string>
#include <vector>

namespace sober::bench {

/// What one run of a command cost.
struct Cost {
    double seconds = 0;   ///< by the clock on the wall
    double processor = 0; ///< seconds of processor time, with all processes it waited for
    double megabytes = 0; ///< largest resident size of any one of its processes
};

/// Runs a shell command with its output thrown away.
Cost costOf(const std::string& command);

double median(std::vector<double> values);

/// Runs `ours` and `theirs` in turn, once unmeasured and five times measured, and prints the median
/// of the ratios of their times, with the limit it has to keep. `prepare` goes before each of ours.
void compare(const std::string& what, const std::string& ours, const std::string& theirs, double limit,
             const std::string& prepare = {});

/// A WAV file (RIFF, 16-bit PCM, 44.1 kHz mono) with so many bytes of noise, a multiple of four, that a seed
/// tells from others.
std::string noiseWav(std::uint32_t bytes, std::uint32_t seed);

/// The value; where there is an error instead, says it and ends.
template <typename T>
T orEnd(Result<T> result) {
    if (!result) {
        fmt::print(stderr, "{}\n", result.error().sentence);
        std::exit(1);
    }
    return std::move(*result);
}

/// Seconds by the clock on the wall that a piece of work takes.
double secondsOf(const std::function<void()>& work);

/// Resident memory of this process in megabytes, as it is now.
double residentMegabytes();

} // namespace sober::bench
