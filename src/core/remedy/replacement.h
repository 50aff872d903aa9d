#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/evidence/file_pass.h"
#include "core/remedy/carry_out.h"

namespace sober {

// A file that was made anew takes the place of another, which goes to the trash. At any instant the
// journal, the place, the trash and the made file together tell how far it has come.

/// Where the file that replaces `place` is made: beside it, with the same ending. One name for each action.
BytePath placeForMade(const BytePath& place, EntryId entry, HoldingId holding);

/// Refuses where the volume has no room for `bytes` more beside a file.
Outcome hasRoomFor(const BytePath& beside, std::uint64_t bytes);

/// From a journalled action whose file was made, read back and found right: notes, sets the old file
/// aside unless it is another than was `checked`, puts the new one in its place and writes down what it is.
Outcome replaceByMade(Catalogue& catalogue, const LedgerStore& ledger, LedgerAction& action,
                      const FileStamp& checked, const FileRecord& made, const CarryOutHooks& hooks);

/// Puts the old file back, if its place still holds what was made.
Outcome undoReplacement(Catalogue& catalogue, const LedgerStore& ledger, const LedgerAction& action,
                        const CarryOutHooks& hooks);

/// Ends an interrupted one, in either direction; yields a sentence on what became of it.
Result<std::string> recoverReplacement(Catalogue& catalogue, const LedgerStore& ledger,
                                       const LedgerAction& action);

} // namespace sober
