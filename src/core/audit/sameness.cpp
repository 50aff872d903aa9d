#include "core/audit/sameness.h"

#include <fmt/format.h>

#include <cmath>

namespace sober {
namespace {

// Measured on lossy copies down to 64 kbit/s, equalised, mono and resampled ones, which agree in all blocks,
// and on other takes, tempos and instruments, which agree in less than one of twenty.
constexpr double leastAgreeing = 0.75;
constexpr double leastCompared = 2;        // seconds
constexpr double leastBeside = 0.85;       // of the shorter: less is a passage that two recordings share
constexpr double mostGain = 1.0;           // dB: encoders shift the level a little
constexpr double mostSpread = 2.5;         // dB
constexpr double mostDrift = 50;           // parts in a million
constexpr double padding = 1.5;            // seconds of silence or encoder delay that make no other length
constexpr double noSide = -60;             // dB: mono
constexpr double someSide = -40;           // dB: stereo
constexpr double fingerprintsAlone = 0.08; // share of differing bits that is taken for one recording

bool oneIsMono(const DecodeComparison& comparison) {
    return (comparison.firstSide < noSide && comparison.secondSide > someSide) ||
           (comparison.secondSide < noSide && comparison.firstSide > someSide);
}

} // namespace

bool isOneRecordingByEar(double bitErrors) {
    return bitErrors <= fingerprintsAlone;
}

bool isSameLength(double firstSeconds, double secondSeconds) {
    return std::abs(firstSeconds - secondSeconds) <= padding;
}

std::optional<Sameness> samenessOf(const RecordingPair& pair, double firstSeconds, double secondSeconds) {
    // A disc's tracks end with the silence before the next: what stands over has to sound to be another
    // length.
    const bool onlySilence =
        pair.comparison && pair.comparison->standsOver >= 0 && pair.comparison->standsOver <= padding;
    const bool otherLength = !onlySilence && !isSameLength(firstSeconds, secondSeconds);
    if (!pair.comparison) {
        return !isOneRecordingByEar(pair.bitErrors) ? std::nullopt
               : otherLength                        ? std::optional(Sameness::part)
                                                    : std::optional(Sameness::lossyCopy);
    }
    const auto& comparison = *pair.comparison;
    const double beside =
        std::min(firstSeconds, secondSeconds + comparison.offset) - std::max(0.0, comparison.offset);
    if (comparison.agreeing < leastAgreeing || comparison.compared < leastCompared ||
        beside < leastBeside * std::min(firstSeconds, secondSeconds)) {
        return std::nullopt;
    }
    if (otherLength) {
        return Sameness::part;
    }
    const bool altered = std::abs(comparison.gain) > mostGain || comparison.spread > mostSpread ||
                         std::abs(comparison.drift) > mostDrift || oneIsMono(comparison);
    return altered ? Sameness::otherMaster : Sameness::lossyCopy;
}

std::string_view word(Sameness sameness) {
    switch (sameness) {
    case Sameness::bytes:
        return "bytes";
    case Sameness::payload:
        return "payload";
    case Sameness::samples:
        return "samples";
    case Sameness::lossyCopy:
        return "lossy-copy";
    case Sameness::otherMaster:
        return "other-master";
    case Sameness::part:
        return "part";
    case Sameness::tagsOnly:
        break;
    }
    return "only-tags";
}

std::string samenessWords(Sameness sameness) {
    switch (sameness) {
    case Sameness::bytes:
        return "same bytes";
    case Sameness::payload:
        return "same audio data";
    case Sameness::samples:
        return "same samples";
    case Sameness::lossyCopy:
        return "same recording, lossy copy";
    case Sameness::otherMaster:
        return "same recording, other master or level";
    case Sameness::part:
        return "same recording, shorter or longer";
    case Sameness::tagsOnly:
        break;
    }
    return "only the tags look alike";
}

std::string comparisonWords(const DecodeComparison& comparison) {
    std::string words;
    const auto add = [&](const std::string& more) { words += (words.empty() ? "" : "; ") + more; };
    if (std::abs(comparison.gain) > mostGain) {
        add(fmt::format("{:.1f} dB {}", std::abs(comparison.gain),
                        comparison.gain < 0 ? "quieter" : "louder"));
    }
    if (comparison.spread > mostSpread) {
        add(fmt::format("equalised by up to {:.0f} dB", comparison.spread));
    }
    if (std::abs(comparison.drift) > mostDrift) {
        add(fmt::format("runs {:.2f} % {}", std::abs(comparison.drift) / 1e4,
                        comparison.drift > 0 ? "slower" : "faster"));
    }
    if (oneIsMono(comparison)) {
        add(comparison.secondSide < comparison.firstSide ? "in mono" : "in stereo, the other in mono");
    }
    if (std::abs(comparison.offset) > 0.05) {
        add(fmt::format("begins {:.1f} s {}", std::abs(comparison.offset),
                        comparison.offset > 0 ? "later in it" : "earlier"));
    }
    if (comparison.residual < 0) {
        add(comparison.residual < -100
                ? std::string("no difference left")
                : fmt::format("the difference is {:.0f} dB below", -comparison.residual));
    }
    return words;
}

} // namespace sober
