#include "core/audit/relink_by_name.h"

#include "core/base/text.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// Names that devices and programs give to anything.
bool isGeneric(std::string_view stem) {
    std::string letters;
    for (const char c : lettersAndDigits(stem)) {
        if (c < '0' || c > '9') {
            letters += c;
        }
    }
    constexpr std::array<std::string_view, 6> generic{"track",   "audiotrack", "untitled",
                                                      "unknown", "recording",  "audio"};
    return letters.size() < 4 || std::ranges::find(generic, letters) != generic.end();
}

/// Files of that name that may be it.
std::vector<std::pair<std::size_t, Judgement>> namesakes(const RelinkState& state, std::size_t at,
                                                         Agreement least) {
    const auto& lost = state.lost[at];
    const auto named = state.candidates.named(foldedStem(lost.path));
    const auto parent = nameOf(parentOf(lost.path));
    std::vector<std::pair<std::size_t, Judgement>> found;
    for (const auto candidate : named) {
        const auto& file = state.candidates[candidate];
        const bool isNear = named.size() <= mostNamesakes || nameOf(parentOf(file.path)) == parent;
        if (!isNear || file.path == lost.path || !state.mayLeadTo(lost, file)) {
            continue;
        }
        auto judged = judge(lost, file);
        if (judged.agreement >= least) {
            found.emplace_back(candidate, std::move(judged));
        }
        if (found.size() > mostNamesakes) {
            break;
        }
    }
    return found;
}

/// Under another name, with the same title, performer and length: never more than asked.
void askByTags(RelinkState& state, std::size_t at) {
    const auto& lost = state.lost[at];
    const auto tagged = state.candidates.titled(lost.title, lost.artist);
    for (const auto candidate : tagged.subspan(0, std::min(tagged.size(), mostNamesakes))) {
        if (state.mayLeadTo(lost, state.candidates[candidate]) &&
            judge(lost, state.candidates[candidate]).agreement == Agreement::agrees) {
            state.asked[at].push_back(candidate);
        }
    }
}

} // namespace

void addNameVotes(const RelinkState& state, std::size_t at, std::vector<RelinkVote>& votes) {
    const auto found = namesakes(state, at, Agreement::silent);
    const bool distinctive = found.size() == 1 && !isGeneric(stemOf(nameOf(state.lost[at].path))) &&
                             state.candidates.named(foldedStem(state.lost[at].path)).size() == 1;
    for (const auto& [candidate, judged] : found) {
        votes.push_back({at, candidate, judged.agreement, distinctive});
    }
}

void takeSingles(RelinkState& state) {
    for (std::size_t at = 0; at < state.lost.size(); ++at) {
        if (state.linked[at] || !state.asked[at].empty()) {
            continue;
        }
        auto found = namesakes(state, at, Agreement::doubtful);
        if (found.empty()) {
            askByTags(state, at);
            continue;
        }
        if (found.size() == 1 && found.front().second.agreement == Agreement::agrees &&
            !isGeneric(stemOf(nameOf(state.lost[at].path))) && state.rulesFor(state.lost[at]).empty()) {
            auto evidence = std::move(found.front().second.evidence);
            evidence.insert(evidence.begin(), "the only file of that name");
            state.linked[at] =
                FoundLink{found.front().first, Agreement::agrees, 0.9, std::move(evidence), {}, false};
            continue;
        }
        for (const auto& [candidate, judged] : found) {
            state.asked[at].push_back(candidate);
        }
    }
}

} // namespace sober
