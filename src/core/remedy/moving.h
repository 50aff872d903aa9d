#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/remedy/carry_out.h"
#include "core/remedy/docket.h"

namespace sober {

// A holding goes to another place on its file system by one rename; the lists that point at it follow. The
// journal's `made` is the new place.

/// Whether the target, or the nearest folder above it that is there, is on the same file system.
bool isOnSameFilesystem(const BytePath& path, const BytePath& target);

/// Moves one that was `checked`; its references have to follow before `finishMove`.
Result<LedgerAction> startMove(const LedgerStore& ledger, LedgerAction action, const CarryOutHooks& hooks);
/// Writes down that it is at its new place.
Outcome finishMove(const Catalogue& catalogue, const LedgerAction& action);
/// Moves it back before anything was recorded.
Outcome abandonMove(const LedgerStore& ledger, const LedgerAction& action, const std::string& why);

/// Moves it back; lists are put back after that, then `finishUndo` is due.
Outcome startUndo(const LedgerStore& ledger, const LedgerAction& action, const CarryOutHooks& hooks);
/// Whatever still points at the place that it left follows it, and the ledger says so.
Outcome finishUndo(const Catalogue& catalogue, const LedgerAction& action, EntryId undoing,
                   const CarryOutHooks& hooks);

/// Ends an interrupted one, in either direction, its references included; lists that follow it back belong to
/// the entry `recovery`.
Result<std::string> recoverMove(const Catalogue& catalogue, const LedgerAction& action, EntryId recovery);

} // namespace sober
