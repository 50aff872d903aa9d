#pragma once

#include "core/catalogue/findings.h"

namespace sober {

/// One thing that the custodian can do next, with what it brings.
struct NextStep {
    enum class Kind {
        survey,       ///< nothing is catalogued yet
        retireCopies, ///< bytes
        findMissing,  ///< count
        lookAtDrift,  ///< count: holdings that are not what was recorded
        relink,       ///< count: references of players that lead nowhere
        lookAtErrors, ///< count
        lookAtClaims, ///< count: evidence contradicts what the file claims
        replaceLow,   ///< count: holdings under the limit of which a better copy is known
        examine,      ///< count: holdings that were never examined
    };
    Kind kind;
    std::uint64_t count = 0;
    std::uint64_t bytes = 0;
};

/// The collection's state in figures.
struct Condition {
    std::vector<Volume> volumes;
    std::vector<VolumeFigures> figures; ///< in the order of `volumes`
    VolumeFigures total;
    std::uint64_t copySets = 0;
    std::uint64_t reclaimable = 0;      ///< bytes
    std::uint64_t drift = 0;            ///< holdings that are not what was recorded, and not accepted
    std::uint64_t brokenReferences = 0; ///< of players, that lead nowhere and are missed
    std::uint64_t betterKnown = 0;      ///< holdings under the limit of which a better copy is known
    std::uint64_t errors = 0;           ///< files that the last surveys could not read or understand
    std::vector<NextStep> nextSteps;    ///< what saves most first
};

/// Each kind of finding with its count, by the word for it: "copies", "claims", "drift", "damaged",
/// "missing", "broken_references".
std::vector<std::pair<std::string_view, std::uint64_t>> findingCounts(const Condition& condition);

Result<Condition> conditionOf(const Catalogue& catalogue);

} // namespace sober
