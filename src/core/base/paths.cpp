#include "core/base/paths.h"

#include <cstdlib>
#include <memory>

namespace sober {

BytePath joinPath(std::string_view folder, std::string_view name) {
    if (folder.empty()) {
        return BytePath(name);
    }
    if (name.empty()) {
        return BytePath(folder);
    }
    BytePath joined;
    joined.reserve(folder.size() + name.size() + 1);
    joined.append(folder);
    if (joined.back() != '/') {
        joined.push_back('/');
    }
    joined.append(name);
    return joined;
}

std::string_view parentOf(std::string_view path) {
    const auto slash = path.rfind('/');
    if (slash == std::string_view::npos) {
        return {};
    }
    return path.substr(0, slash == 0 ? 1 : slash);
}

std::string_view nameOf(std::string_view path) {
    const auto slash = path.rfind('/');
    return slash == std::string_view::npos ? path : path.substr(slash + 1);
}

std::string endingOf(std::string_view path) {
    const auto name = nameOf(path);
    const auto dot = name.rfind('.');
    if (dot == std::string_view::npos || dot == 0) {
        return {};
    }
    std::string ending(name.substr(dot + 1));
    for (char& c : ending) {
        if (c >= 'A' && c <= 'Z') {
            c = static_cast<char>(c - 'A' + 'a');
        }
    }
    return ending;
}

std::string_view stemOf(std::string_view path) {
    const auto name = nameOf(path);
    const auto dot = name.rfind('.');
    return dot == std::string_view::npos || dot == 0 ? name : name.substr(0, dot);
}

int depthOf(std::string_view relative) {
    int depth = 0;
    for (const char c : relative) {
        depth += c == '/' ? 1 : 0;
    }
    return depth;
}

bool isWithin(std::string_view path, std::string_view folder) {
    if (folder == "/") {
        return path.starts_with('/');
    }
    return path.starts_with(folder) && (path.size() == folder.size() || path[folder.size()] == '/');
}

std::optional<BytePath> relativeTo(std::string_view path, std::string_view folder) {
    if (!isWithin(path, folder)) {
        return std::nullopt;
    }
    auto rest = path.substr(folder.size());
    while (rest.starts_with('/')) {
        rest.remove_prefix(1);
    }
    return BytePath(rest);
}

std::optional<BytePath> realPathOf(std::string_view path) {
    const std::unique_ptr<char, decltype(&std::free)> resolved(realpath(BytePath(path).c_str(), nullptr),
                                                               &std::free);
    if (!resolved) {
        return std::nullopt;
    }
    return BytePath(resolved.get());
}

std::optional<BytePath> placeOf(std::string_view path) {
    while (path.size() > 1 && path.ends_with('/')) {
        path.remove_suffix(1);
    }
    const auto name = nameOf(path);
    if (name.empty() || name == "." || name == "..") {
        return realPathOf(path);
    }
    const auto parent = parentOf(path);
    const auto resolved = realPathOf(parent.empty() ? "." : parent);
    if (!resolved) {
        return std::nullopt;
    }
    return joinPath(*resolved, name);
}

} // namespace sober
