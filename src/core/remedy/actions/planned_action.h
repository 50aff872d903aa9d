#pragma once

#include "core/audit/carriers.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/records.h"

#include <optional>

namespace sober {

/// One action of the docket as it would be carried out now, by what the catalogue knows.
struct PlannedAction {
    DocketAction action;
    Holding holding;                    ///< of an action about a place without one its id is 0
    std::string volume;                 ///< label
    BytePath path;                      ///< absolute
    BytePath target;                    ///< absolute: where it moves, or where references lead then
    std::uint64_t references = 0;       ///< that are taken along
    std::uint64_t frees = 0;            ///< bytes, once the trash is emptied; 0 where refused
    std::optional<std::string> refused; ///< the sentence why it will not be carried out
    std::vector<Carrier> carriers;      ///< of what is retired: what stays of its recording
    Loss loss = Loss::none;             ///< what is no longer held afterwards
    /// It is refused only because nobody has consented to that loss.
    bool awaitsConsent = false;
};

} // namespace sober
