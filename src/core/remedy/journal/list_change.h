#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/players/list_reading.h"
#include "core/remedy/changes/unflushed.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

// A player's list is changed by a file that is written beside it, flushed, read back, and then changes names
// with it: at any instant there is a whole list at its place. What came out has to be what was read; what its
// player wrote meanwhile goes back. What the list held before is kept in the ledger.

/// Why a list was left as it is; nothing where it was changed.
using LeftList = std::optional<std::string>;

/// Changes a list from what was read to `text`, journalled. An Error is the catalogue's.
Result<LeftList> changeList(const LedgerStore& ledger, EntryId entry, const BytePath& list,
                            const ReadList& read, std::string_view text, const CarryOutHooks& hooks);

/// Puts the list back byte for byte, unless something else has changed it since.
Result<LeftList> undoListChange(const LedgerStore& ledger, const LedgerAction& action,
                                const CarryOutHooks& hooks);

/// What became of an interrupted change.
struct ListRecovery {
    bool isSettled = false;
    std::string sentence; ///< what became of it, or what it waits for
};

/// Ends an interrupted one, in either direction. An Error is the catalogue's.
Result<ListRecovery> recoverListChange(const LedgerStore& ledger, const LedgerAction& action);

/// Removes what was made for a list and is left beside it; what its player may have written stays.
bool tidyList(const LedgerStore& ledger, const LedgerAction& action, Unflushed& unflushed);

} // namespace sober
