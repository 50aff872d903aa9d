#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/holding_filter.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/transfer_store.h"

namespace sober {

/// What is to come along; what two of these name comes once.
struct TransferChoice {
    std::vector<BytePath> lists;                        ///< absolute; of any player, or of none
    std::vector<PlayerId> players;                      ///< with all that their lists refer to
    std::vector<VolumeId> volumes;                      ///< with all that is on them
    std::vector<std::pair<VolumeId, BytePath>> folders; ///< relative to the volume's root
    std::vector<std::pair<std::string, HoldingFilter>>
        filters;              ///< standing lists by name, and what was found
    bool andUnlisted = false; ///< what no list names, of the volumes on which the others lie, too
    bool keepersOnly = false; ///< of copies, the keeper in place of those that it is advised to retire

    bool isEmpty() const {
        return lists.empty() && players.empty() && volumes.empty() && folders.empty() && filters.empty();
    }
};

/// A chosen list with its entries; the holding of one that does not come is 0.
struct ChosenList {
    BytePath path; ///< absolute
    std::vector<Reference> entries;
};

/// What comes, by the catalogue as it stands.
struct Chosen {
    std::vector<HoldingId> holdings; ///< each once, in the order in which they were met
    std::vector<ChosenList> lists;
    std::vector<NotComing> left;
    /// Present holdings of the volumes on which the chosen lie, named by no list and not chosen: what would
    /// be forgotten if the old place went.
    std::vector<HoldingId> inNoList;
};

/// Cause::notFound where a list cannot be read, Cause::interrupted where it was stopped.
Result<Chosen> choose(const Catalogue& catalogue, const TransferChoice& choice, RunControl& control);

} // namespace sober
