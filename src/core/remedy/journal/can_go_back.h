#pragma once

#include "core/base/result.h"
#include "core/catalogue/ledger_store.h"

namespace sober {

/// Why an action cannot be taken back now, by the disk: what was set aside is gone or is another file, its
/// place is taken, or it was changed since.
Outcome canGoBack(const LedgerAction& action);

} // namespace sober
