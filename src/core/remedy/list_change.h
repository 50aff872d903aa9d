#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/players/list_reading.h"
#include "core/remedy/carry_out.h"

namespace sober {

// A player's list is changed by a file that is written beside it, flushed, read back and then renamed over
// it: at any instant there is a whole list at its place. What it held before is kept in the ledger.

/// Why a list cannot be changed at all: gone, or read-only. Nothing where it can.
std::optional<std::string> whyNeverChange(const BytePath& list);
/// The same, or that it is open for writing in its player now.
std::optional<std::string> whyNotChange(const BytePath& list);

/// Changes a list from what was read to `text`, journalled. Refused where it is another by now.
Outcome changeList(const LedgerStore& ledger, EntryId entry, const BytePath& list, const ReadList& read,
                   std::string_view text, const CarryOutHooks& hooks);

/// Puts the list back byte for byte, unless its player has changed it since.
Outcome undoListChange(const LedgerStore& ledger, const LedgerAction& action, const CarryOutHooks& hooks);

/// Ends an interrupted one, in either direction; yields a sentence on what became of it.
Result<std::string> recoverListChange(const LedgerStore& ledger, const LedgerAction& action);

} // namespace sober
