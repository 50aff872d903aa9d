#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/player_store.h"

namespace sober {

struct PlayersRead {
    std::uint64_t lists = 0; ///< looked at
    std::uint64_t read = 0;  ///< of those, new or changed
    std::uint64_t references = 0;
    std::vector<SurveyError> errors; ///< lists that could not be read
    bool interrupted = false;
};

/// Reads the lists of all players that are new or changed, forgets those that are gone, and looks where every
/// reference leads now. Lists on a volume that is away stay as they are known. Writes to no volume.
Result<PlayersRead> readPlayers(
    const Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress = [](const Progress&) {});

/// Takes lists, or folders that hold some, in as a player's. An empty name means the
/// player that has the first place already, or is made of it. A player of that name gets the places and ways
/// beside his own.
/// Where most of the absolute locations lead somewhere only below the root of their volume, the player is
/// taken for a device that calls that "/".
Result<Player> takeInPlayer(
    const Catalogue& catalogue, Player player, RunControl& control,
    const ProgressSink& onProgress = [](const Progress&) {});

} // namespace sober
