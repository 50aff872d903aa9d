#pragma once

#include "core/exchange/playlist.h"
#include "core/players/list_reading.h"

#include <optional>

namespace sober {

/// How the lists at a target are written.
struct ListWay {
    enum class Places {
        asSource, ///< relative where the source list's mostly are, else absolute at the new place
        relative,
        prefixed, ///< absolute below `prefix`, where the device sees it
    };
    std::optional<PlaylistFormat> format; ///< none: the source's own; M3U is written as UTF-8
    Places places = Places::asSource;
    BytePath prefix = {}; ///< with backslashes where it holds one
};

/// An entry of a list at the target.
struct TargetEntry {
    std::optional<BytePath> place; ///< relative to the list's folder; none: it does not come
    std::string title;
    std::string artist;
    std::string album;
    double seconds = -1; ///< negative: not known
};

/// Whether more of a list's locations are relative to it than not.
bool isMostlyRelative(const Playlist& list, const BytePath& folder);

/// The form in which a list of this format is written at a target: cue sheets become M3U.
PlaylistFormat writtenForm(PlaylistFormat source, const ListWay& way);
/// The ending of a list of that format, as it is written: "m3u8".
std::string_view listEnding(PlaylistFormat format);

/// The text of a list whose entries lie at new places, those that do not come left out. Where the form stays
/// the same all else of its text does too: comments, order, what stands twice. `folder`: where it will stand,
/// absolute.
std::string listAtTarget(const ReadList& source, std::span<const TargetEntry> entries, const ListWay& way,
                         bool relative, const BytePath& folder);

/// The same of a list that is no other's.
std::string newList(std::span<const TargetEntry> entries, PlaylistFormat format, const ListWay& way,
                    bool relative, const BytePath& folder);

} // namespace sober
