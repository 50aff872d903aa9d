#include "core/catalogue/ledger_records.h"

namespace sober {

const BytePath& standsAt(const LedgerAction& action) {
    return action.kind == ActionKind::move      ? action.made
           : action.kind == ActionKind::replace ? action.stays
                                                : action.place;
}

bool changesPlace(const LedgerAction& action) {
    return action.kind == ActionKind::move ||
           (action.kind == ActionKind::replace && action.stays != action.place);
}

} // namespace sober
