#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

namespace sober {

/// What the catalogue no longer knows once a volume is forgotten. Nothing on the volume changes by that.
struct VolumeLeaving {
    std::uint64_t holdings = 0;      ///< present ones
    std::uint64_t bytes = 0;         ///< of those
    std::uint64_t heldElsewhere = 0; ///< of those, with a fellow of their copy set on another volume
    std::uint64_t references = 0;    ///< of players, that lead to them
    std::uint64_t lists = 0;         ///< of players, that lie on it; they stay with them, read where they lie
    std::uint64_t canBeUndone = 0;   ///< actions in the ledger that could be taken back so far
    std::uint64_t onDocket = 0;      ///< actions that wait there about them
    std::uint64_t transfers = 0;     ///< not at their end, that take from it or lead to it
    std::uint64_t waiting = 0;       ///< actions that an interruption has left to be settled

    std::uint64_t heldNowhereElse() const { return holdings - heldElsewhere; }
};

/// Why a volume cannot be forgotten yet, in a sentence; "" where it can.
std::string whyNotForgotten(const Volume& volume, const VolumeLeaving& leaving);

Result<VolumeLeaving> leavingOf(const Catalogue& catalogue, VolumeId volume);

/// Takes a volume and its holdings out of the catalogue. The ledger keeps what was done there, as history:
/// none of it can be taken back from then on. Refuses where `whyNotForgotten` says so. Findings are stale
/// afterwards.
Outcome forgetVolume(const Catalogue& catalogue, const Volume& volume);

} // namespace sober
