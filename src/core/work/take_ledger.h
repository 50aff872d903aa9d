#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/other_catalogue.h"

namespace sober {

/// What was carried out, taken back and put in order by another catalogue.
struct LedgerMeeting {
    std::uint64_t entries = 0; ///< not known here
    std::uint64_t left =
        0; ///< of those: not come to an end, or waiting to be settled: by that catalogue alone
};

/// Says what `takeLedger` would do.
Result<LedgerMeeting> ledgerOf(const Catalogue& other, const Catalogue& here);

/// Writes down here, all or nothing, what was done by another catalogue, with the lists and folders that
/// taking it back needs, and which of what is known here was taken back there. An entry is the same by its
/// time. Once it stands here, it can be taken back here too, where what it set aside is within reach: whoever
/// does so proves it on the disk.
Result<LedgerMeeting> takeLedger(const Catalogue& other, const Catalogue& here,
                                 const Counterparts& counterparts);

/// Whether another catalogue has done something that the ledger here does not know, or decided something
/// since that waits on its docket.
Result<bool> hasDeedsOfItsOwn(const Catalogue& other, const Catalogue& here);

} // namespace sober
