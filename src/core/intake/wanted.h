#pragma once

#include "core/catalogue/holding_filter.h"
#include "core/evidence/evidence.h"

#include <optional>
#include <span>
#include <string>
#include <vector>

namespace sober {

class Catalogue;

/// Why a holding could be better, the gravest first.
enum class WantedFor {
    cut,        ///< it breaks off or lacks its beginning
    damaged,    ///< it does not decode whole
    transcoded, ///< it is not what it says
    underLimit, ///< lossy, below the bitrate set for its codec
};
std::string_view word(WantedFor why);

struct WantedHolding {
    Holding holding;
    BytePath path; ///< absolute
    bool atHand = false;
    std::optional<WantedFor> why; ///< nothing: somebody named it who wants a better one
    std::string words;            ///< why, with what was measured

    /// Whether it lacks something that it should have, so that anything whole is better.
    bool isBroken() const { return why && *why <= WantedFor::damaged; }
    std::optional<Evidence> evidence;
};

/// The standing list of what could be better: present holdings of the collection that are cut, damaged, not
/// what they say, or under the limit; the gravest first, then by volume and path. Without what was accepted
/// as it is, and without what still lies in an inbox.
Result<std::vector<HoldingId>> wantedHoldings(const Catalogue& catalogue, const std::string& text = {});
/// In the order of `ids`; those that are not wanted (any more) are left out.
Result<std::vector<WantedHolding>> wantedDetails(const Catalogue& catalogue, std::span<const HoldingId> ids);
/// One, whether or not it is on the list. Cause::notFound where there is none.
Result<WantedHolding> wantedDetail(const Catalogue& catalogue, HoldingId id);

} // namespace sober
