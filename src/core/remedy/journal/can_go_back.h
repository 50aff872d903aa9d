#pragma once

#include "core/base/result.h"
#include "core/catalogue/ledger_store.h"

#include <unordered_set>

namespace sober {

/// Why an action cannot be taken back now, by the disk: what was set aside is gone or is another file, its
/// place is taken, or it was changed since. `freed`: places from which others go back before it.
Outcome canGoBack(const LedgerAction& action, const std::unordered_set<BytePath>& freed = {});

} // namespace sober
