#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"

#include <functional>
#include <map>
#include <string_view>

namespace sober {

/// One that a search met; its path stands only while it is looked at.
struct SearchHit {
    HoldingId id = 0;
    VolumeId volume = 0;
    HoldingState state = HoldingState::present;
    std::string_view path; ///< relative to the volume's root
};

/// Everything that is catalogued and that a filter means, whatever its state, on volumes at hand and away, in
/// the order in which it was first seen; as it comes, so that the first need not wait for the last. Ends
/// early where `visit` returns false.
Outcome eachHit(const Catalogue& catalogue, const HoldingFilter& filter,
                const std::function<bool(const SearchHit&)>& visit);

/// All that a search met.
struct SearchResult {
    std::vector<HoldingId> ids; ///< the present ones first, each by volume and path
    std::uint64_t present = 0;
    /// How many lie in each folder of the first level; "" for what lies in the root itself.
    std::map<std::pair<VolumeId, BytePath>, std::uint64_t> folders;
};

/// Looks for everything that is meant. Where that takes longer than a moment, `onFirst` gets the first
/// present ones, as they came, meanwhile. Cause::interrupted where it was cancelled.
Result<SearchResult> search(const Catalogue& catalogue, const HoldingFilter& filter, RunControl& control,
                            const std::function<void(const std::vector<HoldingId>&)>& onFirst);

} // namespace sober
