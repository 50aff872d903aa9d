#include "core/audit/keeper.h"

#include "core/audit/carriers.h"
#include "core/audit/name_score.h"
#include "core/audit/preferences.h"
#include "core/base/inner_path.h"
#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

struct Candidate {
    const Holding* holding = nullptr;
    const Volume* volume = nullptr;
    int name = 0;
    bool passing = false;
    std::size_t at = 0; ///< among the members
    bool sound = true;
    int quality = 0; ///< in steps of a fifth: finer differences say nothing
    int seconds = 0; ///< in steps of two
    int generations = 0;
    int bits = 0;        ///< really used
    bool plain = false;  ///< samples as they are, uncompressed: no check value of their own
    int tags = 0;        ///< fields that are filled
    bool inside = false; ///< an archive
};

void tellMeasured(Candidate& candidate, const SetKnowledge& known) {
    if (known.isEmpty()) {
        return;
    }
    const auto& facts = known.facts(candidate.at);
    const auto& claims = candidate.holding->claims;
    candidate.sound = !facts.examined || facts.evidence.sound();
    candidate.quality = static_cast<int>(
        std::lround(4 * std::log2(std::max(1.0, known.quality(*candidate.holding, candidate.at)))));
    candidate.seconds =
        static_cast<int>(std::lround((facts.examined ? facts.evidence.seconds : claims.duration) / 2));
    candidate.generations = known.generations(*candidate.holding, candidate.at);
    candidate.plain = claims.codec.starts_with("pcm");
    candidate.bits = claims.lossless ? facts.evidence.levels.effectiveBitDepth : 0;
}

bool sameFile(const Candidate& a, const Candidate& b) {
    const bool sameFilesystem =
        a.volume == b.volume || (!a.volume->identity.filesystem.empty() &&
                                 a.volume->identity.filesystem == b.volume->identity.filesystem);
    return a.holding->links > 1 && sameFilesystem && a.holding->inode == b.holding->inode;
}

/// True where `a` is rather kept than `b`.
bool isBetter(const Candidate& a, const Candidate& b, const Policy& policy) {
    if (a.volume->atHand != b.volume->atHand) {
        return a.volume->atHand;
    }
    if (a.inside != b.inside) {
        return b.inside;
    }
    if (a.sound != b.sound) {
        return a.sound;
    }
    if (a.quality != b.quality) {
        return a.quality > b.quality;
    }
    if (std::abs(a.seconds - b.seconds) > 1) {
        return a.seconds > b.seconds;
    }
    if (a.generations != b.generations) {
        return a.generations < b.generations;
    }
    if (a.bits != b.bits) {
        return a.bits > b.bits;
    }
    if (a.plain != b.plain) {
        return b.plain;
    }
    if (const int preferred = compareBy(policy, *a.holding, *b.holding); preferred != 0) {
        return preferred < 0;
    }
    if (a.passing != b.passing) {
        return b.passing;
    }
    if (a.tags != b.tags) {
        return a.tags > b.tags;
    }
    if (a.name != b.name) {
        return a.name > b.name;
    }
    if (a.holding->mtime != b.holding->mtime) {
        return a.holding->mtime < b.holding->mtime;
    }
    if (a.volume->label != b.volume->label) {
        return a.volume->label < b.volume->label;
    }
    return a.holding->path < b.holding->path;
}

/// What the sound of a member is worth, in words.
std::string qualityWords(const Candidate& member, const SetKnowledge& known) {
    const auto& claims = member.holding->claims;
    const auto& verdict = known.facts(member.at).evidence.verdict;
    const std::string stated =
        claims.lossless ? "lossless" : fmt::format("{} at {} kbit/s", claims.codec, claims.bitrate / 1000);
    switch (verdict.verdict) {
    case VerdictClass::transcoded:
        return fmt::format("claims {}, and was {}{} before", stated, verdict.sourceCodec,
                           verdict.sourceBitrate > 0
                               ? fmt::format(" at {} kbit/s", verdict.sourceBitrate / 1000)
                               : std::string());
    case VerdictClass::doubtful:
        return fmt::format("claims {}, which is doubtful", stated);
    case VerdictClass::genuine:
        return fmt::format("genuine {}", stated);
    case VerdictClass::undetermined:
        break;
    }
    return stated;
}

