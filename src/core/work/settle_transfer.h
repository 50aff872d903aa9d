#pragma once

#include "core/catalogue/transfer_store.h"

namespace sober {

/// Brings a transfer up to date with the catalogue: an item stands at its place or waits, whatever has
/// happened since (carried out, taken back, lost with its drive). Writes it down where the catalogue is open
/// for that. The state that follows is in what comes back.
struct SettledTransfer {
    Transfer transfer;
    std::vector<TransferItem> items;

    std::uint64_t count(ItemState state) const {
        return static_cast<std::uint64_t>(std::ranges::count(items, state, &TransferItem::state));
    }
};
Result<SettledTransfer> settleTransfer(const Catalogue& catalogue, TransferId id);

/// Forgets a plan, or a transfer that has ended; nothing on a volume changes. Cause::refused for one that was
/// begun and still has something to do.
Outcome forgetTransfer(const Catalogue& catalogue, TransferId id);

} // namespace sober
