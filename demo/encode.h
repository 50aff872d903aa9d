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

/// Encodes samples to `target` with the ffmpeg tool; the file's ending chooses the format. The same
/// input gives the same bytes. False, with a word on standard error, where the tool fails.
bool encode(const Samples& samples, const TagSet& tags, const BytePath& target,
            const std::vector<std::string>& options = {});

/// The words that give a file its tags.
std::vector<std::string> tagWords(const TagSet& tags);

/// Runs a program without input, its output thrown away, and waits; its exit code, or -1 where it
/// could not be started.
int runQuietly(const std::vector<std::string>& words);

} // namespace sober::demo