std::vector<std::string> keeperReasons(const Candidate& keeper, std::span<const Candidate> all,
                                       std::span<const Volume> volumes, const Policy& policy,
                                       const SetKnowledge& known) {
    const auto beats = [&](auto worse) {
        return std::ranges::any_of(
            all, [&](const Candidate& other) { return other.holding != keeper.holding && worse(other); });
    };
    std::vector<std::string> reasons;
    if (beats([&](const Candidate& other) { return keeper.sound && !other.sound; })) {
        reasons.emplace_back("decodes whole, another is damaged");
    }
    if (beats([&](const Candidate& other) { return other.quality < keeper.quality; })) {
        reasons.push_back(qualityWords(keeper, known));
    }
    if (beats([&](const Candidate& other) { return keeper.seconds - other.seconds > 1; })) {
        reasons.emplace_back("the longest");
    }
    if (beats([&](const Candidate& other) {
            return other.quality == keeper.quality && other.generations > keeper.generations;
        })) {
        reasons.emplace_back("fewer lossy generations");
    }
    if (beats([&](const Candidate& other) {
            return other.quality == keeper.quality && other.bits < keeper.bits;
        })) {
        reasons.push_back(fmt::format("{} bits are really used", keeper.bits));
    }
    if (!keeper.plain && beats([](const Candidate& other) { return other.plain; })) {
        reasons.emplace_back("compressed without loss, with a check value of its own");
    }
    for (const auto& preference : policy.preferences) {
        if (beats([&](const Candidate& other) {
                return compareBy(preference, *keeper.holding, *other.holding) < 0;
            })) {
            reasons.push_back(preferenceWords(preference, volumes) + ", as preferred");
        }
    }
    if (beats([](const Candidate& other) { return !other.volume->atHand; })) {
        reasons.emplace_back("on a volume that is at hand");
    }
    if (!keeper.passing && beats([](const Candidate& other) { return other.passing; })) {
        reasons.emplace_back("not in a temporary place, such as downloads");
    }
    if (beats([&](const Candidate& other) { return other.tags < keeper.tags; })) {
        reasons.emplace_back("its tags say more");
    }
    if (beats([&](const Candidate& other) { return other.name < keeper.name; })) {
        reasons.emplace_back("its name says more of what it is");
    }
    if (beats([&](const Candidate& other) { return other.holding->mtime > keeper.holding->mtime; })) {
        reasons.emplace_back("the one written first");
    }
    if (reasons.empty()) {
        reasons.emplace_back("all are alike; the first by volume and name");
    }
    return reasons;
}

bool differsInMeasure(const Candidate& a, const Candidate& b) {
    return a.sound != b.sound || a.quality != b.quality || a.generations != b.generations;
}

/// Why the evidence does not let a member go in favour of the keeper.
Undecided whyUndecided(const Candidate& member, const Candidate& keeper, const Policy& policy,
                       const SetKnowledge& known, std::optional<Sameness> link) {
    if (!member.volume->atHand) {
        return Undecided::away;
    }
    if (member.inside || keeper.inside) {
        return Undecided::insideArchive;
    }
    if (sameFile(member, keeper)) {
        return Undecided::hardLink;
    }
    if (!link) {
        return Undecided::notCompared;
    }
    if (link == Sameness::otherMaster) {
        return Undecided::otherMaster;
    }
    if (link == Sameness::part && member.quality > keeper.quality) {
        return Undecided::betterPart;
    }
    if (link == Sameness::part && !isContained(member.at, keeper.at, known)) {
        return Undecided::notWhole;
    }
    if (link == Sameness::part && isPassage(member.seconds, keeper.seconds)) {
        return Undecided::passage;
    }
    if (link > Sameness::samples && !known.isProven(keeper.at, member.at)) {
        return Undecided::fingerprintsOnly;
    }
    const bool alike = !differsInMeasure(member, keeper) && !member.holding->claims.lossless;
    if (link == Sameness::lossyCopy && alike && compareBy(policy, *keeper.holding, *member.holding) >= 0) {
        return Undecided::asGood;
    }
    const auto loss = lossBetween(*member.holding, member.at, *keeper.holding, keeper.at, known);
    return loss.value_or(Loss::none) != Loss::none ? Undecided::wouldLose : Undecided::no;
}

