#pragma once

#include "core/evidence/checksums.h"
#include "core/evidence/sample_checksum.h"
#include "core/evidence/verdict.h"
#include "core/media/decode.h"

namespace sober {

/// Everything that can be told of one file.
struct Examination {
    Claims claims;
    Tags tags;
    FileChecksums checksums; ///< SHA-256 too
    Checksum128 payload;     ///< of the compressed packets in order: no tags, no container
    std::optional<Md5> samplesMd5;
    Levels levels;
    std::optional<Spectrum> spectrum;
    std::optional<Bandwidth> bandwidth;
    CodecTrace trace;
    Verdict verdict;
    DecodeReport decode;
    std::vector<DecodeProblem> problems; ///< of the decode, and checks that do not hold

    bool sound() const { return problems.empty(); }
};

/// Reads a file once: its bytes go to the checksums while the decoder asks for them, its samples to
/// levels, spectrum and trace.
Result<Examination> examineFile(const BytePath& path, RunControl& control);

} // namespace sober
