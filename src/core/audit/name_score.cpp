#include "core/audit/name_score.h"

#include "core/base/text.h"

#include <algorithm>
#include <array>
#include <cstdlib>
#include <memory>
#include <utf8proc.h>

namespace sober {
namespace {

/// For comparing words: Unicode case folded, compatibility composed, marks stripped.
std::string folded(std::string_view text) {
    const std::string good = repairedUtf8(text);
    utf8proc_uint8_t* mapped = nullptr;
    const auto length = utf8proc_map(reinterpret_cast<const utf8proc_uint8_t*>(good.data()),
                                     static_cast<utf8proc_ssize_t>(good.size()), &mapped,
                                     static_cast<utf8proc_option_t>(UTF8PROC_COMPAT | UTF8PROC_DECOMPOSE |
                                                                    UTF8PROC_CASEFOLD | UTF8PROC_STRIPMARK));
    const std::unique_ptr<utf8proc_uint8_t, decltype(&std::free)> owner(mapped, &std::free);
    if (length < 0) {
        return good;
    }
    std::string out(reinterpret_cast<const char*>(mapped), static_cast<std::size_t>(length));
    std::ranges::replace(out, '_', ' ');
    return out;
}

bool holds(const std::string& foldedPath, const std::string& tag) {
    return !tag.empty() && foldedPath.find(folded(tag)) != std::string::npos;
}

/// "track01", "audio 3", "untitled": names that say nothing.
bool saysNothing(std::string_view path) {
    const std::string stem = folded(stemOf(path));
    const auto letters = stem.substr(0, stem.find_first_of("0123456789"));
    constexpr std::array<std::string_view, 8> empty{"track",    "track ", "audio", "audio ",
                                                    "untitled", "rec",    "file",  ""};
    return std::ranges::find(empty, letters) != empty.end();
}

} // namespace

bool looksLikeSecondCopy(const BytePath& path) {
    const std::string stem = folded(stemOf(path));
    if (stem.starts_with("copy of ") || stem.ends_with(" copy") || stem.ends_with("-copy") ||
        stem.find("(copy") != std::string::npos) {
        return true;
    }
    if (stem.size() >= 3 && stem.back() == ')') {
        const auto open = stem.rfind('(');
        return open != std::string::npos && open + 2 < stem.size() &&
               std::all_of(stem.begin() + static_cast<std::ptrdiff_t>(open) + 1, stem.end() - 1,
                           [](char c) { return c >= '0' && c <= '9'; }) &&
               stem.size() - open <= 4;
    }
    return false;
}

bool isPassingPlace(const BytePath& path) {
    constexpr std::array<std::string_view, 10> names{"downloads", "download", "desktop", "temp",
                                                     "tmp",       "incoming", "inbox",   "trash",
                                                     "unsorted",  "to sort"};
    std::string_view rest = path;
    while (true) {
        const auto slash = rest.find('/');
        if (slash == std::string_view::npos) {
            return false;
        }
        if (std::ranges::find(names, folded(rest.substr(0, slash))) != names.end()) {
            return true;
        }
        rest.remove_prefix(slash + 1);
    }
}

int nameScore(const Holding& holding) {
    const std::string path = folded(holding.path);
    const auto& tags = holding.tags;
    int score = 0;
    score += holds(path, tags.title) ? 4 : 0;
    score += holds(path, tags.artist) ? 2 : 0;
    score += holds(path, tags.album) ? 2 : 0;
    score += std::min(depthOf(holding.path), 2);
    score -= looksLikeSecondCopy(holding.path) ? 4 : 0;
    score -= saysNothing(holding.path) ? 2 : 0;
    score -= isUtf8(holding.path) ? 0 : 2;
    return score;
}

} // namespace sober
