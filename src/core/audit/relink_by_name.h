#pragma once

#include "core/audit/relink_state.h"

namespace sober {

// What the names of files say, where nothing else does.

/// Adds for a place what files of its name speak for.
void addNameVotes(const RelinkState& state, std::size_t at, std::vector<RelinkVote>& votes);

/// Links what has one file of its name, length and tags agreeing, and no rule that says it should be
/// elsewhere; what may be several, or bears its tags under another name, is asked.
void takeSingles(RelinkState& state);

} // namespace sober
