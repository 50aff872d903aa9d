#include "core/audit/relink_state.h"

#include "core/base/file_handle.h"

#include <algorithm>

namespace sober {

RelinkState::RelinkState(LostPlaces all, RelinkCandidates files)
    : gathered(std::move(all)),
      lost(gathered.places),
      candidates(std::move(files)),
      linked(lost.size()),
      asked(lost.size()),
      reasons(lost.size()) {}

bool RelinkState::mayLeadTo(const LostPlace& place, const RelinkCandidate& candidate) const {
    return place.within.empty() || isWithin(candidate.path, place.within);
}

std::size_t RelinkState::indexOf(const RelinkRule& rule) {
    const auto known = std::ranges::find_if(rules, [&](const RelinkRule& each) { return each.sameAs(rule); });
    if (known != rules.end()) {
        return static_cast<std::size_t>(known - rules.begin());
    }
    rulesFrom[rule.from].push_back(rules.size());
    rules.push_back(rule);
    contradicted.push_back(0);
    return rules.size() - 1;
}

std::size_t RelinkState::candidateAt(const BytePath& path) {
    if (const auto known = candidates.at(path)) {
        return *known;
    }
    RelinkCandidate candidate;
    candidate.path = path;
    const auto stamp = stampAt(path);
    candidate.size = stamp ? stamp->size : 0;
    return candidates.add(std::move(candidate));
}

std::vector<std::size_t> RelinkState::rulesFor(const LostPlace& place) const {
    std::vector<std::size_t> found;
    for (BytePath folder(parentOf(place.path)); !folder.empty(); folder = BytePath(parentOf(folder))) {
        if (const auto from = rulesFrom.find(folder); from != rulesFrom.end()) {
            found.insert(found.end(), from->second.begin(), from->second.end());
        }
        if (folder == "/") {
            break;
        }
    }
    return found;
}

bool RelinkState::haveSameContent(std::size_t one, std::size_t other) const {
    return candidates[one].content && candidates[one].content == candidates[other].content;
}

void RelinkState::demote(std::size_t at) {
    asked[at].push_back(linked[at]->candidate);
    linked[at].reset();
}

} // namespace sober
