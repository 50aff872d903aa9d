#pragma once

#include "core/base/paths.h"
#include "demo/synth.h"

#include <string>
#include <vector>

namespace sober::demo {

struct TagSet {
    std::string title;
    std::string artist;
    std::string album;
    int track = 0;
    int year = 0;
};

/// A file that is to be made of samples.
struct Encoding {
    Samples samples;
    TagSet tags;
    BytePath target; ///< its ending chooses the format
    std::vector<std::string> options = {};
};

/// Encodes with the ffmpeg tool, by one call of it, whose start takes longer than a short piece. The same
/// input gives the same bytes. False, with a word on standard error, where the tool fails.
bool encodeTogether(const std::vector<Encoding>& encodings);
bool encode(Samples samples, const TagSet& tags, const BytePath& target,
            const std::vector<std::string>& options = {});

/// A file that is to be made of a piece.
struct Recorded {
    Piece piece;
    TagSet tags;
    BytePath target;
};

/// The same for many, on all cores. Their folders are made.
bool recordAll(const std::vector<Recorded>& all);

/// The words that give a file its tags.
std::vector<std::string> tagWords(const TagSet& tags);

/// Runs a program without input, its output thrown away, and waits; its exit code, or -1 where it
/// could not be started.
int runQuietly(const std::vector<std::string>& words);

} // namespace sober::demo
