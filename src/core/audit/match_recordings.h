#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

namespace sober {

struct MatchReport {
    std::uint64_t recordings = 0; ///< examined contents that were looked at
    std::uint64_t compared = 0;   ///< pairs that were decoded and held against each other
    std::uint64_t alike = 0;      ///< of those, that are one recording
    bool interrupted = false;     ///< cancelled: what was compared is kept, and goes on from there
};

/// Finds which examined holdings may carry one recording, by their fingerprints (only what is new is looked
/// for among the others, see LandmarkStore), and holds those against each other by decoding them. What was
/// compared before is not compared again; a pair of which one is away waits until it is at hand, and its
/// fingerprints speak meanwhile. Reads only.
Result<MatchReport> matchRecordings(const Catalogue& catalogue, RunControl& control,
                                    const ProgressSink& onProgress);

} // namespace sober
