#pragma once

#include "core/base/result.h"
#include "core/catalogue/ledger_store.h"

#include <span>

namespace sober {

/// What the catalogue is to say of an action that was carried out, or is undone.
Settlement settlementFor(const LedgerAction& action, ActionStep step);

/// The same for one that is at another place now, whose volume is to be found; Cause::notFound without one.
Result<Settlement> settlementMoved(const LedgerAction& action, ActionStep step, const BytePath& place,
                                   std::span<const Volume> volumes);

} // namespace sober
