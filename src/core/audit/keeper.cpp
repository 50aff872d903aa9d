#include "core/audit/keeper.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <memory>
#include <utf8proc.h>

namespace sober {
namespace {

/// For comparing words: Unicode case folded, compatibility composed, marks stripped.
std::string folded(std::string_view text) {
    const std::string good = repairedUtf8(text);
    utf8proc_uint8_t* mapped = nullptr;
    const auto length = utf8proc_map(reinterpret_cast<const utf8proc_uint8_t*>(good.data()),
                                     static_cast<utf8proc_ssize_t>(good.size()), &mapped,
                                     static_cast<utf8proc_option_t>(UTF8PROC_COMPAT | UTF8PROC_DECOMPOSE |
                                                                    UTF8PROC_CASEFOLD | UTF8PROC_STRIPMARK));
    const std::unique_ptr<utf8proc_uint8_t, decltype(&std::free)> owner(mapped, &std::free);
    if (length < 0) {
        return good;
    }
    std::string out(reinterpret_cast<const char*>(mapped), static_cast<std::size_t>(length));
    std::ranges::replace(out, '_', ' ');
    return out;
}

bool holds(const std::string& foldedPath, const std::string& tag) {
    return !tag.empty() && foldedPath.find(folded(tag)) != std::string::npos;
}

/// "(1)", "copy", "Copy of", "name_1": what file managers and browsers add to a second copy.
bool looksLikeSecondCopy(std::string_view path) {
    const std::string stem = folded(stemOf(path));
    if (stem.starts_with("copy of ") || stem.ends_with(" copy") || stem.ends_with("-copy") ||
        stem.find("(copy") != std::string::npos) {
        return true;
    }
    if (stem.size() >= 3 && stem.back() == ')') {
        const auto open = stem.rfind('(');
        return open != std::string::npos && open + 2 < stem.size() &&
               std::all_of(stem.begin() + static_cast<std::ptrdiff_t>(open) + 1, stem.end() - 1,
                           [](char c) { return c >= '0' && c <= '9'; }) &&
               stem.size() - open <= 4;
    }
    return false;
}

/// "track01", "audio 3", "untitled": names that say nothing.
bool saysNothing(std::string_view path) {
    const std::string stem = folded(stemOf(path));
    const auto letters = stem.substr(0, stem.find_first_of("0123456789"));
    constexpr std::array<std::string_view, 8> empty{"track",    "track ", "audio", "audio ",
                                                    "untitled", "rec",    "file",  ""};
    return std::ranges::find(empty, letters) != empty.end();
}

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
    int bits = 0;       ///< really used
    bool plain = false; ///< samples as they are, uncompressed: no check value of their own
    int tags = 0;       ///< fields that are filled
};

int filledTags(const Tags& tags) {
    int filled = 0;
    for (const auto* tag : {&tags.title, &tags.artist, &tags.album, &tags.track, &tags.date}) {
        filled += tag->empty() ? 0 : 1;
    }
    return filled;
}

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
bool isBetter(const Candidate& a, const Candidate& b, const KeeperPreference& preference) {
    if (a.volume->atHand != b.volume->atHand) {
        return a.volume->atHand;
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
    if (preference.kind == Preference::onVolume) {
        const bool aThere = a.volume->id == preference.volume;
        const bool bThere = b.volume->id == preference.volume;
        if (aThere != bThere) {
            return aThere;
        }
    }
    if (preference.kind == Preference::older && a.holding->mtime != b.holding->mtime) {
        return a.holding->mtime < b.holding->mtime;
    }
    if (preference.kind == Preference::betterNamed && a.name != b.name) {
        return a.name > b.name;
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
                                       const KeeperPreference& preference, const SetKnowledge& known) {
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
    if (preference.kind == Preference::onVolume && keeper.volume->id == preference.volume) {
        reasons.push_back("on " + keeper.volume->label + ", as preferred");
    }
    if (beats([](const Candidate& other) { return !other.volume->atHand; })) {
        reasons.emplace_back("on a volume that is at hand");
    }
    if (!keeper.passing && beats([](const Candidate& other) { return other.passing; })) {
        reasons.emplace_back("not in a folder for passing things");
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

/// What the evidence says against retiring a member in favour of the keeper; "" where nothing does.
std::string whyUndecided(const Candidate& member, const Candidate& keeper, const SetKnowledge& known,
                         std::optional<Sameness> link) {
    if (!link) {
        return "it was not compared with the keeper itself";
    }
    const auto comparison = known.comparison(keeper.at, member.at);
    const std::string words = comparison ? comparisonWords(*comparison) : std::string();
    const std::string shows = words.empty() ? std::string() : ": " + words;
    if (link == Sameness::otherMaster) {
        return "another master or level, the ear decides" + shows;
    }
    if (link == Sameness::part && member.quality > keeper.quality) {
        return "shorter, and better than the keeper" + shows;
    }
    if (link == Sameness::part) {
        const double begins = comparison ? comparison->offset : 0;
        const double ends = begins + 2.0 * member.seconds;
        if (!comparison || begins < -1.5 || ends > 2.0 * keeper.seconds + 3.5) {
            return "not all of it is in the keeper" + shows;
        }
    }
    if (link > Sameness::samples && !known.isProven(keeper.at, member.at)) {
        return "only the fingerprints were compared";
    }
    if (link == Sameness::lossyCopy && !member.holding->claims.lossless &&
        !differsInMeasure(member, keeper)) {
        return "as good as the keeper by all that was measured" + shows;
    }
    return {};
}

MemberAdvice adviceFor(const Candidate& member, const Candidate& keeper, std::span<const Candidate> all,
                       const SetKnowledge& known) {
    MemberAdvice advice{member.holding->id, Advice::retire, {}};
    if (!member.volume->atHand) {
        advice.advice = Advice::decide;
        advice.reasons.push_back(member.volume->label + " is away: nothing can be done there now");
        return advice;
    }
    if (sameFile(member, keeper)) {
        advice.advice = Advice::decide;
        advice.reasons.emplace_back("a hard link to the keeper: retiring it frees nothing");
        return advice;
    }
    const auto link = known.isEmpty() ? Sameness::bytes : known.between(keeper.at, member.at);
    if (auto why = whyUndecided(member, keeper, known, link); !why.empty()) {
        advice.advice = Advice::decide;
        advice.reasons.push_back(std::move(why));
        return advice;
    }
    if (link > Sameness::samples && !member.sound) {
        advice.reasons.emplace_back("damaged");
    }
    if (link > Sameness::samples && differsInMeasure(member, keeper)) {
        advice.reasons.push_back(qualityWords(member, known));
    }
    const auto comparison = known.comparison(keeper.at, member.at);
    advice.reasons.push_back(link == Sameness::part ? "all of it is in the keeper"
                             : link == Sameness::lossyCopy && comparison && comparison->residual < 0
                                 ? "the keeper's recording: " + comparisonWords(*comparison)
                                 : samenessWords(*link) + " as the keeper");
    if (member.passing && !keeper.passing) {
        advice.reasons.emplace_back("lies in a folder for passing things");
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

} // namespace

bool isPassingPlace(const BytePath& path) {
    constexpr std::array<std::string_view, 10> names{"downloads", "download", "desktop", "temp",
                                                     "tmp",       "incoming", "inbox",   "trash",
                                                     "unsorted",  "to sort"};
    std::string_view rest = path;
    while (true) {
        const auto slash = rest.find('/');
        if (slash == std::string_view::npos) {
            return false;
        }
        if (std::ranges::find(names, folded(rest.substr(0, slash))) != names.end()) {
            return true;
        }
        rest.remove_prefix(slash + 1);
    }
}

int nameScore(const Holding& holding) {
    const std::string path = folded(holding.path);
    const auto& tags = holding.tags;
    int score = 0;
    score += holds(path, tags.title) ? 4 : 0;
    score += holds(path, tags.artist) ? 2 : 0;
    score += holds(path, tags.album) ? 2 : 0;
    score += std::min(depthOf(holding.path), 2);
    score -= looksLikeSecondCopy(holding.path) ? 4 : 0;
    score -= saysNothing(holding.path) ? 2 : 0;
    score -= isUtf8(holding.path) ? 0 : 2;
    return score;
}

std::vector<MemberAdvice> adviseOn(std::span<const Holding> members, std::span<const Volume> volumes,
                                   const KeeperPreference& preference, const SetKnowledge& known) {
    std::vector<Candidate> candidates;
    for (const auto& member : members) {
        const auto volume = std::ranges::find(volumes, member.volume, &Volume::id);
        if (volume != volumes.end()) {
            Candidate candidate{&member, &*volume, nameScore(member), isPassingPlace(member.path)};
            candidate.at = static_cast<std::size_t>(&member - members.data());
            candidate.tags = filledTags(member.tags);
            tellMeasured(candidate, known);
            candidates.push_back(candidate);
        }
    }
    const auto better = [&](const Candidate& a, const Candidate& b) { return isBetter(a, b, preference); };
    const auto waveforms = waveformsOf(candidates, known);
    const auto keeper = bestOfMain(waveforms, better);
    const bool unmet = preference.kind == Preference::onVolume &&
                       (keeper == nullptr || keeper->volume->id != preference.volume);
    std::vector<MemberAdvice> advice;
    for (const auto& candidate : candidates) {
        if (unmet) {
            advice.push_back({candidate.holding->id, Advice::decide, {"no copy is on the preferred volume"}});
        } else if (!keeper->volume->atHand) {
            advice.push_back({candidate.holding->id, Advice::decide, {"no copy is at hand"}});
        } else if (!keeper->sound) {
            advice.push_back({candidate.holding->id, Advice::decide, {"no sound copy is at hand"}});
        } else if (&candidate == keeper) {
            advice.push_back({candidate.holding->id, Advice::keep,
                              keeperReasons(candidate, candidates, preference, known)});
        } else {
            advice.push_back(adviceFor(candidate, *keeper, candidates, known));
            const auto& alike = waveforms[candidate.at];
            const auto* best = *std::ranges::min_element(
                alike, [&](const Candidate* a, const Candidate* b) { return better(*a, *b); });
            if (advice.back().advice == Advice::decide && best != &candidate && best->volume->atHand &&
                best->sound) {
                // Of another master, too, one copy is enough.
                auto beside = adviceFor(candidate, *best, candidates, known);
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
