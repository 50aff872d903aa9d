#pragma once

#include "core/audit/relink_candidates.h"
#include "core/catalogue/player_store.h"

namespace sober {

/// All places that references lead to and where nothing is, with the counts around them.
struct LostPlaces {
    std::vector<LostPlace> places;
    std::vector<Reference> references;             ///< that lead there
    std::vector<std::vector<std::size_t>> byPlace; ///< into `references`
    std::uint64_t all = 0;                         ///< references to files, without what is written off
    std::uint64_t resolved = 0;                    ///< of those
    /// References that resolve in their player and would not elsewhere: they count as resolved already.
    std::vector<std::uint64_t> resolvedAnyway; ///< by place
};

/// What is written off is left out, and what leads into a volume that is away.
Result<LostPlaces> lostPlaces(const Catalogue& catalogue);

} // namespace sober
