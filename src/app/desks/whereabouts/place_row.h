#pragma once

#include "core/base/paths.h"
#include "core/catalogue/action_kind.h"

#include <optional>
#include <string>

namespace sober::app {

/// What is known of one lost place.
struct PlaceRow {
    std::size_t lost = 0;
    std::optional<std::size_t> link;   ///< into Relinking::links
    std::optional<std::size_t> choice; ///< into Relinking::ambiguous
    BytePath path;
    BytePath target;
    double confidence = 0;
    std::uint64_t references = 0;
    std::string players;
    std::string reason;                ///< why nothing was found
    std::optional<ActionKind> waiting; ///< the kind of action that stands on the docket
    bool lookedFor = false;            ///< the search is not through yet
};

} // namespace sober::app
