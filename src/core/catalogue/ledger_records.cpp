#include "core/catalogue/ledger_records.h"

#include "core/base/text.h"

#include <fmt/format.h>

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

std::string inWords(const LedgerEntry& entry) {
    return entry.summary + (entry.origin.empty()
                                ? std::string()
                                : fmt::format(", with the catalogue {}", displayPath(entry.origin)));
}

} // namespace sober
