#include "core/base/mounts.h"

#include <charconv>
#include <fstream>
#include <sstream>

namespace sober {
namespace {

/// mountinfo writes space, tab, newline and backslash as three octal digits.
BytePath withoutOctal(std::string_view text) {
    BytePath out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto digit = [&](std::size_t at) { return text[at] >= '0' && text[at] <= '7'; };
        if (text[i] == '\\' && i + 3 < text.size() && digit(i + 1) && digit(i + 2) && digit(i + 3)) {
            out.push_back(
                static_cast<char>((text[i + 1] - '0') * 64 + (text[i + 2] - '0') * 8 + text[i + 3] - '0'));
            i += 3;
        } else {
            out.push_back(text[i]);
        }
    }
    return out;
}

} // namespace

std::vector<Mount> parseMountInfo(std::string_view text) {
    std::vector<Mount> mounts;
    std::istringstream lines{std::string(text)};
    for (std::string line; std::getline(lines, line);) {
        std::istringstream fields(line);
        std::vector<std::string> before;
        std::string field;
        while (fields >> field && field != "-") {
            before.push_back(field);
        }
        std::string type;
        std::string source;
        if (before.size() >= 6 && fields >> type >> source) {
            std::uint64_t id = 0;
            std::from_chars(before[0].data(), before[0].data() + before[0].size(), id);
            mounts.push_back({withoutOctal(before[4]), withoutOctal(before[3]), type, withoutOctal(source),
                              before[2], id});
        }
    }
    return mounts;
}

std::vector<Mount> mountsNow() {
    std::ifstream file("/proc/self/mountinfo");
    std::ostringstream text;
    text << file.rdbuf();
    return parseMountInfo(text.str());
}

std::optional<Mount> mountOf(std::span<const Mount> mounts, const BytePath& path) {
    const Mount* best = nullptr;
    for (const auto& mount : mounts) {
        // Of mounts on one point the last one listed covers the others.
        if (isWithin(path, mount.point) && (best == nullptr || mount.point.size() >= best->point.size())) {
            best = &mount;
        }
    }
    return best != nullptr ? std::optional(*best) : std::nullopt;
}

std::optional<InnerPlace> innerPlaceOf(std::span<const Mount> mounts, const BytePath& path) {
    const auto mount = mountOf(mounts, path);
    if (!mount) {
        return std::nullopt;
    }
    const auto below = relativeTo(path, mount->point).value_or(BytePath());
    return InnerPlace{mount->device, joinPath(mount->rootWithin, below)};
}

} // namespace sober
