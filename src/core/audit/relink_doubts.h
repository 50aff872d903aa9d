#pragma once

#include "core/audit/relink_state.h"

namespace sober {

// Links that something speaks against are only asked.

/// Two places that were two files cannot have become one, unless their content says so: then the names speak
/// for one of them at most.
void askWhereTwoClaimOne(RelinkState& state);

/// A rule that leads to another recording too often is no ground for what nothing else speaks for.
void distrustContradicted(RelinkState& state);

} // namespace sober
