#pragma once

#include "cli/answers.h"
#include "core/audit/relink.h"

namespace sober::cli {

/// `sober players`: reads the lists that have changed and prints counts and what is found about references.
int runPlayers(const CommonOptions& common, RunControl& control);
/// `sober players add`.
int runPlayersAdd(const CommonOptions& common, const Player& player, RunControl& control);
/// `sober players remove NAME`: forgets a player; its lists stay as they are.
int runPlayersRemove(const CommonOptions& common, const std::string& name);

struct RelinkOptions {
    RelinkRequest request;
    bool write = false;
};

/// `sober relink`: finds where broken references' targets are now; with `write` carries the links out.
int runRelink(const CommonOptions& common, const RelinkOptions& options, RunControl& control);

} // namespace sober::cli
