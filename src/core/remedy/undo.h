#pragma once

#include "core/base/run_control.h"
#include "core/remedy/carry_out.h"

namespace sober {

/// Takes a carried-out entry back: files return from the trash to where they were, with their times;
/// what was written off is missing again. Refused one by one, with a sentence: the place is taken,
/// the trash no longer holds the file, the volume is away.
Result<CarriedOut> undoEntry(Catalogue& catalogue, EntryId entry, RunControl& control,
                             const CarryOutHooks& hooks);

/// The newest entry that can be undone.
Result<std::optional<EntryId>> lastUndoable(const Catalogue& catalogue);

/// Ends what an interruption left half-way, before anything else is done with the catalogue: each
/// started action is finished or taken back by what the disk shows. Says what was done, one sentence
/// an action; nothing where all was whole.
Result<std::vector<std::string>> recoverInterrupted(Catalogue& catalogue);

} // namespace sober
