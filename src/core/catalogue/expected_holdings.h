#pragma once

#include "core/catalogue/ledger_store.h"

#include <span>

namespace sober {

// A copy is catalogued in two steps: its place is written down before it is made, as a holding that is not
// there (retired), and what is known of its bytes when it stands there.

/// Sets the holdings of actions that have none, made new at their places. Cause::notFound where a place lies
/// on no volume at hand.
Outcome expectHoldings(Catalogue& catalogue, std::span<LedgerAction* const> actions);

/// What is at the actions' places has the bytes of other holdings: the catalogue knows of it what it knows of
/// them, and that it waits on the docket no more.
Outcome becomeCopies(Catalogue& catalogue, std::span<const LedgerAction* const> actions);

} // namespace sober
