#include "core/audit/weak_joins.h"

#include <algorithm>
#include <map>
#include <numeric>

namespace sober {
namespace {

/// A group that a leader is tied to, and where it lies in the leader.
struct Tie {
    std::size_t other;
    Sameness link;
    double agreeing;
    double begins, ends; ///< seconds in the leader
    bool reachesBeyond;  ///< it is longer than the leader
};

struct Leader {
    std::size_t root;
    std::size_t contents;
    double seconds = 0;
    std::vector<Tie> ties;
};

constexpr double leastShared = 0.5; // of the shorter of two parts

bool lieTogether(const Tie& a, const Tie& b) {
    const double shared = std::min(a.ends, b.ends) - std::max(a.begins, b.begins);
    return shared >= leastShared * std::min(a.ends - a.begins, b.ends - b.begins);
}

} // namespace

Groups::Groups(std::size_t count) : parent_(count), weakest_(count, Sameness::bytes) {
    std::iota(parent_.begin(), parent_.end(), std::size_t{0});
}

std::size_t Groups::rootOf(std::size_t at) {
    while (parent_[at] != at) {
        parent_[at] = parent_[parent_[at]];
        at = parent_[at];
    }
    return at;
}

void Groups::join(std::size_t a, std::size_t b, Sameness link) {
    a = rootOf(a);
    b = rootOf(b);
    if (a != b) {
        const auto weakest = std::max({weakest_[a], weakest_[b], link});
        parent_[std::max(a, b)] = std::min(a, b);
        weakest_[std::min(a, b)] = weakest;
    }
}

WeakJoins::WeakJoins(std::vector<WeakLink> links, Groups& groups, std::size_t contents) {
    std::vector<std::size_t> sizes(contents);
    for (std::size_t at = 0; at < contents; ++at) {
        ++sizes[groups.rootOf(at)];
    }
    std::map<std::size_t, Leader> byRoot;
    const auto tie = [&](std::size_t from, std::size_t to, const WeakLink& link, double begins, double lasts,
                         double seconds) {
        auto& leader = byRoot.try_emplace(from, Leader{from, sizes[from], 0, {}}).first->second;
        leader.seconds = std::max(leader.seconds, seconds);
        leader.ties.push_back({to, link.link, link.agreeing, begins, begins + lasts,
                               link.link == Sameness::part && lasts > seconds});
    };
    std::set<std::pair<std::size_t, std::size_t>> tied;
    for (const auto& link : links) {
        const auto first = groups.rootOf(link.first);
        const auto second = groups.rootOf(link.second);
        if (first != second) {
            tie(first, second, link, link.offset, link.secondSeconds, link.firstSeconds);
            tie(second, first, link, -link.offset, link.firstSeconds, link.secondSeconds);
            tied.insert({first, second});
            tied.insert({second, first});
        }
    }
    std::vector<Leader> leaders;
    for (auto& [root, leader] : byRoot) {
        std::ranges::stable_sort(leader.ties, [](const Tie& a, const Tie& b) {
            return std::tuple(a.link, -a.agreeing) < std::tuple(b.link, -b.agreeing);
        });
        leaders.push_back(std::move(leader));
    }
    std::ranges::stable_sort(leaders, [](const Leader& a, const Leader& b) {
        return std::tuple(a.contents, a.ties.size(), a.seconds) >
               std::tuple(b.contents, b.ties.size(), b.seconds);
    });
    std::set<std::size_t> leading;
    for (const auto& leader : leaders) {
        if (led_.contains(leader.root)) {
            continue;
        }
        std::vector<Tie> following;
        for (const auto& each : leader.ties) {
            if (led_.contains(each.other) || leading.contains(each.other) ||
                !std::ranges::all_of(following, [&](const Tie& one) {
                    return tied.contains({one.other, each.other}) ||
                           (lieTogether(one, each) && !one.reachesBeyond && !each.reachesBeyond);
                })) {
                continue;
            }
            following.push_back(each);
            led_.insert(each.other);
            made_.emplace_back(leader.root, each.other, each.link);
        }
        if (!following.empty()) {
            leading.insert(leader.root);
        }
    }
}

} // namespace sober
