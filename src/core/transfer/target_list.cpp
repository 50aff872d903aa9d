#include "core/transfer/target_list.h"

#include "core/base/text.h"
#include "core/players/location.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

constexpr std::string_view fileScheme = "file:///";

/// Percent-encoded but for slashes.
std::string encoded(const BytePath& relative) {
    return fileUriOf("/" + relative).substr(fileScheme.size());
}

bool isDriveLetter(std::string_view path) {
    return path.size() >= 2 && path[1] == ':' && std::isalpha(static_cast<unsigned char>(path[0])) != 0;
}

/// What an entry says of where its file is.
std::string locationFor(const BytePath& place, PlaylistFormat format, const ListWay& way, bool relative,
                        const BytePath& folder) {
    const bool isPrefixed = way.places == ListWay::Places::prefixed;
    if (format == PlaylistFormat::xspf) {
        if (relative) {
            return encoded(place);
        }
        auto path = joinPath(isPrefixed ? way.prefix : folder, place);
        std::ranges::replace(path, '\\', '/');
        return isDriveLetter(path)
                   ? std::string(fileScheme) + path.substr(0, 2) + "/" + encoded(path.substr(3))
                   : fileUriOf(path);
    }
    auto path = relative ? place : joinPath(isPrefixed ? way.prefix : folder, place);
    if (isPrefixed && way.prefix.find('\\') != BytePath::npos) {
        path = way.prefix + (way.prefix.ends_with('\\') ? "" : "\\") + place;
        std::ranges::replace(path, '/', '\\');
    }
    if (canStandIn(format, path)) {
        return path;
    }
    // A name that begins like a comment, or one that no line can hold.
    return relative && canStandIn(format, "./" + path)
               ? "./" + path
               : fileUriOf(joinPath(isPrefixed && !relative ? way.prefix : folder, place));
}

/// Line by line: what speaks of an entry (#EXT…, before it) goes with it, every other comment stays.
std::string m3uFrom(const ReadList& source, std::span<const TargetEntry> entries, const auto& locate) {
    const std::string_view all = source.text;
    const char lineEnd = all.find('\n') == std::string_view::npos ? '\r' : '\n';
    std::string text;
    std::vector<std::string_view> before; // lines since the last entry
    std::size_t next = 0;
    for (std::size_t at = 0; at < all.size();) {
        const auto end = std::min(all.find(lineEnd, at), all.size() - 1) + 1;
        const auto line = all.substr(at, end - at);
        const auto* entry = next < entries.size() ? &source.playlist.entries[next] : nullptr;
        if (entry == nullptr || entry->begins >= end) {
            before.push_back(line);
            at = end;
            continue;
        }
        const auto& place = entries[next++].place;
        for (const auto each : before) {
            const auto bare = each.substr(each.starts_with("\xEF\xBB\xBF") ? 3 : 0);
            text +=
                place || !bare.starts_with("#EXT") || bare.starts_with("#EXTM3U") ? each : std::string_view();
        }
        before.clear();
        if (place) {
            text += all.substr(at, entry->begins - at);
            text += locate(*place);
            text += all.substr(entry->ends, end - entry->ends);
        }
        at = end;
    }
    for (const auto each : before) {
        text += each;
    }
    return text;
}

/// False where its elements are written in a way that cannot be cut by looking for them.
bool xspfFrom(const ReadList& source, std::span<const TargetEntry> entries, const auto& locate,
              std::string& text) {
    constexpr std::string_view opening = "<track>";
    constexpr std::string_view closing = "</track>";
    const std::string_view all = source.text;
    std::size_t at = 0;
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const auto& entry = source.playlist.entries[i];
        if (entries[i].place) {
            text += all.substr(at, entry.begins - at);
            text += locate(*entries[i].place);
            at = entry.ends;
            continue;
        }
        const auto begins = all.rfind(opening, entry.begins);
        const auto ends = all.find(closing, entry.ends);
        if (begins == std::string_view::npos || ends == std::string_view::npos || begins < at) {
            return false;
        }
        text += all.substr(at, begins - at);
        // With the blanks before it: what follows keeps its own.
        text.erase(text.find_last_not_of(" \t\r\n") + 1);
        at = ends + closing.size();
    }
    text += all.substr(at);
    return true;
}

