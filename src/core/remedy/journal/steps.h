#pragma once

#include "core/remedy/actions/action_type.h"
#include "core/remedy/changes/unflushed.h"

namespace sober {

// The changes of which all actions are made. Each can be made, be taken back, and tell by the disk alone
// whether it was made.

/// Whether what a step does forth stands on the disk now.
enum class Standing {
    done,
    undone,
    lost,    ///< what it is about is at neither of its names
    unknown, ///< cannot be told now
};

/// Reads the file where its name does not tell.
Standing standingOf(Step step, const LedgerAction& action);

/// Makes a change or takes it back, but for making what is made, which is the kind's own. An Error says that
/// nothing was changed.
Outcome take(const Leg& leg, const LedgerAction& action, Unflushed& unflushed);

/// Takes changes back that were made, the last first. An Error says at which of them it ended.
Outcome takeBack(std::vector<Leg>& taken, const LedgerAction& action, Unflushed& unflushed);

/// Whether a folder in which an action changes names is not flushed.
bool isUnflushed(const LedgerAction& action, const Unflushed& unflushed);
/// The folders in which an action has changed names, its volume being at hand: one that has gone since is
/// known by the folder that held it.
void noteFolders(const LedgerAction& action, Unflushed& unflushed);

} // namespace sober
