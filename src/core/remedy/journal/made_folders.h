#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/ledger_records.h"

namespace sober {

/// Removes the folders that an entry of the ledger made and in which nothing lies, unless a volume is there
/// or a player looks there. One that cannot be removed stays; an Error is the catalogue's.
Outcome removeMadeFolders(const Catalogue& catalogue, EntryId entry);

} // namespace sober
