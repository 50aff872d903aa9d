#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/recording_pairs.h"
#include "core/evidence/evidence.h"

namespace sober {

class EvidenceWorker;

/// Decodes two files that were examined and lays them over each other, where their fingerprints lie best.
Result<RecordingPair> layOver(EvidenceWorker& worker, const BytePath& firstPath, const Evidence& first,
                              const BytePath& secondPath, const Evidence& second, RunControl& control);

} // namespace sober
