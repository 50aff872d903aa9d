#pragma once

#include "core/audit/relink_names.h"

namespace sober {

/// What has happened to a whole folder tree.
enum class RelinkRuleKind {
    folder,       ///< renamed, moved, or another machine's prefix: what lies below it is as it was
    flattened,    ///< everything below it lies in one folder now
    sortedByTags, ///< it lies in folders named after its performer and album
    spelling,     ///< only letter case, normalisation or percent signs differ
};

/// One rule, inferred from links that are certain or from many names that agree, or shown by an example.
struct RelinkRule {
    RelinkRuleKind kind = RelinkRuleKind::folder;
    BytePath from;          ///< a folder that references lead into
    BytePath to;            ///< the folder that stands for it
    std::string fromEnding; ///< where the files were replaced by another format; "" where endings stay
    std::string toEnding;
    Naming naming;           ///< how the files' own names are others
    std::uint64_t count = 0; ///< places that it links
    double confidence = 0;
    std::string grounds; ///< what it was inferred from, in words

    /// The same rule, whatever it was inferred from.
    bool sameAs(const RelinkRule& other) const {
        return kind == other.kind && from == other.from && to == other.to && fromEnding == other.fromEnding &&
               toEnding == other.toEnding && naming == other.naming;
    }
};

/// "/old/music to /new/audio", "… , all in one folder", "… , .mp3 to .flac".
std::string wordsOf(const RelinkRule& rule);

/// A pair that rules are inferred from.
struct RelinkVote {
    std::size_t lost = 0; ///< into the lost places
    std::size_t candidate = 0;
    Agreement agreement = Agreement::silent;
    bool distinctive = false; ///< its name says enough to be no accident
};

/// How many lost places lie below each folder.
using PlacesBelow = std::unordered_map<BytePath, std::uint64_t>;
PlacesBelow placesBelow(std::span<const LostPlace> lost);

/// The rules that these pairs speak for: one pair of the same content is enough, or two that agree, or three
/// distinctive names, if they are a good part of all that is lost below the rule's folder: a few namesakes
/// elsewhere are no rule. What holds for several folders with one target becomes one rule. Of several ways in
/// which names may have been made the one counts that explains most of all pairs.
std::vector<RelinkRule> inferRules(std::span<const LostPlace> lost, const RelinkCandidates& candidates,
                                   std::span<const RelinkVote> votes, const PlacesBelow& below);

/// The rule for the whole tree that one example stands for; nothing where its name is another.
std::optional<RelinkRule> ruleOfExample(const LostPlace& lost, const RelinkCandidate& target);

/// Files that a rule says a lost place may be at.
std::vector<std::size_t> targetsOf(const RelinkRule& rule, const LostPlace& lost,
                                   RelinkCandidates& candidates);

/// Whether a file that is known for what was lost got its name where a rule flattened folders: with a number
/// more.
bool leadsInto(const RelinkRule& rule, const LostPlace& lost, const RelinkCandidate& target);

/// The deepest folder that holds both.
BytePath commonFolder(const BytePath& one, const BytePath& other);

} // namespace sober
