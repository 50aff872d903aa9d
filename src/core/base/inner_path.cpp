#include "core/base/inner_path.h"

#include <algorithm>
#include <array>
#include <span>

namespace sober {
namespace {

constexpr std::string_view mark = "!/";

constexpr std::array<std::string_view, 13> archiveEndings{
    ".zip",     ".tar",  ".tar.gz",   ".tgz", ".tar.xz", ".txz", ".tar.zst",
    ".tar.bz2", ".tbz2", ".tar.lzma", ".7z",  ".rar",    ".iso"};
constexpr std::array<std::string_view, 2> imageEndings{".img", ".dd"};

char lowered(char letter) {
    return letter >= 'A' && letter <= 'Z' ? static_cast<char>(letter - 'A' + 'a') : letter;
}

bool endsLikeOne(std::string_view path, std::span<const std::string_view> endings) {
    const auto name = nameOf(path);
    return std::ranges::any_of(endings, [&](std::string_view ending) {
        return name.size() > ending.size() &&
               std::ranges::equal(name.substr(name.size() - ending.size()), ending, {}, lowered);
    });
}

} // namespace

bool isArchiveName(std::string_view path) {
    return endsLikeOne(path, archiveEndings) || isImageName(path);
}

bool isImageName(std::string_view path) {
    return endsLikeOne(path, imageEndings);
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
