#pragma once

#include "core/audit/set_knowledge.h"
#include "core/catalogue/records.h"

#include <span>
#include <string>
#include <vector>

namespace sober {

enum class Advice {
    keep,
    retire,
    decide, ///< the evidence does not say
};

struct MemberAdvice {
    HoldingId holding = 0;
    Advice advice = Advice::decide;
    std::vector<std::string> reasons; ///< in words, the weightiest first
};

/// What a custodian may prefer among copies that sound the same.
enum class Preference {
    evidence,    ///< what suggestKeeper weighs by itself
    onVolume,    ///< the copy on a certain volume
    betterNamed, ///< the name that says most of what the tags say
    older,       ///< the one written first
};

/// A preference together with the volume that it is about, if any.
struct KeeperPreference {
    Preference kind = Preference::evidence;
    VolumeId volume = 0;
};

/// How much a path says of what it holds: fields of the tags found in it, folders that sort it, less
/// for names that look like a second copy or a passing place. Higher is better.
int nameScore(const Holding& holding);

/// True where the path looks like a place that does not last: downloads, temporary, desktop, trash.
bool isPassingPlace(const BytePath& path);

/// Which members of a copy set to keep. Sound goes before damaged, what was measured before what is claimed,
/// then completeness, fewer generations, depth and rate that are really used; then the preference, tags and
/// name. The keeper is at hand; of the others, those at hand that are not better in any of this are advised
/// to be retired. Hard links to the keeper, those away, other masters and what is shorter but better
/// are left to be decided. With a preference that no member meets, all say decide.
std::vector<MemberAdvice> adviseOn(std::span<const Holding> members, std::span<const Volume> volumes,
                                   const KeeperPreference& preference = {}, const SetKnowledge& known = {});

} // namespace sober
