#pragma once

#include <cstdint>
#include <string>

namespace sober::test {

/// A WAV file (RIFF, 16-bit PCM, 44.1 kHz mono) of noise from a seed: equal seeds and lengths give
/// equal bytes.
std::string smallWav(std::uint32_t seed, double seconds = 0.2);

} // namespace sober::test
