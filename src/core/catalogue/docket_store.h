#pragma once

#include "core/catalogue/action_kind.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using ActionId = std::int64_t;

/// One decided action that waits.
struct DocketAction {
    ActionId id = 0;
    ActionKind kind = ActionKind::retire;
    HoldingId holding = 0; ///< 0: it is about a place that references point to
    std::string reason;    ///< why, in words; may be empty
    Nanoseconds added = 0;
    std::string change = {};  ///< packed: what is to be written, where the kind needs it
    BytePath place = {};      ///< absolute, where references point; only without a holding
    BytePath target = {};     ///< absolute, where to: of a move or a repoint
    std::string consent = {}; ///< the loss that is consented to, by its word (audit/carriers.h)
};

/// What waits, in figures; without what an interruption has left to be settled. A file with several names is
/// freed when all of them go.
struct DocketTotals {
    std::uint64_t actions = 0;
    std::uint64_t frees = 0;      ///< bytes, by what the catalogue knows
    std::uint64_t references = 0; ///< that are taken along or repointed
};

/// The docket as kept in the catalogue. A holding, or a place without one, stands on it once at most.
class DocketStore {
  public:
    explicit DocketStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::vector<DocketAction>> all() const;
    /// Those that are about no holding, but about a place that references point to.
    Result<std::vector<DocketAction>> aboutPlaces() const;
    Result<DocketTotals> totals() const;
    /// Adds in one transaction; what stands on the docket already gets the new kind, reason, change and
    /// target.
    Outcome add(std::span<const DocketAction> actions) const;
    /// Takes the actions of these holdings off: those of a kind or of any.
    Outcome remove(std::span<const HoldingId> holdings, std::optional<ActionKind> kind = {}) const;
    /// Takes the actions about these places off.
    Outcome removePlaces(std::span<const BytePath> places) const;
    Outcome clear() const;
    /// Takes single actions off; how many there were.
    Result<std::uint64_t> removeActions(std::span<const ActionId> actions) const;
    /// Writes down which loss is consented to for a holding that stands on it; "" withdraws that.
    Outcome consent(HoldingId holding, std::string_view loss) const;
    /// What a holding stands on it for.
    Result<std::optional<ActionKind>> kindFor(HoldingId holding) const;
    /// Which of these holdings stand on the docket, for an action of this kind or of any.
    Result<std::vector<HoldingId>> standing(std::span<const HoldingId> holdings,
                                            std::optional<ActionKind> kind = {}) const;

  private:
    Result<std::vector<DocketAction>> which(const std::string& condition) const;

    const Catalogue& catalogue_;
};

} // namespace sober
