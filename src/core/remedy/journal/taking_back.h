#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/ledger_store.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Takes a carried-out entry back: files return from the trash to where they were, with their times; what was
/// written off is missing again; lists are what they were, byte for byte, where all of the entry is taken
/// back and nobody else has changed them. Refused one by one, with a sentence: the place is taken, the trash
/// no longer holds the file, the volume is away. An Error is the catalogue's: what was begun waits to be
/// settled.
Result<CarriedOut> takeBackEntry(Catalogue& catalogue, EntryId entry, RunControl& control,
                                 const CarryOutHooks& hooks);

/// The newest entry that can be undone.
Result<std::optional<EntryId>> lastUndoable(const Catalogue& catalogue);

} // namespace sober
