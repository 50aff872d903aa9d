#include "core/exchange/bag_text.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <unordered_set>

namespace sober {
namespace {

/// Line by line; LF, CR and CRLF end one.
template <typename Take>
void eachLine(std::string_view text, Take take) {
    if (text.starts_with("\xEF\xBB\xBF")) {
        text.remove_prefix(3);
    }
    for (std::size_t number = 1; !text.empty(); ++number) {
        const auto end = std::min(text.find_first_of("\r\n"), text.size());
        take(text.substr(0, end), number);
        const bool pair = text.substr(end).starts_with("\r\n");
        text.remove_prefix(std::min(end + (pair ? 2 : 1), text.size()));
    }
}

BytePath percentUndone(std::string_view text) {
    BytePath path;
    for (std::size_t at = 0; at < text.size(); ++at) {
        const auto escape = text.substr(at, 3);
        const char undone = escape == "%0A" || escape == "%0a"   ? '\n'
                            : escape == "%0D" || escape == "%0d" ? '\r'
                            : escape == "%25"                    ? '%'
                                                                 : '\0';
        path += undone != '\0' ? undone : text[at];
        at += undone != '\0' ? 2 : 0;
    }
    return path;
}

BytePath percentDone(const BytePath& path) {
    BytePath text;
    for (const char c : path) {
        switch (c) {
        case '\n':
            text += "%0A";
            break;
        case '\r':
            text += "%0D";
            break;
        case '%':
            text += "%25";
            break;
        default:
            text += c;
        }
    }
    return text;
}

/// Why a name must not be followed; nothing where it may.
std::optional<std::string_view> whyUnsafe(const BytePath& path, bool payload) {
    if (path.empty() || path.front() == '/' || path.front() == '~') {
        return "names no place within the bag";
    }
    const auto framed = "/" + path + "/";
    if (framed.find("/../") != BytePath::npos || framed.find("/./") != BytePath::npos ||
        path.find('\0') != BytePath::npos) {
        return "leaves the bag";
    }
    const bool below = path.starts_with("data/");
    if (payload != below) {
        return payload ? "names a file that is no payload" : "names payload among the tag files";
    }
    return std::nullopt;
}

} // namespace

BagManifest parseBagManifest(std::string_view text, bool payload) {
    BagManifest manifest;
    std::unordered_set<BytePath> met;
    eachLine(text, [&](std::string_view line, std::size_t number) {
        if (line.empty()) {
            return;
        }
        const auto problem = [&](std::string_view why) {
            manifest.problems.push_back({number, fmt::format("line {} {}", humanCount(number), why)});
        };
        const auto space = line.find_first_of(" \t");
        const auto begins = space != std::string_view::npos ? line.find_first_not_of(" \t", space) : space;
        if (begins == std::string_view::npos || !bytesFromHex(lowerAscii(line.substr(0, space)))) {
            problem("is no checksum and name");
            return;
        }
        // Tools that write checksum lists put an asterisk before the name.
        const auto name = line.substr(begins + (line[begins] == '*' ? 1 : 0));
        auto path = percentUndone(name);
        if (path.starts_with("./")) {
            path.erase(0, 2);
        }
        if (const auto why = whyUnsafe(path, payload)) {
            problem(*why);
        } else if (!met.insert(path).second) {
            problem("names a file for the second time");
        } else {
            manifest.files.push_back({std::move(path), lowerAscii(line.substr(0, space))});
        }
    });
    return manifest;
}

std::string bagManifestText(std::span<const ListedFile> files) {
    std::string text;
    for (const auto& file : files) {
        // An asterisk or a blank at its beginning would not be taken for the name's own.
        const bool guarded = file.path.find_first_of("* \t") == 0;
        text += file.hex + (guarded ? "  ./" : "  ") + percentDone(file.path) + "\n";
    }
    return text;
}

std::vector<std::pair<std::string, std::string>> parseBagInfo(std::string_view text) {
    std::vector<std::pair<std::string, std::string>> info;
    const auto trimmed = [](std::string_view part) {
        const auto first = part.find_first_not_of(" \t");
        return first == std::string_view::npos
                   ? std::string()
                   : std::string(part.substr(first, part.find_last_not_of(" \t") - first + 1));
    };
    eachLine(text, [&](std::string_view line, std::size_t) {
        if (!line.empty() && (line.front() == ' ' || line.front() == '\t')) {
            if (!info.empty()) {
                info.back().second += fmt::format(" {}", trimmed(line));
            }
            return;
        }
        const auto colon = line.find(':');
        if (colon != std::string_view::npos) {
            info.emplace_back(trimmed(line.substr(0, colon)), trimmed(line.substr(colon + 1)));
        }
    });
    return info;
}

std::vector<BytePath> parseBagFetch(std::string_view text) {
    std::vector<BytePath> names;
    eachLine(text, [&](std::string_view line, std::size_t) {
        const auto space = line.find_last_of(" \t");
        if (space != std::string_view::npos) {
            names.push_back(percentUndone(line.substr(space + 1)));
        }
    });
    return names;
}

} // namespace sober
