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

/// Whether what an action that is carried out, or undone, has changed is not so any more: a loss of power has
/// taken it back.
bool wasReverted(const LedgerAction& action);

/// Removes what of ours could not be removed when an action ended: a note without its file, what was made
/// and is not needed.
Outcome tidy(const LedgerAction& action, Unflushed& unflushed);

/// Ends the changes of an interrupted action, forth or back as it was under way: from the first change that
/// cannot be made twice on it is finished, before that it is taken back. Where it waits, the action's
/// `waits` says for what.
Settled settleChanges(Doing& doing, Unflushed& unflushed);

} // namespace sober
