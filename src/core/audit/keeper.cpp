#include "core/audit/keeper.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
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
};

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

std::vector<std::string> keeperReasons(const Candidate& keeper, std::span<const Candidate> all,
                                       const KeeperPreference& preference) {
    const auto beats = [&](auto worse) {
        return std::ranges::any_of(
            all, [&](const Candidate& other) { return other.holding != keeper.holding && worse(other); });
    };
    std::vector<std::string> reasons;
    if (preference.kind == Preference::onVolume && keeper.volume->id == preference.volume) {
        reasons.push_back("on " + keeper.volume->label + ", as preferred");
    }
    if (beats([](const Candidate& other) { return !other.volume->atHand; })) {
        reasons.emplace_back("on a volume that is at hand");
    }
    if (!keeper.passing && beats([](const Candidate& other) { return other.passing; })) {
        reasons.emplace_back("not in a folder for passing things");
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

MemberAdvice adviceFor(const Candidate& member, const Candidate& keeper, std::span<const Candidate> all) {
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
    advice.reasons.emplace_back("same bytes as the keeper");
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
                                   const KeeperPreference& preference) {
    std::vector<Candidate> candidates;
    for (const auto& member : members) {
        const auto volume = std::ranges::find(volumes, member.volume, &Volume::id);
        if (volume != volumes.end()) {
            candidates.push_back({&member, &*volume, nameScore(member), isPassingPlace(member.path)});
        }
    }
    const auto keeper = std::ranges::min_element(
        candidates, [&](const Candidate& a, const Candidate& b) { return isBetter(a, b, preference); });
    const bool unmet = preference.kind == Preference::onVolume &&
                       (keeper == candidates.end() || keeper->volume->id != preference.volume);
    std::vector<MemberAdvice> advice;
    for (const auto& candidate : candidates) {
        if (unmet) {
            advice.push_back({candidate.holding->id, Advice::decide, {"no copy is on the preferred volume"}});
        } else if (!keeper->volume->atHand) {
            advice.push_back({candidate.holding->id, Advice::decide, {"no copy is at hand"}});
        } else if (&candidate == &*keeper) {
            advice.push_back(
                {candidate.holding->id, Advice::keep, keeperReasons(candidate, candidates, preference)});
        } else {
            advice.push_back(adviceFor(candidate, *keeper, candidates));
        }
    }
    return advice;
}

} // namespace sober
