#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using ActionId = std::int64_t;

/// One decided action that waits.
struct DocketAction {
    ActionId id = 0;
    std::string kind; ///< "retire", "write-off", "accept"
    HoldingId holding = 0;
    std::string reason; ///< why, in words; may be empty
    Nanoseconds added = 0;
};

/// What waits, in two figures. A file with several names is freed when all of them go.
struct DocketTotals {
    std::uint64_t actions = 0;
    std::uint64_t frees = 0; ///< bytes, by what the catalogue knows
};

/// The docket as kept in the catalogue. A holding stands on it once at most.
class DocketStore {
  public:
    explicit DocketStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::vector<DocketAction>> all() const;
    Result<DocketTotals> totals() const;
    /// Adds in one transaction; a holding that stands on the docket already gets the new kind and reason.
    Outcome add(std::span<const DocketAction> actions) const;
    Outcome remove(std::span<const HoldingId> holdings) const;
    Outcome clear() const;
    /// Which of these holdings stand on the docket.
    Result<std::vector<HoldingId>> standing(std::span<const HoldingId> holdings) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
