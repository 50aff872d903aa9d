#pragma once

#include "core/remedy/changes/unflushed.h"
#include "core/remedy/journal/doing.h"

namespace sober {

/// Where an interrupted action has come to.
enum class Settled {
    finished, ///< all its changes are there
    takenBack,
    waiting, ///< it cannot be told, or neither succeeded
};

/// The change that is not made twice: by it everything before and after is told.
Step decisiveStep(const LedgerAction& action);

/// Ends the changes of an interrupted action, forth or back as it was under way: from the first change that
/// cannot be made twice on it is finished, before that it is taken back. Where it waits, the action's
/// sentence says for what.
Settled settleChanges(Doing& doing, Unflushed& unflushed);

} // namespace sober
