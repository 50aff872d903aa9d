#include "core/audit/relink_result.h"

#include <algorithm>
#include <functional>

namespace sober {
namespace {

void addLink(RelinkState& state, Relinking& all, std::size_t at) {
    auto& link = *state.linked[at];
    const auto& target = state.candidates[link.candidate];
    all.resolvedAfter += state.lost[at].references - state.gathered.resolvedAnyway[at];
    all.links.push_back(
        {at, target.path, target.holding, link.confidence, std::move(link.evidence), link.rule});
}

bool addChoice(const RelinkState& state, Relinking& all, std::size_t at) {
    std::vector<std::pair<std::size_t, Judgement>> found;
    for (const auto candidate : state.asked[at]) {
        if (std::ranges::none_of(found, [&](const auto& each) { return each.first == candidate; })) {
            found.emplace_back(candidate, judge(state.lost[at], state.candidates[candidate]));
        }
    }
    if (found.empty()) {
        return false;
    }
    std::ranges::stable_sort(found, std::ranges::greater{},
                             [](const auto& each) { return each.second.agreement; });
    found.resize(std::min(found.size(), mostAsked));
    RelinkChoice choice;
    choice.lost = at;
    for (auto& [candidate, judged] : found) {
        choice.candidates.push_back(state.candidates[candidate]);
        choice.judgements.push_back(std::move(judged));
    }
    all.ambiguous.push_back(std::move(choice));
    return true;
}

/// Those that link something, most first; a rule that holds everywhere is said of the folder it is used
/// in.
void orderRules(const RelinkState& state, Relinking& all) {
    std::vector<RelinkRule> used = state.rules;
    for (const auto& link : all.links) {
        if (!link.rule) {
            continue;
        }
        ++used[*link.rule].count;
    }
    std::vector<std::size_t> order(used.size());
    for (std::size_t i = 0; i < order.size(); ++i) {
        order[i] = i;
    }
    std::ranges::stable_sort(order, std::ranges::greater{}, [&](std::size_t i) { return used[i].count; });
    std::vector<std::size_t> newIndex(used.size());
    for (std::size_t place = 0; place < order.size(); ++place) {
        newIndex[order[place]] = place;
        if (used[order[place]].count > 0) {
            all.rules.push_back(used[order[place]]);
        }
    }
    for (auto& link : all.links) {
        if (link.rule) {
            link.rule = newIndex[*link.rule];
        }
    }
}

} // namespace

Relinking resultOf(RelinkState& state) {
    Relinking all;
    all.references = state.gathered.all;
    all.resolvedBefore = state.gathered.resolved;
    all.resolvedAfter = state.gathered.resolved;
    for (std::size_t at = 0; at < state.lost.size(); ++at) {
        if (state.linked[at]) {
            addLink(state, all, at);
        } else if (!addChoice(state, all, at)) {
            all.unresolved.push_back({at, state.reasons[at]});
        }
    }
    orderRules(state, all);
    all.broken = std::move(state.gathered.references);
    all.brokenOf = std::move(state.gathered.byPlace);
    all.lost = std::move(state.lost);
    return all;
}

} // namespace sober
