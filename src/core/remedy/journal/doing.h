#pragma once

#include "core/base/result.h"
#include "core/remedy/actions/action_type.h"

#include <vector>

namespace sober {

inline constexpr std::size_t largestBatch = 4'096; ///< actions that are carried out or taken back together

/// One action while it is carried out or taken back.
struct Doing {
    LedgerAction action;
    const PlannedAction* planned = nullptr; ///< of the docket; none where it is taken back or recovered
    std::optional<Proven> proven;
    std::optional<FileRecord> made; ///< what stands at its place then
    std::vector<Leg> taken;         ///< the changes that were made, in their order
    std::optional<Error> failure;   ///< it is given up

    const ActionType& type() const { return typeOf(action.kind); }
};

} // namespace sober
