#pragma once

#include "core/catalogue/ledger_store.h"
#include "core/evidence/file_pass.h"
#include "core/remedy/carry_out.h"

namespace sober {

// A file that was missing is put back at its place, where nothing stands: nothing is set aside. Taking it
// back moves it to the trash.

/// `action` says where to make it and which checksum it must have; `make` makes it there and reads it back.
Outcome bringBack(Catalogue& catalogue, const LedgerStore& ledger, LedgerAction action,
                  const std::function<Result<FileRecord>(const BytePath&)>& make, const CarryOutHooks& hooks);

/// The file goes to the trash and is missing again, if it is still what was brought back.
Outcome undoBringBack(const LedgerStore& ledger, LedgerAction action, const CarryOutHooks& hooks);

/// Ends an interrupted one, in either direction; yields a sentence on what became of it.
Result<std::string> recoverBringBack(Catalogue& catalogue, const LedgerStore& ledger,
                                     const LedgerAction& action);

} // namespace sober
