#include "core/players/location.h"

#include "core/base/text.h"

#include <algorithm>

namespace sober {
namespace {

bool isLetter(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
}

bool isDigit(char c) {
    return c >= '0' && c <= '9';
}

/// RFC 3986 section 3.1; a single letter is a drive.
std::string schemeOf(std::string_view location) {
    const auto colon = location.find(':');
    if (colon == std::string_view::npos || colon < 2 || !isLetter(location.front()) ||
        !std::ranges::all_of(location.substr(0, colon), [](char c) {
            return isLetter(c) || isDigit(c) || c == '+' || c == '-' || c == '.';
        })) {
        return {};
    }
    return lowerAscii(location.substr(0, colon));
}

bool hasDrive(std::string_view path) {
    return path.size() >= 3 && isLetter(path[0]) && path[1] == ':' && (path[2] == '\\' || path[2] == '/');
}

BytePath withSlashes(BytePath path) {
    std::ranges::replace(path, '\\', '/');
    return path;
}

/// Without ".", ".." and doubled slashes; what would lead above the root stays at it.
BytePath normalised(std::string_view path) {
    std::vector<std::string_view> parts;
    for (std::size_t at = 0; at <= path.size();) {
        const auto end = std::min(path.find('/', at), path.size());
        const auto part = path.substr(at, end - at);
        if (part == ".." && !parts.empty()) {
            parts.pop_back();
        } else if (!part.empty() && part != "." && part != "..") {
            parts.push_back(part);
        }
        at = end + 1;
    }
    BytePath whole;
    for (const auto part : parts) {
        whole += '/';
        whole += part;
    }
    return whole.empty() ? "/" : whole;
}

void addOnce(std::vector<BytePath>& paths, BytePath path) {
    if (std::ranges::find(paths, path) == paths.end()) {
        paths.push_back(std::move(path));
    }
}

LocationMeaning foreign(const BytePath& path) {
    return {LocationKind::foreign, {withSlashes(path)}, false, {}};
}

/// The path of a file: URI, "" where it names a host that is not this one.
LocationMeaning meaningOfFileUri(std::string_view rest) {
    if (rest.starts_with("//")) {
        const auto slash = std::min(rest.find('/', 2), rest.size());
        const auto host = lowerAscii(rest.substr(2, slash - 2));
        if (!host.empty() && host != "localhost") {
            BytePath share = "//";
            share += host;
            share += percentDecoded(rest.substr(slash));
            return foreign(share);
        }
        rest.remove_prefix(slash);
    }
    const auto path = percentDecoded(rest);
    if (hasDrive(std::string_view(path).substr(std::min<std::size_t>(1, path.size())))) {
        return foreign(path.substr(1));
    }
    return {LocationKind::file, {normalised(path)}, false, {}};
}

} // namespace

LocationMeaning meaningOf(std::string_view location, bool asUri, const BytePath& listFolder) {
    if (const auto scheme = schemeOf(location); !scheme.empty()) {
        if (scheme == "file") {
            return meaningOfFileUri(location.substr(5));
        }
        // A name may hold a colon; what has two slashes behind it is no name.
        if (asUri || location.substr(scheme.size() + 1).starts_with("//")) {
            return {LocationKind::stream, {}, false, {}};
        }
    }
    const BytePath written(location);
    if (hasDrive(written) || written.starts_with("\\\\")) {
        return foreign(written);
    }
    LocationMeaning meaning;
    meaning.relative = !written.starts_with("/") && !written.starts_with("\\");
    std::vector<BytePath> readings;
    if (asUri) {
        readings.push_back(percentDecoded(written));
    } else {
        const bool hasBackslashes = written.find('\\') != BytePath::npos;
        // A path that is parted by nothing else is parted by its backslashes.
        if (hasBackslashes && written.find('/') == BytePath::npos) {
            readings.push_back(withSlashes(written));
        }
        readings.push_back(written);
        if (hasBackslashes) {
            readings.push_back(withSlashes(written));
        }
        if (written.find('%') != BytePath::npos) {
            readings.push_back(percentDecoded(written));
        }
    }
    // Blanks at the end of a line are mostly nobody's; a name may end in them all the same.
    if (!asUri && !written.empty() && (written.ends_with(' ') || written.ends_with('\t'))) {
        const auto raw = readings;
        for (auto& reading : readings) {
            reading.erase(reading.find_last_not_of(" \t") + 1);
        }
        readings.insert(readings.end(), raw.begin(), raw.end());
    }
    const auto count = readings.size();
    for (std::size_t i = 0; i < count; ++i) {
        if (!isUtf8(readings[i])) {
            readings.push_back(repairedUtf8(readings[i]));
        }
    }
    const auto whole = [&](const BytePath& reading) {
        return normalised(meaning.relative ? joinPath(listFolder, reading) : reading);
    };
    for (const auto& reading : readings) {
        addOnce(meaning.paths, whole(reading));
    }
    if (!asUri && written.find('%') != BytePath::npos) {
        meaning.percentUndone = whole(percentDecoded(written));
    }
    return meaning;
}

std::string fileUriOf(const BytePath& absolute) {
    constexpr std::string_view digits = "0123456789ABCDEF";
    std::string uri = "file://";
    for (const char c : absolute) {
        if (isLetter(c) || isDigit(c) || std::string_view("-._~/").find(c) != std::string_view::npos) {
            uri += c;
        } else {
            const auto byte = static_cast<unsigned char>(c);
            uri += '%';
            uri += digits[byte >> 4];
            uri += digits[byte & 15];
        }
    }
    return uri;
}

} // namespace sober
