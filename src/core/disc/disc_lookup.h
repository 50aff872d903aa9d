#pragma once

#include "core/base/result.h"
#include "core/disc/disc_contents.h"

#include <string>
#include <vector>

namespace sober {

/// What a disc is called, by one of those who say so.
struct DiscNames {
    std::string source; ///< "the disc itself", "the lookup", "the collection"
    std::string title;
    std::string artist;
    std::string date;
    std::string genre;
    int disc = 0; ///< of a set; 0: not said
    int discs = 0;
    struct Track {
        std::string title;
        std::string artist;
        std::string composer = {};
        std::string comment = {};
        bool operator==(const Track&) const = default;
    };
    std::vector<Track> tracks; ///< in the order of the audio tracks

    /// Several artists: the album has none of its own, or its tracks have others.
    bool isOfSeveral() const;
    bool operator==(const DiscNames&) const = default;
};
/// An answer of a lookup, as JSON:
///
///     {"schema": "sober.lookup/1", "discs": [{"title": "…", "artist": "…", "date": "1998", "genre": "…",
///      "disc": 1, "discs": 2, "tracks": [{"title": "…", "artist": "…"}]}]}
///
/// Answers about other numbers of tracks are left out. Cause::damaged where it is no such thing.
Result<std::vector<DiscNames>> lookupFrom(std::string_view text, const DiscContents& contents);

/// By its CD-Text; nothing named where it has none.
DiscNames namesOnDisc(const DiscContents& contents);

} // namespace sober
