#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/remedy/carry_out.h"
#include "core/remedy/trash.h"

namespace sober {

/// Journals an action and writes the trash's note about its file; the note's name is journalled before it
/// is taken, so that a note left by a crash is known for ours. Takes the action back where it fails.
Outcome noteAside(const LedgerStore& ledger, LedgerAction& action, const CarryOutHooks& hooks);

/// Moves the file into the trash, unless it is another than was `checked`.
Outcome moveAside(const LedgerAction& action, const FileStamp& checked);

} // namespace sober
