#pragma once

#include "demo/encode.h"
#include "demo/synth.h"

#include <vector>

namespace sober::demo {

/// One recording of Pell Harbour, a town that does not exist, with everything that is needed to make it.
struct Recording {
    Piece piece;
    TagSet tags;
    std::string ending; ///< of the file it is kept in
};

/// Recordings of an album.
constexpr std::size_t albumLength = 12;

/// Where a recording is kept on GANNET.
BytePath homeOf(const Recording& recording);

/// All recordings, in the order of their albums. Performers and titles are invented.
std::vector<Recording> repertoire();

} // namespace sober::demo
