#pragma once

#include "app/lists/id_list_model.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/records.h"

#include <optional>
#include <span>
#include <vector>

namespace sober::app {

/// A holding with what speaks against its claims, as the desk lists it.
struct ClaimRow {
    Holding holding;
    std::string volume;
    BytePath root;
    bool atHand = false;
    std::optional<Evidence> evidence;
    bool accepted = false;
    bool onDocket = false;
    bool better = false; ///< a better copy is held elsewhere
};

Result<std::vector<ClaimRow>> fetchClaimRows(const Catalogue& catalogue, std::span<const HoldingId> ids);
std::vector<Column<ClaimRow>> claimColumns();

} // namespace sober::app
