#pragma once

#include "core/audit/set_knowledge.h"
#include "core/catalogue/policies.h"

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace sober {

enum class Advice {
    keep,
    retire,
    decide, ///< the evidence does not say
};

/// As the command prints it: "keep", "retire", "decide".
std::string_view word(Advice advice);

/// Why a member, or all of a set, is left to the custodian.
enum class Undecided {
    no, ///< it is decided
    away,
    insideArchive,
    noneAtHand,
    noneSound,
    preferenceUnmet,
    beyondPolicy,
    hardLink,
    notCompared,
    fingerprintsOnly,
    otherMaster,
    betterPart,
    notWhole,
    passage,
    asGood,
    wouldLose,
};

struct MemberAdvice {
    HoldingId holding = 0;
    Advice advice = Advice::decide;
    std::vector<std::string> reasons; ///< in words, the weightiest first
    Undecided why = Undecided::no;    ///< where the advice is `decide`
};

/// "another master or level, the ear decides"; "" for `no`.
std::string_view undecidedWords(Undecided why);

/// Which members of a copy set to keep. Sound goes before damaged, what was measured before what is claimed,
/// then completeness, fewer generations, depth and rate that are really used; then the policy's preferences,
/// tags and name. The keeper is at hand; of the others, those at hand that are not better in any of this are
/// advised to be retired. Hard links to the keeper, those away, other masters and what is shorter but better
/// are left to be decided. A policy that leaves a set lets all of its members say decide.
std::vector<MemberAdvice> adviseOn(std::span<const Holding> members, std::span<const Volume> volumes,
                                   const Policy& policy = {}, const SetKnowledge& known = {});

} // namespace sober
