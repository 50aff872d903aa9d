#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>
#include <unordered_set>

namespace sober {

/// Members of a holding's copy set that carry its recording whole: at hand, decoded without a fault, not
/// shorter, and not going themselves. One of them has to stay where the holding itself is retired and no
/// copy has its very bytes.
Result<std::vector<Holding>> standInsFor(const Catalogue& catalogue, const Holding& holding,
                                         std::span<const Volume> volumes,
                                         const std::unordered_set<HoldingId>& going);

} // namespace sober
