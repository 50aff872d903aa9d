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
    Naming naming;

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

/// The folder that a lost place's file lay in, without those that have gone into its name.
std::string_view baseOf(const BytePath& lost, const Naming& naming) {
    auto base = parentOf(lost);
    for (std::size_t used = 0; used < naming.foldersUsed(); ++used) {
        base = parentOf(base);
    }
    return base;
}

void takeEndings(Shape& shape, std::string_view lost, std::string_view target) {
    if (endingOf(lost) != endingOf(target)) {
        shape.fromEnding = endingOf(lost);
        shape.toEnding = endingOf(target);
    }
}

/// Of a file that is called otherwise now.
Shape renamedShape(const BytePath& lost, const BytePath& target, const Naming& naming) {
    Shape shape;
    shape.naming = naming;
    takeEndings(shape, nameOf(lost), nameOf(target));
    std::string_view from = baseOf(lost, naming);
    std::string_view to = parentOf(target);
    shape.depth = 1;
    while (from.size() > 1 && to.size() > 1 &&
           plainWords(nameOf(from), naming.letters) == plainWords(nameOf(to))) {
        from = parentOf(from);
        to = parentOf(to);
        ++shape.depth;
    }
    shape.from = orRoot(from);
    shape.to = orRoot(to);
    return shape;
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
    takeEndings(shape, lostName, targetName);
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

/// The folder above those that are named after a file's tags, or after what was known of the lost one where
/// it has none; nothing where it lies in none.
std::optional<BytePath> aboveTagFolders(const LostPlace& lost, const RelinkCandidate& candidate) {
    const auto known = [](const std::string& own, const std::string& listed,
                          const std::string& catalogued) -> const std::string& {
        return !own.empty() ? own : !catalogued.empty() ? catalogued : listed;
    };
    const auto& former = lost.former.empty() ? FormerHolding() : lost.former.front();
    const auto artist = known(candidate.artist, lost.artist, former.artist);
    const auto folder = parentOf(candidate.path);
    const auto above = parentOf(folder);
    if (isNamedAfter(nameOf(folder), known(candidate.album, lost.album, former.album))) {
        return isNamedAfter(nameOf(above), artist) ? orRoot(parentOf(above)) : orRoot(above);
    }
    return isNamedAfter(nameOf(folder), artist) ? std::optional(orRoot(above)) : std::nullopt;
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
    return {
        kind, std::move(from),      std::move(to),    endings.fromEnding, endings.toEnding, endings.naming,
        0,    support.confidence(), support.grounds()};
}

/// How each pair's path follows; nothing where it follows from nothing that is known.
std::vector<std::optional<Shape>> shapesOf(std::span<const LostPlace> lost,
                                           const RelinkCandidates& candidates,
                                           std::span<const RelinkVote> votes) {
    std::vector<std::optional<Shape>> shapes;
    std::vector<std::vector<Naming>> namings(votes.size());
    std::map<Naming, std::uint64_t> explained;
    for (std::size_t at = 0; at < votes.size(); ++at) {
        const auto& place = lost[votes[at].lost];
        const auto& candidate = candidates[votes[at].candidate];
        shapes.push_back(shapeOf(place.path, candidate.path));
        // Two names that only look as if one was made from the other are no ground.
        if (!shapes.back() && votes[at].agreement == Agreement::sameContent) {
            namings[at] = namingsOf(place, candidate);
            for (const auto& naming : namings[at]) {
                ++explained[naming];
            }
        }
    }
    for (std::size_t at = 0; at < votes.size(); ++at) {
        if (!namings[at].empty()) {
            const auto best = std::ranges::max_element(
                namings[at], {}, [&](const Naming& naming) { return explained.at(naming); });
            shapes[at] = renamedShape(lost[votes[at].lost].path, candidates[votes[at].candidate].path, *best);
        }
    }
    return shapes;
}

/// Folders named after tags in which files lie that were renamed: no accident.
constexpr std::size_t severalFolders = 3;

/// Too many of one name to look at each.
constexpr std::size_t mostCalledAlike = 4096;

std::vector<std::size_t> renamedTargets(const RelinkRule& rule, const LostPlace& lost,
                                        RelinkCandidates& candidates) {
    std::vector<std::size_t> targets;
    const auto name = nameBy(rule.naming, lost);
    const auto rest = relativeTo(BytePath(baseOf(lost.path, rule.naming)), rule.from);
    if (!name || name->empty() || !rest) {
        return targets;
    }
    const auto called = rule.naming.hasAnotherNumber() ? candidates.calledLikeButForNumbers(*name)
                                                       : candidates.calledLike(*name);
    if (called.size() > mostCalledAlike) {
        return targets;
    }
    const auto restWords = plainWords(*rest, rule.naming.letters);
    const auto ending = rule.toEnding.empty() ? endingOf(lost.path) : rule.toEnding;
    for (const auto at : called) {
        const auto& candidate = candidates[at];
        const auto folder = relativeTo(BytePath(parentOf(candidate.path)), rule.to);
        const bool isThere =
            rule.kind == RelinkRuleKind::sortedByTags ? aboveTagFolders(lost, candidate) == rule.to
            : rule.kind == RelinkRuleKind::flattened  ? folder && folder->empty()
                                                      : folder && plainWords(*folder) == restWords;
        if (isThere && endingOf(candidate.path) == ending) {
            targets.push_back(at);
        }
    }
    return targets;
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
    // That folders went into the names says so already.
    words += rule.kind == RelinkRuleKind::flattened && rule.naming.foldersUsed() == 0 ? ", all in one folder"
             : rule.kind == RelinkRuleKind::sortedByTags ? ", sorted by performer and album"
             : rule.kind == RelinkRuleKind::spelling     ? ", only the spelling differs"
                                                         : "";
    if (!rule.toEnding.empty()) {
        words += fmt::format(", .{} to .{}", rule.fromEnding, rule.toEnding);
    }
    if (!rule.naming.isKept()) {
        words += ", " + wordsOf(rule.naming);
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
    auto shapes = shapesOf(lost, candidates, votes);
    for (std::size_t at = 0; at < votes.size(); ++at) {
        const auto& vote = votes[at];
        const auto& place = lost[vote.lost];
        const auto& candidate = candidates[vote.candidate];
        auto& shape = shapes[at];
        if (!shape || (shape->from == shape->to && shape->toEnding.empty() && shape->naming.isKept())) {
            continue;
        }
        const auto without = [&](const BytePath& to) {
            return Shape{{}, to, shape->fromEnding, shape->toEnding, 0, false, shape->naming};
        };
        if (shape->depth == 1) {
            auto& flat = flats[without(shape->to)];
            flat.support.add(vote, place);
            flat.froms.insert(shape->from);
            flat.tos.insert(shape->to);
            if (const auto above = aboveTagFolders(place, candidate)) {
                auto& tagged = byTags[without(*above)];
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
        grouped.froms.insert(shape->from == shape->to ? orRoot(baseOf(place.path, shape->naming))
                                                      : shape->from);
    }
    std::vector<RelinkRule> rules;
    // From and to of single folders, and the naming there, that a wider rule explains.
    std::set<std::tuple<BytePath, BytePath, Naming>> covered;
    for (const auto& [shape, group] : byTags) {
        // One folder that now lies in several: it was sorted, not renamed.
        const bool spread = group.tos.size() > group.froms.size() ||
                            (!shape.naming.isKept() && group.tos.size() >= severalFolders);
        if (spread && isEnough(group.support, commonOf(group.froms))) {
            for (const auto& from : group.froms) {
                for (const auto& to : group.tos) {
                    covered.emplace(from, to, shape.naming);
                }
            }
            rules.push_back(ruleFrom(RelinkRuleKind::sortedByTags, commonOf(group.froms), shape.to, shape,
                                     group.support));
        }
    }
    for (const auto& [shape, group] : flats) {
        if (isEnough(group.support, commonOf(group.froms)) && group.froms.size() > 1 &&
            std::ranges::none_of(group.froms, [&](const BytePath& from) {
                return covered.contains({from, shape.to, shape.naming});
            })) {
            for (const auto& from : group.froms) {
                covered.emplace(from, shape.to, shape.naming);
            }
            rules.push_back(
                ruleFrom(RelinkRuleKind::flattened, commonOf(group.froms), shape.to, shape, group.support));
        }
    }
    for (const auto& [shape, group] : folders) {
        const auto from = commonOf(group.froms);
        if (isEnough(group.support, from) && !covered.contains({shape.from, shape.to, shape.naming})) {
            rules.push_back(ruleFrom(RelinkRuleKind::folder, from, shape.from == shape.to ? from : shape.to,
                                     shape, group.support));
        }
    }
    return rules;
}

std::optional<RelinkRule> ruleOfExample(const LostPlace& lost, const RelinkCandidate& target) {
    auto shape = shapeOf(lost.path, target.path);
    if (!shape) {
        const auto namings = namingsOf(lost, target);
        shape = namings.empty() ? shape : renamedShape(lost.path, target.path, namings.front());
    }
    if (!shape || shape->numbered ||
        (shape->from == shape->to && shape->toEnding.empty() && shape->naming.isKept())) {
        return std::nullopt;
    }
    // Where only the ending is another, the example speaks for its own folder.
    const bool stays = shape->from == shape->to;
    const auto from = stays ? orRoot(baseOf(lost.path, shape->naming)) : shape->from;
    return RelinkRule{RelinkRuleKind::folder,
                      from,
                      stays ? from : shape->to,
                      shape->fromEnding,
                      shape->toEnding,
                      shape->naming,
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
                                   RelinkCandidates& candidates) {
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
    if (!rule.naming.isKept()) {
        return renamedTargets(rule, lost, candidates);
    }
    if (rule.kind == RelinkRuleKind::sortedByTags) {
        for (const auto at : candidates.named(foldedStem(lost.path))) {
            const auto& candidate = candidates[at];
            if (isWithin(candidate.path, rule.to) && nameOf(candidate.path) == ended(nameOf(lost.path)) &&
                aboveTagFolders(lost, candidate) == rule.to) {
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
