#include "core/base/inner_path.h"

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr std::string_view mark = "!/";

constexpr std::array<std::string_view, 13> endings{".zip", ".tar",     ".tar.gz",  ".tgz",  ".tar.xz",
                                                   ".txz", ".tar.zst", ".tar.bz2", ".tbz2", ".tar.lzma",
                                                   ".7z",  ".rar",     ".iso"};

char lowered(char letter) {
    return letter >= 'A' && letter <= 'Z' ? static_cast<char>(letter - 'A' + 'a') : letter;
}

} // namespace

bool isArchiveName(std::string_view path) {
    const auto name = nameOf(path);
    return std::ranges::any_of(endings, [&](std::string_view ending) {
        return name.size() > ending.size() &&
               std::ranges::equal(name.substr(name.size() - ending.size()), ending, {}, lowered);
    });
}

std::optional<InnerPath> innerPathOf(std::string_view path) {
    for (auto at = path.find(mark); at != std::string_view::npos; at = path.find(mark, at + 1)) {
        if (isArchiveName(path.substr(0, at))) {
            return InnerPath{BytePath(path.substr(0, at)), BytePath(path.substr(at + mark.size()))};
        }
    }
    return std::nullopt;
}

BytePath innerPath(std::string_view archive, std::string_view inside) {
    return BytePath(archive).append(mark).append(inside);
}

} // namespace sober
