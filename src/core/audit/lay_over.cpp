#include "core/audit/lay_over.h"

#include "core/evidence/worker/evidence_worker.h"

namespace sober {
namespace {

constexpr int wholeReach = 400; // words: how far one of a pair may begin after the other, 50 seconds

} // namespace

Result<RecordingPair> layOver(EvidenceWorker& worker, const BytePath& firstPath, const Evidence& first,
                              const BytePath& secondPath, const Evidence& second, RunControl& control) {
    const auto match = matchFingerprints(first.fingerprint, second.fingerprint, wholeReach);
    auto compared = worker.compare(firstPath, secondPath, match.offset * fingerprintWordSeconds, control);
    return compared ? Result(RecordingPair{first.payload, second.payload, match.bitErrors, compared->offset,
                                           std::move(*compared)})
                    : Result<RecordingPair>(compared.error());
}

} // namespace sober
