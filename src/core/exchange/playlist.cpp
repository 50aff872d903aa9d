#include "core/exchange/playlist.h"

#include "core/base/text.h"

#include <algorithm>
#include <charconv>
#include <map>
#include <pugixml.hpp>

namespace sober {
namespace {

constexpr std::string_view blanks = " \t\r";

double numberIn(std::string_view text) {
    double value = -1;
    std::from_chars(text.data(), text.data() + text.size(), value);
    return value;
}

std::size_t markLength(std::string_view text) {
    return text.starts_with("\xEF\xBB\xBF") ? 3 : 0;
}

/// `take` hears of every line without its end, and of where it begins. Where nothing else ends lines, a
/// carriage return does.
template <typename Take>
void eachPlacedLine(std::string_view text, Take take) {
    const char lineEnd = text.find('\n') == std::string_view::npos ? '\r' : '\n';
    for (std::size_t at = markLength(text); at < text.size();) {
        const auto end = std::min(text.find(lineEnd, at), text.size());
        take(text.substr(at, end - at), at);
        at = end + 1;
    }
}

Playlist readM3u(std::string_view text) {
    Playlist list;
    std::string title;
    double seconds = -1;
    eachPlacedLine(text, [&](std::string_view line, std::size_t begins) {
        constexpr std::string_view information = "#EXTINF:";
        const auto content = trimmed(line);
        if (content.starts_with(information)) {
            const auto words = content.substr(information.size());
            const auto comma = words.find(',');
            seconds = numberIn(words.substr(0, words.find_first_of(", ")));
            title = comma == std::string_view::npos ? "" : repairedUtf8(trimmed(words.substr(comma + 1)));
        } else if (!content.empty() && content.front() != '#') {
            const auto before = static_cast<std::size_t>(content.data() - line.data());
            // A name may end in blanks.
            const auto location = line.substr(before, line.find_last_not_of('\r') + 1 - before);
            list.entries.push_back({std::string(location), std::exchange(title, {}),
                                    std::exchange(seconds, -1), begins + before,
                                    begins + before + location.size()});
        }
    });
    return list;
}

/// "File3=…", "Title3=…", "Length3=…" in any order; entries come in the order of their numbers.
Playlist readPls(std::string_view text) {
    std::map<std::uint64_t, PlaylistEntry> entries;
    eachPlacedLine(text, [&](std::string_view line, std::size_t begins) {
        const auto equals = line.find('=');
        if (equals == std::string_view::npos) {
            return;
        }
        const auto key = lowerAscii(trimmed(line.substr(0, equals)));
        const auto digits = key.find_first_of("0123456789");
        std::uint64_t number = 0;
        if (digits == std::string::npos ||
            std::from_chars(key.data() + digits, key.data() + key.size(), number).ptr !=
                key.data() + key.size()) {
            return;
        }
        const auto word = std::string_view(key).substr(0, digits);
        const auto value = trimmed(line.substr(equals + 1));
        if (word == "file" && !value.empty()) {
            auto& entry = entries[number];
            entry.location = value;
            entry.begins = begins + static_cast<std::size_t>(value.data() - line.data());
            entry.ends = entry.begins + value.size();
        } else if (word == "title") {
            entries[number].title = repairedUtf8(value);
        } else if (word == "length") {
            entries[number].seconds = numberIn(value);
        }
    });
    Playlist list;
    list.format = PlaylistFormat::pls;
    for (auto& [number, entry] : entries) {
        if (!entry.location.empty()) {
            list.entries.push_back(std::move(entry));
        }
    }
    return list;
}

/// What follows a command: in quotation marks, or up to the next blank.
std::string_view argumentOf(std::string_view line) {
    const auto rest = trimmed(line.substr(std::min(line.find_first_of(blanks), line.size())));
    if (rest.starts_with('"')) {
        return rest.substr(1, std::min(rest.find('"', 1), rest.size()) - 1);
    }
    return rest.substr(0, rest.find_first_of(blanks));
}

/// One entry for each FILE; what the sheet says of the whole is its album.
Playlist readCue(std::string_view text) {
    Playlist list;
    list.format = PlaylistFormat::cue;
    std::string album;
    std::string artist;
    std::size_t tracks = 0;
    eachPlacedLine(text, [&](std::string_view line, std::size_t begins) {
        const auto content = trimmed(line);
        const auto command = lowerAscii(content.substr(0, content.find_first_of(blanks)));
        const auto argument = argumentOf(content);
        if (command == "file" && !argument.empty()) {
            const auto at = begins + static_cast<std::size_t>(argument.data() - line.data());
            list.entries.push_back({std::string(argument), {}, -1, at, at + argument.size(), artist, album});
            tracks = 0;
        } else if (command == "track") {
            ++tracks;
        } else if (command == "title" || command == "performer") {
            auto words = repairedUtf8(argument);
            if (list.entries.empty()) {
                (command == "title" ? album : artist) = std::move(words);
            } else if (command == "title") {
                // A file with several tracks has none of their titles.
                list.entries.back().title = tracks == 1 ? words : "";
            }
        }
    });
    return list;
}

/// The bytes of an element's text in the source, blanks around it left out.
std::pair<std::size_t, std::size_t> textPlace(std::string_view text, const pugi::xml_node& words) {
    const auto offset = words.offset_debug();
    if (offset < 0 || static_cast<std::size_t>(offset) > text.size()) {
        return {0, 0};
    }
    const auto begins = static_cast<std::size_t>(offset);
    const auto until = words.type() == pugi::node_cdata ? text.find("]]>", begins) : text.find('<', begins);
    const auto raw = text.substr(begins, std::min(until, text.size()) - begins);
    constexpr std::string_view spaces = " \t\r\n";
    const auto first = raw.find_first_not_of(spaces);
    return first == std::string_view::npos
               ? std::pair<std::size_t, std::size_t>{0, 0}
               : std::pair{begins + first, begins + raw.find_last_not_of(spaces) + 1};
}

Result<Playlist> readXspf(std::string_view text, const BytePath& name) {
    pugi::xml_document document;
    // The text as it stands: places in it have to be those of the source.
    const auto parsed =
        document.load_buffer(text.data(), text.size(), pugi::parse_default, pugi::encoding_utf8);
    const auto root = document.child("playlist");
    if (!parsed || !root) {
        return Error{Cause::invalid, name, displayPath(name) + " cannot be read as an XSPF list."};
    }
    Playlist list;
    list.format = PlaylistFormat::xspf;
    for (const auto& track : root.child("trackList").children("track")) {
        // Of several locations the first is the one to be tried first.
        const auto location = track.child("location");
        const auto words = location.first_child();
        if (!words) {
            continue;
        }
        PlaylistEntry entry;
        entry.location = location.text().get();
        constexpr std::string_view spaces = " \t\r\n";
        entry.location.erase(0, std::min(entry.location.find_first_not_of(spaces), entry.location.size()));
        entry.location.erase(entry.location.find_last_not_of(spaces) + 1);
        entry.title = track.child("title").text().get();
        entry.artist = track.child("creator").text().get();
        entry.album = track.child("album").text().get();
        const double milliseconds = numberIn(track.child("duration").text().get());
        entry.seconds = milliseconds < 0 ? -1 : milliseconds / 1000;
        std::tie(entry.begins, entry.ends) = textPlace(text, words);
        if (!entry.location.empty() && entry.ends > entry.begins) {
            list.entries.push_back(std::move(entry));
        }
    }
    return list;
}

} // namespace

std::string escapedXml(std::string_view text) {
    std::string escaped;
    for (const char c : text) {
        switch (c) {
        case '&':
            escaped += "&amp;";
            break;
        case '<':
            escaped += "&lt;";
            break;
        case '>':
            escaped += "&gt;";
            break;
        default:
            escaped += c;
        }
    }
    return escaped;
}

Result<Playlist> parsePlaylist(std::string_view text, const BytePath& name) {
    const auto ending = endingOf(name);
    const auto head = trimmed(text.substr(markLength(text), 4096));
    const auto begins = head.substr(std::min(head.find_first_not_of("\n\r\t "), head.size()));
    if (text.find('\0') != std::string_view::npos) {
        return Error{Cause::invalid, name,
                     displayPath(name) + " is no list: it holds bytes that no text has."};
    }
    if (begins.starts_with("<") || ending == "xspf") {
        return readXspf(text, name);
    }
    if (lowerAscii(begins.substr(0, 10)) == "[playlist]" || ending == "pls") {
        return readPls(text);
    }
    if (ending == "cue") {
        return readCue(text);
    }
    if (begins.starts_with("#EXTM3U") || ending == "m3u" || ending == "m3u8") {
        return readM3u(text);
    }
    return Error{Cause::invalid, name, displayPath(name) + " is no list of a kind that is known."};
}

bool canStandIn(PlaylistFormat format, std::string_view location) {
    return !location.empty() && location.find_first_of(std::string_view("\n\r\0", 3)) == std::string::npos &&
           (format == PlaylistFormat::xspf || format == PlaylistFormat::m3u ||
            trimmed(location).size() == location.size()) &&
           (format != PlaylistFormat::m3u ||
            (std::string_view("# \t").find(location.front()) == std::string_view::npos &&
             !location.starts_with("\xEF\xBB\xBF"))) &&
           (format != PlaylistFormat::cue || location.find('"') == std::string::npos);
}

Result<std::string> withLocations(std::string_view text, const Playlist& list,
                                  std::span<const NewLocation> changes) {
    std::string out;
    std::vector<NewLocation> ordered(changes.begin(), changes.end());
    std::ranges::sort(ordered, {},
                      [&](const NewLocation& change) { return list.entries[change.entry].begins; });
    std::size_t at = 0;
    for (const auto& [index, location] : ordered) {
        const auto& entry = list.entries[index];
        if (!canStandIn(list.format, location)) {
            return Error{Cause::invalid, location,
                         displayPath(location) +
                             " cannot stand in a list of this kind: it would be read as something else."};
        }
        out += text.substr(at, entry.begins - at);
        const bool bare = list.format == PlaylistFormat::cue && text[entry.begins - 1] != '"' &&
                          location.find_first_of(blanks) != std::string::npos;
        out += bare ? "\"" : "";
        out += list.format == PlaylistFormat::xspf ? escapedXml(location) : location;
        out += bare ? "\"" : "";
        at = entry.ends;
    }
    out += text.substr(at);
    return out;
}

} // namespace sober
