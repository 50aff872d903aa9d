#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

/// What was found in an image or a trash is put at a place: that of the missing holding that it is, or a new
/// one. Taken back, it goes to the trash.
ActionType salvageType();

// Also of what is brought back to a missing holding's place.
Result<Proven> proveSalvageable(DoingContext& context, const PlannedAction& planned, LedgerAction& action);
Result<FileRecord> makeSalvaged(DoingContext& context, const PlannedAction& planned,
                                const LedgerAction& action);

} // namespace sober
