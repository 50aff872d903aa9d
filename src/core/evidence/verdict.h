#pragma once

#include "core/evidence/codec_trace.h"
#include "core/evidence/levels.h"
#include "core/evidence/spectrum.h"
#include "core/media/probe.h"

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

enum class VerdictClass {
    genuine,
    doubtful,
    transcoded,
    undetermined,
};

inline constexpr std::array everyVerdict{VerdictClass::genuine, VerdictClass::doubtful,
                                         VerdictClass::transcoded, VerdictClass::undetermined};

std::string_view wordFor(VerdictClass verdict);
/// Nothing where it is the word of none.
std::optional<VerdictClass> verdictOf(std::string_view word);

/// What the evidence says of the claim.
struct Verdict {
    VerdictClass verdict = VerdictClass::undetermined;
    double confidence = 0;          ///< 0 to 1
    std::string sourceCodec;        ///< of the earlier lossy encode; "" where none is told
    std::int64_t sourceBitrate = 0; ///< bit/s, estimated from the bandwidth; 0 where it cannot be
    std::vector<std::string> reasons;
};

struct VerdictEvidence {
    Claims claims;
    double seconds = 0; ///< as decoded
    Levels levels;
    std::optional<Spectrum> spectrum;
    std::optional<Bandwidth> bandwidth;
    CodecTrace trace;
};

/// Whether the bandwidth alone speaks against the claim, so that a longer search for its cause is worth
/// the time.
bool raisesDoubt(const Claims& claims, const Bandwidth& bandwidth);

/// Trace before bandwidth: a grid accuses, a wall alone raises doubt, and where the material cannot
/// tell (silence, a few seconds, nothing between 8 and 12 kHz) nothing is claimed.
Verdict verdictOn(const VerdictEvidence& evidence);

} // namespace sober
