#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/ledger_store.h"
#include "core/evidence/file_pass.h"

namespace sober {

class EvidenceWorker;

/// Flushes a file, lets the system forget what it holds of it in memory, and examines it from the medium.
Result<FileRecord> readBack(EvidenceWorker& worker, const BytePath& path, RunControl& control);

/// The same of whatever stands there: what is no audio any more, or cannot be read whole, is told by its
/// bytes.
Result<FileRecord> readAsItIs(EvidenceWorker& worker, const BytePath& path, RunControl& control);

/// Done where a file's bytes have this checksum; Cause::changed where they have another.
Outcome holds(const BytePath& path, const Checksum128& checksum);

/// Done where a file holds what an action has written down of it, by its checksum; else the sentence that it
/// does not. What was set aside because its drive could not read it may be readable again: then it is what
/// was made. Of what was only moved the size and the time that are catalogued will do.
Outcome holdsWhatWentAside(const BytePath& path, const LedgerAction& action);

/// Writes down what a holding's file is now, after an action has changed it.
Outcome takeIn(Catalogue& catalogue, const LedgerAction& action, const FileRecord& record);

} // namespace sober
