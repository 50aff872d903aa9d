#pragma once

#include "cli/commands.h"

namespace sober::cli {

/// sober ledger and sober undo.
int runLedger(const CommonOptions& common);
/// One entry with its files and reasons.
int runLedgerEntry(const CommonOptions& common, const std::string& entry);
/// The ledger as PREMIS events.
int runLedgerPremis(const CommonOptions& common);
int runUndo(const CommonOptions& common, const std::string& entry, RunControl& control);

} // namespace sober::cli