std::string oneLine(std::string text) {
    std::ranges::replace_if(
        text, [](unsigned char c) { return c < 0x20; }, ' ');
    return text;
}

std::string nameIn(const TargetEntry& entry) {
    return oneLine(entry.artist.empty() ? entry.title : entry.artist + " - " + entry.title);
}

std::string newM3u(std::span<const TargetEntry> entries, const auto& locate) {
    std::string text = "#EXTM3U\n";
    for (const auto& entry : entries) {
        if (!entry.place) {
            continue;
        }
        if (!entry.title.empty()) {
            text += fmt::format("#EXTINF:{},{}\n", entry.seconds < 0 ? -1 : std::lround(entry.seconds),
                                nameIn(entry));
        }
        text += locate(*entry.place) + "\n";
    }
    return text;
}

std::string newPls(std::span<const TargetEntry> entries, const auto& locate) {
    std::string text = "[playlist]\n";
    std::size_t number = 0;
    for (const auto& entry : entries) {
        if (!entry.place) {
            continue;
        }
        text += fmt::format("File{}={}\n", ++number, locate(*entry.place));
        if (!entry.title.empty()) {
            text += fmt::format("Title{}={}\n", number, nameIn(entry));
        }
        text += fmt::format("Length{}={}\n", number, entry.seconds < 0 ? -1 : std::lround(entry.seconds));
    }
    return text + fmt::format("NumberOfEntries={}\nVersion=2\n", number);
}

std::string newXspf(std::span<const TargetEntry> entries, const auto& locate) {
    std::string text = "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
                       "<playlist version=\"1\" xmlns=\"http://xspf.org/ns/0/\">\n <trackList>\n";
    const auto element = [&](std::string_view name, const std::string& value) {
        if (!value.empty()) {
            text += fmt::format("   <{0}>{1}</{0}>\n", name, escapedXml(oneLine(repairedUtf8(value))));
        }
    };
    for (const auto& entry : entries) {
        if (entry.place) {
            text += "  <track>\n";
            element("location", locate(*entry.place));
            element("title", entry.title);
            element("creator", entry.artist);
            element("album", entry.album);
            element("duration",
                    entry.seconds < 0 ? "" : fmt::format("{}", std::llround(entry.seconds * 1000)));
            text += "  </track>\n";
        }
    }
    return text + " </trackList>\n</playlist>\n";
}

} // namespace

bool isMostlyRelative(const Playlist& list, const BytePath& folder) {
    const auto relative = std::ranges::count_if(list.entries, [&](const PlaylistEntry& entry) {
        return meaningOf(entry.location, list.format == PlaylistFormat::xspf, folder).relative;
    });
    return 2 * static_cast<std::size_t>(relative) > list.entries.size();
}

PlaylistFormat writtenForm(PlaylistFormat source, const ListWay& way) {
    return way.format.value_or(source == PlaylistFormat::cue ? PlaylistFormat::m3u : source);
}

std::string_view listEnding(PlaylistFormat format) {
    return format == PlaylistFormat::pls ? "pls" : format == PlaylistFormat::xspf ? "xspf" : "m3u8";
}

std::string listAtTarget(const ReadList& source, std::span<const TargetEntry> entries, const ListWay& way,
                         bool relative, const BytePath& folder) {
    const auto format = writtenForm(source.playlist.format, way);
    const auto isText = isUtf8(source.text);
    if (format == source.playlist.format && entries.size() == source.playlist.entries.size() && isText) {
        const bool isXml = format == PlaylistFormat::xspf;
        const auto locate = [&](const BytePath& place) {
            const auto location = locationFor(place, format, way, relative, folder);
            return isXml ? escapedXml(location) : location;
        };
        if (std::string text; isXml && xspfFrom(source, entries, locate, text)) {
            return text;
        }
        if (format == PlaylistFormat::m3u) {
            return m3uFrom(source, entries, locate);
        }
    }
    return newList(entries, format, way, relative, folder);
}

std::string newList(std::span<const TargetEntry> entries, PlaylistFormat format, const ListWay& way,
                    bool relative, const BytePath& folder) {
    const auto locate = [&](const BytePath& place) {
        return locationFor(place, format, way, relative, folder);
    };
    return format == PlaylistFormat::pls    ? newPls(entries, locate)
           : format == PlaylistFormat::xspf ? newXspf(entries, locate)
                                            : newM3u(entries, locate);
}

} // namespace sober
