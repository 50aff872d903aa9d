#pragma once

#include "core/evidence/checksums.h"
#include "core/evidence/fingerprint.h"
#include "core/evidence/sample_checksum.h"
#include "core/evidence/verdict.h"
#include "core/media/decode.h"

namespace sober {

/// Raised whenever the same file would yield other evidence: what was examined by an older method is
/// examined again by the next survey at full effort.
inline constexpr int evidenceMethod = 8;

/// What was measured from a file's content, beyond its bytes, and what was made of it.
struct Evidence {
    Checksum128 payload; ///< of the compressed packets in order: no tags, no container
    std::optional<Md5> samplesMd5;
    double seconds = 0; ///< as decoded
    Levels levels;
    std::optional<Spectrum> spectrum;
    std::optional<Bandwidth> bandwidth;
    CodecTrace trace;
    Fingerprint fingerprint;
    Verdict verdict;
    std::vector<DecodeProblem> problems; ///< of the decode and the structure, and checks that do not hold
    std::vector<DecodeProblem> remarks;  ///< odd, and no proof that audio was lost
    std::uint64_t junkBytes = 0; ///< that belong neither to the audio nor to a tag, where they can be told

    bool sound() const { return problems.empty(); }
};

} // namespace sober