/// What a comparison adds to the words, where there was one that matters.
std::string shownBy(Undecided why, const std::optional<DecodeComparison>& comparison) {
    const bool tells = why == Undecided::otherMaster || why == Undecided::betterPart ||
                       why == Undecided::notWhole || why == Undecided::passage || why == Undecided::asGood;
    const std::string words = tells && comparison ? comparisonWords(*comparison) : std::string();
    return words.empty() ? std::string() : ": " + words;
}

MemberAdvice adviceFor(const Candidate& member, const Candidate& keeper, std::span<const Candidate> all,
                       const Policy& policy, const SetKnowledge& known) {
    const auto link = known.isEmpty() ? Sameness::bytes : known.between(keeper.at, member.at);
    const auto comparison = known.comparison(keeper.at, member.at);
    if (const auto why = whyUndecided(member, keeper, policy, known, link); why != Undecided::no) {
        std::string words = std::string(undecidedWords(why)) + shownBy(why, comparison);
        if (why == Undecided::away) {
            words = member.volume->label + " is away: nothing can be done there now";
        } else if (why == Undecided::wouldLose) {
            words = lossWords(*lossBetween(*member.holding, member.at, *keeper.holding, keeper.at, known));
        }
        return {member.holding->id, Advice::decide, {std::move(words)}, why};
    }
    MemberAdvice advice{member.holding->id, Advice::retire, {}, Undecided::no};
    if (link > Sameness::samples && !member.sound) {
        advice.reasons.emplace_back("damaged");
    }
    if (link > Sameness::samples && differsInMeasure(member, keeper)) {
        advice.reasons.push_back(qualityWords(member, known));
    }
    advice.reasons.push_back(link == Sameness::part ? "all of it is in the keeper"
                             : link == Sameness::lossyCopy && comparison && comparison->residual < 0
                                 ? "the keeper's recording: " + comparisonWords(*comparison)
                                 : samenessWords(*link) + " as the keeper");
    if (member.passing && !keeper.passing) {
        advice.reasons.emplace_back("lies in a temporary place, such as downloads");
    }
    if (looksLikeSecondCopy(member.holding->path)) {
        advice.reasons.emplace_back("named as a second copy");
    }
    const bool keeperAlone = std::ranges::none_of(all, [&](const Candidate& other) {
        return other.volume != keeper.volume && other.holding != member.holding &&
               other.volume != member.volume;
    });
    if (member.volume != keeper.volume && keeperAlone) {
        advice.reasons.push_back("the recording would then be on " + keeper.volume->label + " only");
    }
    return advice;
}

/// For each member, those that are the same waveform: tied by no weaker link than a lossy copy.
std::vector<std::vector<const Candidate*>> waveformsOf(std::span<const Candidate> candidates,
                                                       const SetKnowledge& known) {
    std::size_t members = 0;
    for (const auto& candidate : candidates) {
        members = std::max(members, candidate.at + 1);
    }
    std::vector<std::vector<const Candidate*>> alike(members);
    for (const auto& one : candidates) {
        for (const auto& other : candidates) {
            const auto link = known.isEmpty() || one.at == other.at ? std::optional(Sameness::bytes)
                                                                    : known.between(one.at, other.at);
            if (link && *link <= Sameness::lossyCopy) {
                alike[one.at].push_back(&other);
            }
        }
    }
    return alike;
}

/// The best copy of the waveform that most members carry; of several such, the one whose best is better.
template <typename Better>
const Candidate* bestOfMain(const std::vector<std::vector<const Candidate*>>& waveforms, Better better) {
    const Candidate* best = nullptr;
    std::size_t most = 0;
    for (const auto& alike : waveforms) {
        if (alike.empty() || alike.size() < most) {
            continue;
        }
        const auto* here = *std::ranges::min_element(
            alike, [&](const Candidate* a, const Candidate* b) { return better(*a, *b); });
        if (alike.size() > most || better(*here, *best)) {
            best = here;
            most = alike.size();
        }
    }
    return best;
}

