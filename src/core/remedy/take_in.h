#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/ledger_store.h"
#include "core/evidence/file_pass.h"

namespace sober {

/// Flushes a file, lets the system forget what it holds of it in memory, and examines it from the medium.
Result<FileRecord> readBack(const BytePath& path, RunControl& control);

/// Writes down what a holding's file is now, after an action has changed it.
Outcome takeIn(Catalogue& catalogue, const LedgerAction& action, const FileRecord& record);

} // namespace sober
