#include "core/audit/relink_doubts.h"

#include "core/base/text.h"

#include <algorithm>

namespace sober {
namespace {

/// Whether another place has the better right to the file that both are linked to, or as good a one.
bool losesTo(const RelinkState& state, std::size_t at, std::size_t other) {
    const auto& own = *state.linked[at];
    const auto& theirs = *state.linked[other];
    const auto kindOf = [&](const FoundLink& link) {
        return link.rule ? std::optional(state.rules[*link.rule].kind) : std::nullopt;
    };
    // Two machines may have had one file under two prefixes.
    const bool twoTrees = own.rule != theirs.rule && kindOf(own) == RelinkRuleKind::folder &&
                          kindOf(theirs) == RelinkRuleKind::folder;
    const bool sameMeaning = foldedName(state.lost[at].path) == foldedName(state.lost[other].path);
    if (at == other || twoTrees || sameMeaning || kindOf(own) == RelinkRuleKind::spelling) {
        return false;
    }
    return own.agreement < theirs.agreement ||
           (own.agreement == theirs.agreement && own.agreement < Agreement::sameContent);
}

} // namespace

void askWhereTwoClaimOne(RelinkState& state) {
    std::unordered_map<std::size_t, std::vector<std::size_t>> claims;
    for (std::size_t at = 0; at < state.lost.size(); ++at) {
        if (state.linked[at]) {
            claims[state.linked[at]->candidate].push_back(at);
        }
    }
    std::vector<std::size_t> losing;
    for (const auto& [candidate, places] : claims) {
        for (const auto at : places) {
            if (std::ranges::any_of(places, [&](std::size_t other) { return losesTo(state, at, other); })) {
                losing.push_back(at);
            }
        }
    }
    std::ranges::for_each(losing, [&](std::size_t at) { state.demote(at); });
}

void distrustContradicted(RelinkState& state) {
    std::vector<std::uint64_t> count(state.rules.size());
    for (const auto& link : state.linked) {
        if (link && link->rule) {
            ++count[*link->rule];
        }
    }
    for (std::size_t at = 0; at < state.lost.size(); ++at) {
        if (state.linked[at] && state.linked[at]->rule && state.linked[at]->agreement == Agreement::silent) {
            const auto rule = *state.linked[at]->rule;
            if (state.contradicted[rule] * 5 > count[rule] && !state.isShown(rule)) {
                state.demote(at);
            }
        }
    }
}

} // namespace sober
