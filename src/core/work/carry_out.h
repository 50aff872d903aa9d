#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/docket_store.h"
#include "core/remedy/journal/carried_out.h"
#include "core/remedy/journal/hooks.h"

namespace sober {

/// Carries the docket out: looks which volumes are at hand and what the lists say now, reviews, and does what
/// is not refused. Each file is checked on the disk first: still the recorded content, and a copy that stays,
/// compared byte for byte; then it is moved to the trash, journalled before and after. What is made anew is
/// made beside the file, read back, and only then takes its place. References lead to what stays before a
/// file is retired, and follow what is moved. What is refused stays on the docket. `which` says which of the
/// actions, where not all of them. A run that ends by an Error settles what it had begun before it returns.
Result<CarriedOut> carryOut(Catalogue& catalogue, RunControl& control, const CarryOutHooks& hooks,
                            const std::function<bool(const DocketAction&)>& which = {});

/// Takes an entry back (journal/taking_back.h) and reads the players' lists again. Settles like `carryOut`.
Result<CarriedOut> undoEntry(Catalogue& catalogue, EntryId entry, RunControl& control,
                             const CarryOutHooks& hooks);

} // namespace sober
