#pragma once

#include "core/catalogue/docket_store.h"
#include "core/catalogue/other_catalogue.h"

namespace sober {

/// What waits on another catalogue's docket, as it can wait on this one's.
struct OtherDocket {
    std::vector<DocketAction> taken; ///< about what is known here, with places as they are here
    std::uint64_t known = 0;         ///< decided here as there, or done here since
    /// What it is about is not known here as it is there, or is decided otherwise; it is part of other work
    /// (a transfer's, a replacement's); or no reference leads there here.
    std::uint64_t left = 0;
};

/// A holding that is known there and would only be added here has the counterpart 0.
Result<OtherDocket> docketOf(const Catalogue& other, const Catalogue& here, const Counterparts& counterparts);

} // namespace sober
