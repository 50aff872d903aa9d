#include "core/audit/relink_rules.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

namespace sober {
namespace {

/// How a target's path follows from the lost one: the longest end that both have in common is left out.
struct Shape {
    BytePath from;
    BytePath to;
    std::string fromEnding;
    std::string toEnding;
    int depth = 0;         ///< names that both paths end in
    bool numbered = false; ///< the target's name has a number more: names collided when folders became one

    auto operator<=>(const Shape&) const = default;
};

BytePath orRoot(std::string_view folder) {
    return folder.empty() ? BytePath("/") : BytePath(folder);
}

/// "take (2)", "take_1", "take 3" of "take".
bool isNumbered(std::string_view stem, std::string_view of) {
    if (!stem.starts_with(of) || stem.size() < of.size() + 2) {
        return false;
    }
    auto rest = stem.substr(of.size());
    rest = rest.starts_with(" (") && rest.ends_with(")") ? rest.substr(2, rest.size() - 3) : rest.substr(1);
    return std::string_view(" _-").find(stem[of.size()]) != std::string_view::npos && !rest.empty() &&
           std::ranges::all_of(rest, [](char c) { return c >= '0' && c <= '9'; });
}

std::optional<Shape> shapeOf(const BytePath& lost, const BytePath& target) {
    Shape shape;
    const auto lostName = nameOf(lost);
    const auto targetName = nameOf(target);
    shape.numbered = isNumbered(stemOf(targetName), stemOf(lostName));
    if (!shape.numbered && stemOf(lostName) != stemOf(targetName) &&
        foldedName(lostName) != foldedName(targetName)) {
        return std::nullopt;
    }
    if (endingOf(lostName) != endingOf(targetName)) {
        shape.fromEnding = endingOf(lostName);
        shape.toEnding = endingOf(targetName);
    }
    std::string_view from = parentOf(lost);
    std::string_view to = parentOf(target);
    shape.depth = 1;
    while (!shape.numbered && from.size() > 1 && to.size() > 1 && nameOf(from) == nameOf(to)) {
        from = parentOf(from);
        to = parentOf(to);
        ++shape.depth;
    }
    shape.from = orRoot(from);
    shape.to = orRoot(to);
    return shape;
}

bool isNamedAfter(std::string_view folder, const std::string& tag) {
    const auto words = lettersAndDigits(tag);
    return !tag.empty() &&
           ((!words.empty() && lettersAndDigits(folder) == words) || foldedName(folder) == foldedName(tag));
}

/// The folder above those that are named after a file's own tags; nothing where it lies in none.
std::optional<BytePath> aboveTagFolders(const RelinkCandidate& candidate) {
    const auto folder = parentOf(candidate.path);
    const auto above = parentOf(folder);
    if (isNamedAfter(nameOf(folder), candidate.album)) {
        return isNamedAfter(nameOf(above), candidate.artist) ? orRoot(parentOf(above)) : orRoot(above);
    }
    return isNamedAfter(nameOf(folder), candidate.artist) ? std::optional(orRoot(above)) : std::nullopt;
}

struct Support {
    std::uint64_t same = 0;
    std::uint64_t agreeing = 0;
    std::uint64_t distinctive = 0;
    std::uint64_t places = 0;
    std::set<std::string_view> names;