/// Why nothing of the set is decided at all.
Undecided whyAllUndecided(const Candidate* keeper, const Policy& policy) {
    if (keeper == nullptr || !keeper->volume->atHand) {
        return Undecided::noneAtHand;
    }
    if (!keeper->sound) {
        return Undecided::noneSound;
    }
    const bool unmet = policy.onlyWhereMet && !policy.preferences.empty() &&
                       !meets(policy.preferences.front(), *keeper->holding);
    return unmet ? Undecided::preferenceUnmet : Undecided::no;
}

} // namespace

std::string_view word(Advice advice) {
    switch (advice) {
    case Advice::keep:
        return "keep";
    case Advice::retire:
        return "retire";
    case Advice::decide:
        break;
    }
    return "decide";
}

std::string_view undecidedWords(Undecided why) {
    switch (why) {
    case Undecided::no:
        break;
    case Undecided::away:
        return "its volume is away";
    case Undecided::insideArchive:
        return "held inside an archive, which is never written to";
    case Undecided::noneAtHand:
        return "no copy is at hand";
    case Undecided::noneSound:
        return "no sound copy is at hand";
    case Undecided::preferenceUnmet:
        return "the best copy does not meet the first preference";
    case Undecided::beyondPolicy:
        return "they are less alike than the policy decides on";
    case Undecided::hardLink:
        return "a hard link to the keeper: retiring it frees nothing";
    case Undecided::notCompared:
        return "it was not compared with the keeper itself";
    case Undecided::fingerprintsOnly:
        return "only the fingerprints were compared";
    case Undecided::otherMaster:
        return "another master or level, the ear decides";
    case Undecided::betterPart:
        return "shorter, and better than the keeper";
    case Undecided::notWhole:
        return "not all of it is in the keeper";
    case Undecided::passage:
        return "only a passage of the keeper";
    case Undecided::asGood:
        return "as good as the keeper by all that was measured";
    case Undecided::wouldLose:
        return "something of it would no longer be held";
    }
    return {};
}

std::vector<MemberAdvice> adviseOn(std::span<const Holding> members, std::span<const Volume> volumes,
                                   const Policy& policy, const SetKnowledge& known) {
    std::vector<Candidate> candidates;
    for (const auto& member : members) {
        const auto volume = std::ranges::find(volumes, member.volume, &Volume::id);
        if (volume != volumes.end()) {
            Candidate candidate{&member, &*volume, nameScore(member), isPassingPlace(member.path)};
            candidate.at = static_cast<std::size_t>(&member - members.data());
            candidate.tags = member.tags.filled();
            candidate.inside = isInsideArchive(member.path);
            tellMeasured(candidate, known);
            candidates.push_back(candidate);
        }
    }
    const auto better = [&](const Candidate& a, const Candidate& b) { return isBetter(a, b, policy); };
    const auto waveforms = waveformsOf(candidates, known);
    const auto keeper = bestOfMain(waveforms, better);
    std::vector<MemberAdvice> advice;
    if (const auto why = whyAllUndecided(keeper, policy); why != Undecided::no) {
        for (const auto& candidate : candidates) {
            advice.push_back(
                {candidate.holding->id, Advice::decide, {std::string(undecidedWords(why))}, why});
        }
        return advice;
    }
    for (const auto& candidate : candidates) {
        if (&candidate == keeper) {
            advice.push_back({candidate.holding->id, Advice::keep,
                              keeperReasons(candidate, candidates, volumes, policy, known), Undecided::no});
        } else {
            advice.push_back(adviceFor(candidate, *keeper, candidates, policy, known));
            const auto& alike = waveforms[candidate.at];
            const auto* best = *std::ranges::min_element(
                alike, [&](const Candidate* a, const Candidate* b) { return better(*a, *b); });
            if (advice.back().advice == Advice::decide && best != &candidate && best->volume->atHand &&
                best->sound) {
                // Of another master, too, one copy is enough.
                auto beside = adviceFor(candidate, *best, candidates, policy, known);
                if (beside.advice == Advice::retire) {
                    beside.reasons.insert(beside.reasons.begin(),
                                          "held beside " + displayPath(nameOf(best->holding->path)));
                    advice.back() = std::move(beside);
                }
            }
        }
    }
    return advice;
}

} // namespace sober
