#pragma once

#include "core/catalogue/ledger_store.h"

namespace sober {

/// An action with its places as they are now: a volume may have been mounted elsewhere, or its folder
/// renamed, since the ledger wrote them down. `atHand` is false where the volume is away.
struct PlacedAction {
    LedgerAction action;
    bool atHand = true;
    std::string volume = {}; ///< label
    bool forgotten = false;  ///< its volume was
};

/// For what an action waits that an interruption has left, in a sentence.
std::string waitingSentence(const PlacedAction& placed);

Result<PlacedAction> asPlacedNow(const Catalogue& catalogue, LedgerAction action);

} // namespace sober