    void add(const RelinkVote& vote, const LostPlace& lost) {
        ++places;
        same += vote.agreement == Agreement::sameContent ? 1 : 0;
        if (!names.insert(nameOf(lost.path)).second) {
            return; // one name counts once, in however many folders it stands
        }
        agreeing += vote.agreement == Agreement::agrees || vote.agreement == Agreement::partly ? 1 : 0;
        distinctive += vote.distinctive ? 1 : 0;
    }
    bool isEnough(std::uint64_t below) const {
        constexpr double goodPart = 0.4;
        return same > 0 || ((agreeing >= 2 || distinctive >= 3) &&
                            static_cast<double>(places) >= goodPart * static_cast<double>(below));
    }
    double confidence() const { return same >= 2 ? 0.98 : same == 1 || agreeing >= 3 ? 0.95 : 0.9; }
    std::string grounds() const {
        return same > 0 ? fmt::format("{} there by content", counted(same, "file is", "files are"))
               : agreeing > 1
                   ? fmt::format("names, with lengths or tags that agree, of {}", counted(agreeing, "file"))
                   : fmt::format("the names of {}", counted(distinctive, "file"));
    }
};

struct Grouped {
    Support support;
    std::set<BytePath> froms;
    std::set<BytePath> tos;
};

BytePath commonOf(const std::set<BytePath>& folders) {
    BytePath common = *folders.begin();
    for (const auto& folder : folders) {
        common = isWithin(folder, common) ? common : commonFolder(common, folder);
    }
    return common;
}

RelinkRule ruleFrom(RelinkRuleKind kind, BytePath from, BytePath to, const Shape& endings,
                    const Support& support) {
    return {kind, std::move(from),      std::move(to),    endings.fromEnding, endings.toEnding,
            0,    support.confidence(), support.grounds()};
}

} // namespace

BytePath commonFolder(const BytePath& one, const BytePath& other) {
    BytePath common(parentOf(one));
    while (common.size() > 1 && !isWithin(other, common)) {
        common = BytePath(parentOf(common));
    }
    return orRoot(common);
}

std::string wordsOf(const RelinkRule& rule) {
    std::string words = displayPath(rule.from);
    words += " to ";
    words += displayPath(rule.to);
    words += rule.kind == RelinkRuleKind::flattened      ? ", all in one folder"
             : rule.kind == RelinkRuleKind::sortedByTags ? ", sorted by performer and album"
             : rule.kind == RelinkRuleKind::spelling     ? ", only the spelling differs"
                                                         : "";
    if (!rule.toEnding.empty()) {
        words += fmt::format(", .{} to .{}", rule.fromEnding, rule.toEnding);
    }
    return words;
}

PlacesBelow placesBelow(std::span<const LostPlace> lost) {
    PlacesBelow below;
    for (const auto& place : lost) {
        for (auto folder = parentOf(place.path); !folder.empty(); folder = parentOf(folder)) {
            ++below[BytePath(folder)];
            if (folder == "/") {
                break;
            }
        }
    }
    return below;
}

std::vector<RelinkRule> inferRules(std::span<const LostPlace> lost, const RelinkCandidates& candidates,
                                   std::span<const RelinkVote> votes, const PlacesBelow& below) {
    const auto isEnough = [&](const Support& support, const BytePath& from) {
        const auto all = below.find(from);
        return support.isEnough(all != below.end() ? all->second : 0);
    };
    std::map<Shape, Grouped> folders; // by from, to and endings
    std::map<Shape, Grouped> flats;   // by to and endings, of those that only the name ties
    std::map<Shape, Grouped> byTags;  // by the folder above the tag folders, and endings
    for (const auto& vote : votes) {
        const auto& place = lost[vote.lost];
        const auto& candidate = candidates[vote.candidate];
        auto shape = shapeOf(place.path, candidate.path);
        if (!shape || (shape->from == shape->to && shape->toEnding.empty())) {
            continue;
        }
        if (shape->depth == 1) {
            auto& flat = flats[{{}, shape->to, shape->fromEnding, shape->toEnding, 0, false}];
            flat.support.add(vote, place);
            flat.froms.insert(shape->from);
            flat.tos.insert(shape->to);
            if (const auto above = aboveTagFolders(candidate)) {
                auto& tagged = byTags[{{}, *above, shape->fromEnding, shape->toEnding, 0, false}];
                tagged.support.add(vote, place);
                tagged.froms.insert(shape->from);
                tagged.tos.insert(shape->to);
            }
        }
        if (shape->numbered) {
            continue; // only content shows it, and only a heap does that
        }
        shape->depth = 0;
        auto& grouped = folders[*shape];
        grouped.support.add(vote, place);
        // Where only the ending is another, the rule is about the folder that all of them lie in.
        grouped.froms.insert(shape->from == shape->to ? BytePath(parentOf(place.path)) : shape->from);
    }
    std::vector<RelinkRule> rules;
    std::set<std::pair<BytePath, BytePath>>
        covered; // from and to of single folders that a wider rule explains
    for (const auto& [shape, group] : byTags) {
        // One folder that now lies in several: it was sorted, not renamed.
        if (isEnough(group.support, commonOf(group.froms)) && group.tos.size() > group.froms.size()) {
            for (const auto& from : group.froms) {
                for (const auto& to : group.tos) {
                    covered.emplace(from, to);
                }
            }
            rules.push_back(ruleFrom(RelinkRuleKind::sortedByTags, commonOf(group.froms), shape.to, shape,
                                     group.support));
        }
    }
    for (const auto& [shape, group] : flats) {
        if (isEnough(group.support, commonOf(group.froms)) && group.froms.size() > 1 &&
            std::ranges::none_of(group.froms, [&](const BytePath& from) {
                return covered.contains({from, shape.to});
            })) {
            for (const auto& from : group.froms) {
                covered.emplace(from, shape.to);
            }
            rules.push_back(
                ruleFrom(RelinkRuleKind::flattened, commonOf(group.froms), shape.to, shape, group.support));
        }
    }
    for (const auto& [shape, group] : folders) {
        const auto from = commonOf(group.froms);
        if (isEnough(group.support, from) && !covered.contains({shape.from, shape.to})) {
            rules.push_back(ruleFrom(RelinkRuleKind::folder, from, shape.from == shape.to ? from : shape.to,
                                     shape, group.support));
        }
    }
    return rules;
}

std::optional<RelinkRule> ruleOfExample(const LostPlace& lost, const RelinkCandidate& target) {
    const auto shape = shapeOf(lost.path, target.path);
    if (!shape || shape->numbered || (shape->from == shape->to && shape->toEnding.empty())) {
        return std::nullopt;
    }
    // Where only the ending is another, the example speaks for its own folder.
    const bool stays = shape->from == shape->to;
    const auto from = stays ? BytePath(parentOf(lost.path)) : shape->from;
    return RelinkRule{RelinkRuleKind::folder,
                      from,
                      stays ? from : shape->to,
                      shape->fromEnding,
                      shape->toEnding,
                      0,
                      0.97,
                      "the example that you showed"};
}

bool leadsInto(const RelinkRule& rule, const LostPlace& lost, const RelinkCandidate& target) {
    return rule.kind == RelinkRuleKind::flattened && isWithin(lost.path, rule.from) &&
           parentOf(target.path) == rule.to &&
           isNumbered(stemOf(nameOf(target.path)), stemOf(nameOf(lost.path)));
}

std::vector<std::size_t> targetsOf(const RelinkRule& rule, const LostPlace& lost,
                                   const RelinkCandidates& candidates) {
    std::vector<std::size_t> targets;
    const auto rest = relativeTo(lost.path, rule.from);
    if (!rest || rest->empty() || (!rule.toEnding.empty() && endingOf(lost.path) != rule.fromEnding)) {
        return targets;
    }
    const auto ended = [&](std::string_view path) {
        BytePath with(path);
        if (!rule.toEnding.empty()) {
            with.resize(with.size() - (nameOf(path).size() - stemOf(nameOf(path)).size()));
            with += '.';
            with += rule.toEnding;
        }
        return with;
    };
    if (rule.kind == RelinkRuleKind::sortedByTags) {
        for (const auto at : candidates.named(foldedStem(lost.path))) {
            const auto& candidate = candidates[at];
            if (isWithin(candidate.path, rule.to) && nameOf(candidate.path) == ended(nameOf(lost.path)) &&
                aboveTagFolders(candidate) == rule.to) {
                targets.push_back(at);
            }
        }
        return targets;
    }
    const auto below = rule.kind == RelinkRuleKind::flattened ? ended(nameOf(*rest)) : ended(*rest);
    if (const auto at = candidates.at(joinPath(rule.to, below))) {
        targets.push_back(*at);
    }
    return targets;
}

} // namespace sober
