#pragma once

#include <cstdint>
#include <vector>

namespace sober::demo {

inline constexpr int sampleRate = 44100;

/// Interleaved 16-bit stereo at 44.1 kHz.
using Samples = std::vector<std::int16_t>;

/// What plays: each has its own spectrum, attack and decay.
enum class Voice {
    choir,     ///< sung vowels: harmonics under moving formants, breath
    brass,     ///< harmonics that brighten with loudness
    harmonium, ///< two free reeds a little apart, odd and even harmonics, bellows
    bells,     ///< inharmonic partials that ring out
    plucked,   ///< strings by a delay line with a low-pass (Karplus and Strong 1983)
    surf,      ///< noise in slow waves
    fogSignal, ///< a low two-tone blast over wind
    speech,    ///< syllables of formant noise and tone, for the radio plays
};

/// One piece: the same seed and voice give the same samples on every machine with the same compiler.
struct Piece {
    Voice voice = Voice::choir;
    std::uint32_t seed = 1;
    double seconds = 8;
    double tempo = 96; ///< beats a minute
};

Samples synthesise(const Piece& piece);

} // namespace sober::demo
