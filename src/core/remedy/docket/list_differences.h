#pragma once

#include "core/remedy/docket/review.h"

namespace sober {

/// What a list will be, line by line.
struct ListDifference {
    BytePath list;
    std::vector<std::string> players;
    std::vector<ListedChange> changes;
    std::vector<Unreachable> unreachable;
    std::string refusal; ///< why it cannot be read or changed
};

/// What carrying out these actions would change in lists; nothing is written.
Result<std::vector<ListDifference>> listDifferences(const Catalogue& catalogue, const DocketReview& review);

} // namespace sober
