#pragma once

#include "app/lists/columns.h"
#include "core/intake/arrivals.h"

namespace sober::app {

std::vector<Column<Arrival>> arrivalColumns();

Mark markOf(IntakeAdvice advice);
QString adviceWords(IntakeAdvice advice);
/// A holding of an arrival's recording, how it is the same and which is better.
QString heldWords(const HeldOfIt& held);

} // namespace sober::app
