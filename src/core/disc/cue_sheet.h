#pragma once

#include "core/disc/disc_contents.h"
#include "core/disc/disc_lookup.h"

namespace sober {

/// A track's file, as a cue sheet names it.
struct CueTrack {
    int number = 0;
    std::string file;   ///< its name beside the sheet, without quotation marks in it
    bool isWave = true; ///< WAV or FLAC; else MP3
    int begins = 0;     ///< sectors into the file
};

/// A cue sheet of files for each track, or of one for several that follow each other (no standard; as common
/// practice has it), UTF-8: media number, ISRC, pre-emphasis and marks from the disc, titles as named.
std::string cueSheet(const DiscContents& contents, const DiscNames& names,
                     const std::vector<CueTrack>& tracks);

} // namespace sober
