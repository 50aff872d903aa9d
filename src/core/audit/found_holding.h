#pragma once

#include "core/catalogue/findings.h"
#include "core/evidence/verdict.h"

namespace sober {

/// What somebody who searched wants to know of one that was found.
struct FoundHolding {
    Holding holding;
    Volume volume;
    BytePath path;               ///< absolute, as if its volume were at hand
    bool reachable = false;      ///< its place can be looked at now
    std::uint64_t copies = 0;    ///< other present holdings of the recording
    std::vector<BytePath> lists; ///< that lead to it, absolute
    bool sound = true;           ///< as far as it was examined
    std::optional<VerdictClass> verdict;
};

/// In the order of `ids`; ids that do not exist are left out.
Result<std::vector<FoundHolding>> foundHoldings(const Catalogue& catalogue, std::span<const HoldingId> ids);

/// Where it is to be had, for a person: "on TERN", "on TERN, away since 12 Mar 2026", "retired".
std::string reachWords(const FoundHolding& found);

} // namespace sober
