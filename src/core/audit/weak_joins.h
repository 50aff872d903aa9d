#pragma once

#include "core/catalogue/findings.h"

#include <cstddef>
#include <set>
#include <tuple>
#include <vector>

namespace sober {

/// Things that were joined, each with the weakest link that did.
class Groups {
  public:
    explicit Groups(std::size_t count);
    std::size_t rootOf(std::size_t at);
    void join(std::size_t a, std::size_t b, Sameness link);
    Sameness weakest(std::size_t at) { return weakest_[rootOf(at)]; }

  private:
    std::vector<std::size_t> parent_;
    std::vector<Sameness> weakest_;
};

/// Two contents that are one recording in another master or at another length.
struct WeakLink {
    std::size_t first, second; ///< contents
    Sameness link;
    double agreeing; ///< share of it that agrees
    double offset;   ///< seconds at which the second begins in the first
    double firstSeconds, secondSeconds;
};

/// Which weak links join groups. Of the groups that weak links tie, the one that most contents carry leads,
/// then the one with most links, then the longest; those it is tied to follow it, and what follows leads
/// nothing and follows one only, so that no chain merges two recordings. Two that lie at different places
/// of a longer one, or are longer than what they share, are two recordings unless they are tied themselves:
/// only the first of them follows.
class WeakJoins {
  public:
    WeakJoins(std::vector<WeakLink> links, Groups& groups, std::size_t contents);
    bool isLed(std::size_t root) const { return led_.contains(root); }
    /// Leader, follower and link, in the order in which they are to be joined.
    const std::vector<std::tuple<std::size_t, std::size_t, Sameness>>& made() const { return made_; }

  private:
    std::set<std::size_t> led_;
    std::vector<std::tuple<std::size_t, std::size_t, Sameness>> made_;
};

} // namespace sober
