#pragma once

#include "core/audit/condition.h"
#include "core/audit/keeper.h"
#include "core/base/run_control.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/transfer_store.h"
#include "core/evidence/evidence.h"

#include <set>

namespace sober {

enum class ReportPart {
    condition,
    copies,
    claims,
    damage,
    fixity,
    missing,
    proofs,
};
inline constexpr std::array everyReportPart{ReportPart::condition, ReportPart::copies, ReportPart::claims,
                                            ReportPart::damage,    ReportPart::fixity, ReportPart::missing,
                                            ReportPart::proofs};
/// "condition"…
std::string_view word(ReportPart part);
std::optional<ReportPart> reportPartOf(std::string_view word);

struct ReportChoices {
    std::set<ReportPart> parts{everyReportPart.begin(), everyReportPart.end()};
    /// False: no path, no name of a file, folder or list is in the report. A holding is called by a number
    /// that is the same throughout it, and by its volume's label.
    bool paths = true;
};

/// A holding as a report names it.
struct ReportedHolding {
    std::size_t number = 0; ///< within the report, from 1
    std::string volume;     ///< its label
    BytePath path;          ///< absolute; "" where paths are left out
    std::uint64_t size = 0;
};

struct ReportedMember {
    ReportedHolding holding;
    Advice advice = Advice::decide;
    std::vector<std::string> reasons; ///< none where paths are left out: they name lists
};

/// Reasons in one line.
std::string joined(const std::vector<std::string>& reasons);

struct ReportedSet {
    Sameness sameness = Sameness::bytes;
    std::uint64_t reclaimable = 0; ///< bytes that following the advice frees
    std::vector<ReportedMember> members;
};

struct ReportedClaim {
    ReportedHolding holding;
    Claims claims;
    double cutoff = 0; ///< Hz; 0 where it was not measured
    Verdict verdict;
    bool accepted = false;
};

struct ReportedDamage {
    ReportedHolding holding;
    std::vector<DecodeProblem> problems; ///< none where it could not be opened as audio at all
};

struct ReportedDrift {
    ReportedHolding holding;
    DriftKind kind = DriftKind::audioAltered;
    Nanoseconds found = 0;
};

/// When a volume's present holdings were last read from end to end.
struct LastRead {
    std::string volume;
    static constexpr std::array<int, 3> days{30, 180, 365};
    std::array<std::uint64_t, 4> holdings{}; ///< within so many days, the last: longer ago
};

struct ReportedMissing {
    ReportedHolding holding;
    Nanoseconds lastSeen = 0;    ///< 0: not known
    std::uint64_t elsewhere = 0; ///< present holdings that have its content
};

struct ReportedProof {
    TransferId transfer = 0;
    BytePath folder; ///< "" where paths are left out
    Nanoseconds proven = 0;
};

/// What was found so far, to be kept or given to somebody. Parts that were not chosen are empty.
struct Report {
    ReportChoices choices;
    Nanoseconds made = 0;
    Condition condition;
    std::vector<ReportedSet> sets;        ///< what frees most first
    std::vector<ReportedClaim> claims;    ///< the worst first; accepted ones too
    std::vector<ReportedDamage> damage;   ///< by volume and path
    std::vector<LastRead> lastRead;       ///< in the order of the condition's volumes
    std::vector<FixityCheck> checks;      ///< newest first
    std::vector<ReportedDrift> drift;     ///< the latest found first
    std::vector<ReportedMissing> missing; ///< by volume and path
    std::vector<ReportedProof> proofs;    ///< newest first
};

/// Takes it from the catalogue; nothing on a volume is read. Cause::interrupted where the run is cancelled.
Result<Report> reportOf(const Catalogue& catalogue, const ReportChoices& choices, RunControl& control,
                        const ProgressSink& onProgress);

} // namespace sober
