#pragma once

#include "core/base/paths.h"

#include <span>
#include <utility>
#include <vector>

namespace sober {

/// In which order files can be moved so that each finds its place free.
struct MoveOrder {
    std::vector<std::size_t> first; ///< these, in this order
    /// The rest go round: each to where the next is now, the last to where the first is. One of them has to
    /// stand aside for a while.
    std::vector<std::vector<std::size_t>> rounds;
};

/// By where each is and where it goes; no two are, or go, at one place.
MoveOrder orderOfMoves(std::span<const std::pair<BytePath, BytePath>> moves);

} // namespace sober
