#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using ActionId = std::int64_t;

/// One decided action that waits.
struct DocketAction {
    ActionId id = 0;
    std::string kind; ///< "retire", "write-off", "accept", "retag"
    HoldingId holding = 0;
    std::string reason; ///< why, in words; may be empty
    Nanoseconds added = 0;
    std::string change = {}; ///< packed: what is to be written, where the kind needs it
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
    /// Adds in one transaction; a holding that stands on the docket already gets the new kind, reason and
    /// change.
    Outcome add(std::span<const DocketAction> actions) const;
    /// Takes the actions of these holdings off: those of a kind or, "", of any.
    Outcome remove(std::span<const HoldingId> holdings, std::string_view kind = {}) const;
    Outcome clear() const;
    /// Which of these holdings stand on the docket, for an action of this kind or, "", of any.
    Result<std::vector<HoldingId>> standing(std::span<const HoldingId> holdings,
                                            std::string_view kind = {}) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
