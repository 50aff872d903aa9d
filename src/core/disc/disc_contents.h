#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

// IEC 60908: 75 sectors a second, each of 588 samples in two channels of 16 bits.
inline constexpr int sectorsPerSecond = 75;
inline constexpr int samplesPerSector = 588;
inline constexpr int discSampleRate = 44'100;
inline constexpr int sectorNumbers = 2 * samplesPerSector; ///< 16-bit numbers in a sector
inline constexpr int discSectorBytes = 2 * sectorNumbers;
inline constexpr int sectorsOfLeadIn = 150; ///< before the sector that is counted as 0: 00:02:00
inline constexpr int mostTracks = 99;
inline constexpr int shortestTrack = 4 * sectorsPerSecond; ///< sectors

struct DiscTrack {
    int number = 0;
    int firstSector = 0; ///< of its index 1, counted from 00:02:00
    int sectors = 0;     ///< up to the next one's index 1, its gap included
    int gap = 0;         ///< sectors of silence or applause before it, which belong to the track before
    bool isAudio = true;
    bool preEmphasis = false; ///< recorded with raised treble (50 and 15 µs)
    bool mayCopy = false;     ///< the mark that it may be copied
    std::string isrc;         ///< ISO 3901; "" where there is none
    std::string title;        ///< as the disc says (CD-Text)
    std::string artist;
    std::vector<int> marks; ///< sectors of index 2 and on

    int end() const { return firstSector + sectors; }
    bool operator==(const DiscTrack&) const = default;
};

/// A disc's table of contents, and what else it says of itself.
struct DiscContents {
    std::string device; ///< what it lies in: "BIN/CUE", "PLEXTOR …"
    std::string mediaNumber;
    std::string title;
    std::string artist;
    std::vector<DiscTrack> tracks;
    int leadOut = 0; ///< the sector after the last

    /// Sound that is hidden before the first track: more sectors than the silence that belongs there, none.
    int hiddenSectors() const;
    /// The first sector that may be audio: 0, unless data come first.
    int audioBegin() const;
    /// The sector after the last track that is audio.
    int audioEnd() const;
    bool operator==(const DiscContents&) const = default;
};

/// Whether it can be read as an audio disc; else the sentence: blank, data only, a table that contradicts
/// itself.
Outcome isReadable(const DiscContents& contents, const BytePath& disc);

/// A name for the disc by its table of contents: SHA-1 of the numbers of the first and the last track, the
/// lead-out and the 99 beginnings, as hexadecimal text, in base64 (the algorithm that libdiscid documents).
/// A data track behind the audio is left out, the lead-out then 11,400 sectors before it (from memory of how
/// two sessions lie).
std::string discId(const DiscContents& contents);

/// The track that a sector belongs to; null before the first.
const DiscTrack* trackAt(const DiscContents& contents, int sector);

/// "04:12.23": minutes, seconds, sectors.
std::string sectorTime(int sector);

} // namespace sober
