#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <optional>

namespace sober {

/// How a folder compares with what is catalogued of a volume: the present holdings, place by place.
struct Succession {
    std::uint64_t holdings = 0; ///< of the volume
    std::uint64_t there = 0;    ///< stand at the same place with the same size
    std::uint64_t otherSize = 0;
    std::uint64_t notThere = 0;

    /// Counts a holding of this size at whose place one of that size stands, or none.
    void add(std::uint64_t size, std::optional<std::uint64_t> found) {
        ++holdings;
        ++(!found ? notThere : *found == size ? there : otherSize);
    }
    /// Four of five, as volumes are recognised without a UUID too.
    bool isLikely() const { return holdings > 0 && there * 5 >= holdings * 4; }
};

/// Looks at sizes only.
Result<Succession> compareWith(const Catalogue& catalogue, const Volume& volume, const BytePath& folder);

/// From now on a volume is at `folder`: another drive that was made as a copy of it. Its holdings, lists,
/// decisions and ledger go along. What was catalogued at the folder as a volume of its own is forgotten.
/// Refuses where the contents do not agree
/// (`isLikely`), where the folder lies within or around another volume, is one with holdings or a history of
/// its own, or is the volume itself. A survey reads there afterwards whatever differs.
Result<Succession> succeedVolume(const Catalogue& catalogue, const Volume& volume, const BytePath& folder);

} // namespace sober
