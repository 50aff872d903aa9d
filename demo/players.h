#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

namespace sober::demo {

/// The recordings that only the players' story is about, and the lists of both players: lantern's library and
/// lists in a folder of their own, tern-player's on its card.
bool makePlayed(const BytePath& folder);

/// What happened behind the players' backs: a tree renamed, another flattened.
bool letPlayersFallBehind(const BytePath& folder);

/// A place that references lead to and that nobody misses, absolute.
BytePath notMissed();

/// Two recordings of which only the tags look alike.
nlohmann::ordered_json namesakesTruth();

/// What each broken reference should lead to, and what else is planted in the lists.
nlohmann::ordered_json playersTruth();

} // namespace sober::demo
