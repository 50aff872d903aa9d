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

/// The action's places after the root of its volume went from `before` to `now`, its trash along with it.
void followRoot(LedgerAction& action, const BytePath& before, const BytePath& now);

Result<PlacedAction> asPlacedNow(const Catalogue& catalogue, LedgerAction action);

} // namespace sober
