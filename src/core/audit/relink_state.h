#pragma once

#include "core/audit/lost_places.h"
#include "core/audit/relink_rules.h"

#include <optional>
#include <unordered_map>

namespace sober {

/// More files of one name, or choices for one place, say nothing.
inline constexpr std::size_t mostNamesakes = 32;
inline constexpr std::size_t mostAsked = 8;

/// A file that a lost place is linked to, while it is looked for.
struct FoundLink {
    std::size_t candidate = 0;
    Agreement agreement = Agreement::silent;
    double confidence = 0;
    std::vector<std::string> evidence;
    std::optional<std::size_t> rule;
    bool shown = false; ///< by an example
};

/// What is known so far of lost places, of the files that may be them and of the rules that lead from one to
/// the other. Places, candidates and rules are called by their numbers.
class RelinkState {
  public:
    RelinkState(LostPlaces all, RelinkCandidates files);
    RelinkState(const RelinkState&) = delete;
    RelinkState& operator=(const RelinkState&) = delete;

    /// Not out of the folder that a player looks in.
    bool mayLeadTo(const LostPlace& place, const RelinkCandidate& candidate) const;
    /// The rule's number; a new rule is added.
    std::size_t indexOf(const RelinkRule& rule);
    /// A file that is there, catalogued or not.
    std::size_t candidateAt(const BytePath& path);
    /// Rules whose folder a place lies in, the deepest first.
    std::vector<std::size_t> rulesFor(const LostPlace& place) const;
    /// By an example.
    bool isShown(std::size_t rule) const { return std::ranges::find(shownRules, rule) != shownRules.end(); }
    bool haveSameContent(std::size_t one, std::size_t other) const;
    /// What is linked is only asked for now.
    void demote(std::size_t at);

    LostPlaces gathered;
    std::vector<LostPlace>& lost; ///< of `gathered`
    RelinkCandidates candidates;
    std::vector<RelinkRule> rules;
    std::vector<std::uint64_t> contradicted; ///< by rule
    std::vector<std::size_t> shownRules;
    std::unordered_map<BytePath, std::vector<std::size_t>> rulesFrom; ///< by the folder they lead from
    // By place.
    std::vector<std::optional<FoundLink>> linked;
    std::vector<std::vector<std::size_t>> asked; ///< candidates
    std::vector<std::string> reasons;            ///< why it is not linked
};

} // namespace sober
