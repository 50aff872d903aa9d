#pragma once

#include "app/theme/marks.h"
#include "core/catalogue/ledger_store.h"
#include "core/remedy/journal/carried_out.h"

#include <QString>

namespace sober::app {

/// True for entries that changed something on a volume, or took it back.
bool isDeed(const LedgerEntry& entry);
bool wasTakenBack(const LedgerEntry& entry);
bool canBeTakenBack(const LedgerEntry& entry);

/// "Carried out", "Survey", …
QString kindText(const LedgerEntry& entry);
QString entryText(const LedgerEntry& entry);
Mark markOfKind(ActionKind kind);
/// "retire", "accept", …; nothing of none.
QString kindText(std::optional<ActionKind> kind);
/// What became of an action, in a word or two.
QString outcomeText(const LedgerAction& action);
/// What a drive has not confirmed of what was done; begins with a space, or is nothing.
QString unflushedText(const CarriedOut& result);

} // namespace sober::app
