#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <span>
#include <unordered_map>

namespace sober {

// What two catalogues have to know of each other so that one can be taken into the other
// (work/meet_catalogue.h).

/// A holding as little as tells whether another catalogue knows it.
struct KnownHolding {
    HoldingId id = 0;
    BytePath path; ///< relative to the volume's root
    HoldingState state = HoldingState::present;
    std::uint64_t size = 0;
    Checksum128 content;
    bool isExamined = false; ///< by the present method
    Nanoseconds lastSeen = 0;
    Nanoseconds deed = 0; ///< when something was last done to it or taken back, by the ledger; 0: never
    Nanoseconds firstSeen = 0;
};

/// All of a volume, by path, what was retired too.
Result<std::vector<KnownHolding>> knownOn(const Catalogue& catalogue, VolumeId volume);

/// Folders and files of a volume that its last survey could not read; absolute.
Result<std::vector<BytePath>> unreadOn(const Catalogue& catalogue, VolumeId volume);

/// A holding as a reading of it would yield it, without an excerpt.
Result<FileRecord> recordOf(const Catalogue& catalogue, HoldingId holding);

/// Which of one catalogue's volumes and holdings are which of another's.
struct Counterparts {
    std::unordered_map<VolumeId, VolumeId> volumes;
    std::unordered_map<HoldingId, HoldingId> holdings; ///< of equal content
    std::unordered_map<HoldingId, HoldingId> others;   ///< of other content by now, and the same otherwise
};

/// Where a folder or file of the other machine is here, if it lies on a volume of both; else as there.
BytePath placeHere(const BytePath& there, const std::vector<Volume>& theirs, const std::vector<Volume>& ours,
                   const Counterparts& counterparts);

/// Takes over, all or nothing, what was noted of holdings and volumes and is not noted here: baselines of
/// what has drifted, when each was verified, what could not be read, the verifications themselves; and what
/// was decided: acceptances, standing lists and policies of names that are free here; and players with what
/// they read on volumes, told by their names. Their lists are left to be read.
Outcome takeNotes(const Catalogue& from, const Catalogue& to, const Counterparts& counterparts);

/// What takes no part in such a meeting and stays where it is.
struct LeftThere {
    std::uint64_t lists = 0;   ///< of players, on no volume
    std::uint64_t actions = 0; ///< on the docket (other_docket.h)
    std::uint64_t entries = 0; ///< of its ledger (work/take_ledger.h)
};
/// How many of its players' lists are on no volume.
Result<std::uint64_t> listsOnNoVolume(const Catalogue& other);

/// Whether another catalogue has something on its docket that is newer than all that was done or decided
/// here.
Result<bool> hasDecidedSince(const Catalogue& other, const Catalogue& here);

/// How many decisions `takeNotes` would take over.
struct NewDecisions {
    std::uint64_t acceptances = 0;
    std::uint64_t standingLists = 0;
    std::uint64_t policies = 0;
    std::uint64_t players = 0; ///< of names that are not known here, with lists on volumes
};
Result<NewDecisions> newDecisions(const Catalogue& from, const Catalogue& to);

} // namespace sober
