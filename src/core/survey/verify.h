#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/holding_writer.h"
#include "core/evidence/fixity_reading.h"
#include "core/survey/verify_plan.h"

#include <algorithm>
#include <random>

namespace sober {

/// What to read again.
struct VerifyRequest {
    std::vector<BytePath> paths; ///< volumes, or folders and files on them; empty: every volume at hand
    CheckScope scope = CheckScope::whole;
    double extent = 0.01;   ///< of a sample: damage of this share of the holdings…
    double missRisk = 0.05; ///< …is missed with this probability at most
    ReadingChoices reading;
    std::uint32_t seed = std::random_device{}(); ///< of the sample
};

/// A holding that is not what was recorded.
struct FoundDrift {
    HoldingId holding = 0;
    BytePath path; ///< absolute
    DriftKind kind = DriftKind::audioAltered;
    std::vector<std::pair<std::uint64_t, std::uint64_t>> blocks; ///< that differ: first and last of each run
    std::vector<BytePath> healthy; ///< absolute: copies that carry what was recorded
    bool known = false;            ///< before this verification
};

struct VerifyReport {
    std::uint64_t checked = 0;
    std::uint64_t unchanged = 0;
    std::uint64_t bytesRead = 0;
    std::vector<FoundDrift> drift;
    std::vector<SurveyError> errors;
    bool interrupted = false;

    /// Of the drift what could not be read because it is not there, and what was read and is another.
    std::uint64_t missing() const {
        return static_cast<std::uint64_t>(std::ranges::count(drift, DriftKind::missing, &FoundDrift::kind));
    }
    std::uint64_t drifted() const { return drift.size() - missing(); }
};

/// Reads holdings again and holds them against what was recorded. What differs is examined and written down
/// with its baseline kept; nothing is accepted. A whole check that was stopped is gone on with. Drift
/// that was found before and not accepted is reported again. Fails where a path is on no volume at hand.
Result<VerifyReport> verifyHoldings(Catalogue& catalogue, const VerifyRequest& request, RunControl& control,
                                    const ProgressSink& onProgress);

} // namespace sober
