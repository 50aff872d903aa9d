#pragma once

#include "app/lists/columns.h"
#include "core/audit/found_holding.h"
#include "core/catalogue/action_kind.h"

namespace sober::app {

/// One line of what was found.
struct FoundRow {
    FoundHolding found;
    std::optional<ActionKind> waiting; ///< on the docket
};

std::vector<Column<FoundRow>> foundColumns();
Result<std::vector<FoundRow>> fetchFoundRows(const Catalogue& catalogue, std::span<const HoldingId> ids);

} // namespace sober::app
