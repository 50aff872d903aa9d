#include "core/players/resolver.h"

#include "core/base/text.h"

#include <linux/magic.h>
#include <sys/stat.h>
#include <sys/vfs.h>

#include <algorithm>
#include <array>
#include <climits>
#include <dirent.h>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

/// File systems that find, or may find, a name in another letter case: there the folder says how it is really
/// written. Numbers that are not in every linux/magic.h are from memory.
bool mayIgnoreCaseAt(const BytePath& folder) {
    constexpr std::array<std::int64_t, 9> types{MSDOS_SUPER_MAGIC,
                                                0x2011BAB0,  // exFAT
                                                0x7366746E,  // NTFS
                                                0x65735546,  // in user space: whatever lies behind it
                                                0x482B,      // HFS+
                                                0x517B,      // SMB
                                                0xFF534D42,  // CIFS
                                                0xFE534D42,  // SMB 2
                                                0x786F4256}; // a folder of a host
    struct statfs what {};
    return statfs(folder.c_str(), &what) == 0 &&
           std::ranges::find(types, static_cast<std::int64_t>(what.f_type) & 0xFFFFFFFF) != types.end();
}

/// What follows `prefix` in a path that a device wrote, whose letter case may differ.
std::optional<BytePath> afterPrefix(const BytePath& path, const BytePath& prefix) {
    const auto ended = prefix.ends_with("/") ? prefix : prefix + "/";
    if (path.size() < ended.size() ||
        lowerAscii(std::string_view(path).substr(0, ended.size())) != lowerAscii(ended)) {
        return std::nullopt;
    }
    return path.substr(ended.size());
}

} // namespace

LocationMeaning mappedMeaning(std::string_view location, const ListContext& context) {
    auto meaning = meaningOf(location, context.asUri, context.folder);
    if (context.writtenPrefix.empty() || meaning.relative || meaning.kind == LocationKind::stream) {
        return meaning;
    }
    std::vector<BytePath> mapped;
    for (const auto& path : meaning.paths) {
        if (const auto rest = afterPrefix(path, context.writtenPrefix)) {
            mapped.push_back(joinPath(context.standsFor, *rest));
        }
    }
    if (!mapped.empty()) {
        meaning.kind = LocationKind::file;
        meaning.paths = std::move(mapped);
        meaning.percentUndone.clear();
    }
    return meaning;
}

Resolver::Folder& Resolver::folder(const BytePath& path) {
    const auto found = folders_.find(path);
    if (found != folders_.end()) {
        return found->second;
    }
    Folder made;
    if (const auto real = realPathOf(path)) {
        made.real = *real;
        made.would = *real;
        made.ignoresCase = mayIgnoreCaseAt(*real);
    } else if (path == "/" || path.empty()) {
        made.would = path;
    } else {
        made.would = joinPath(folder(BytePath(parentOf(path))).would, nameOf(path));
    }
    return folders_.emplace(path, std::move(made)).first->second;
}

BytePath Resolver::canonical(const BytePath& path) {
    return joinPath(folder(BytePath(parentOf(path))).would, nameOf(path));
}

std::optional<BytePath> Resolver::whereLinkLeads(const BytePath& link) {
    std::array<char, PATH_MAX> text{};
    const auto length = readlink(link.c_str(), text.data(), text.size());
    if (length <= 0 || static_cast<std::size_t>(length) == text.size()) {
        return std::nullopt;
    }
    const BytePath target(text.data(), static_cast<std::size_t>(length));
    return canonical(target.starts_with('/') ? target : joinPath(BytePath(parentOf(link)), target));
}

std::vector<BytePath> Resolver::placesOf(std::string_view location, const ListContext& context) {
    const auto meaning = mappedMeaning(location, context);
    std::vector<BytePath> places;
    for (const auto& path : meaning.paths) {
        // What only resolves by undoing percent signs counts as broken.
        if (path != meaning.percentUndone || path == meaning.paths.front()) {
            places.push_back(meaning.kind == LocationKind::foreign ? path : canonical(path));
        }
    }
    return places;
}

const std::vector<std::string>* Resolver::namesLike(Folder& folder, std::string_view name) {
    if (!folder.listed) {
        folder.listed = true;
        if (DIR* listing = folder.real.empty() ? nullptr : opendir(folder.real.c_str())) {
            while (const auto* entry = readdir(listing)) {
                folder.names[foldedName(entry->d_name)].emplace_back(entry->d_name);
            }
            closedir(listing);
        }
    }
    const auto found = folder.names.find(foldedName(name));
    return found != folder.names.end() ? &found->second : nullptr;
}

BytePath Resolver::nearly(const BytePath& path) {
    const BytePath parent(parentOf(path));
    auto near = nearFolders_.find(parent);
    if (near == nearFolders_.end()) {
        auto real = folder(parent).real;
        if (real.empty() && parent.size() > 1) {
            real = nearly(parent);
        }
        near = nearFolders_.emplace(parent, std::move(real)).first;
    }
    if (near->second.empty()) {
        return {};
    }
    const auto* names = namesLike(folder(near->second), nameOf(path));
    return names != nullptr && names->size() == 1 ? joinPath(near->second, names->front()) : BytePath();
}

bool Resolver::isOnAway(const BytePath& path) const {
    const bool here = std::ranges::any_of(
        volumes_, [&](const Volume& volume) { return volume.atHand && isWithin(path, volume.root); });
    return !here && std::ranges::any_of(volumes_, [&](const Volume& volume) {
        return !volume.atHand && isWithin(path, volume.root);
    });
}

Resolution Resolver::resolve(std::string_view location, const ListContext& context) {
    const auto meaning = mappedMeaning(location, context);
    if (meaning.kind == LocationKind::stream) {
        return {ReferenceState::stream, {}, {}};
    }
    if (meaning.kind == LocationKind::foreign) {
        return {ReferenceState::broken, meaning.paths.front(), {}};
    }
    std::optional<BytePath> linked;
    for (const auto& path : meaning.paths) {
        auto& parent = folder(BytePath(parentOf(path)));
        if (parent.real.empty()) {
            continue;
        }
        auto real = joinPath(parent.real, nameOf(path));
        struct stat status {};
        if (lstat(real.c_str(), &status) != 0) {
            continue;
        }
        if (S_ISLNK(status.st_mode)) {
            const auto target = realPathOf(real);
            if (!target || lstat(target->c_str(), &status) != 0) {
                linked = linked ? linked : whereLinkLeads(real);
                continue;
            }
            real = *target;
        }
        if (!S_ISREG(status.st_mode)) {
            continue;
        }
        if (path == meaning.percentUndone && path != meaning.paths.front()) {
            return {ReferenceState::broken, canonical(meaning.paths.front()), real};
        }
        if (parent.ignoresCase) {
            const auto* names = namesLike(parent, nameOf(path));
            if (names != nullptr && std::ranges::find(*names, nameOf(path)) == names->end()) {
                real = joinPath(parent.real, names->front());
                return {ReferenceState::loosely, real, real};
            }
        }
        return {ReferenceState::resolved, std::move(real), {}};
    }
    const auto where = linked.value_or(canonical(meaning.paths.front()));
    if (isOnAway(where)) {
        return {ReferenceState::away, where, {}};
    }
    for (const auto& path : meaning.paths) {
        if (auto near = nearly(path); !near.empty()) {
            struct stat status {};
            if (lstat(near.c_str(), &status) == 0 && S_ISREG(status.st_mode)) {
                return {path == meaning.percentUndone && path != meaning.paths.front()
                            ? ReferenceState::broken
                            : ReferenceState::loosely,
                        where, near};
            }
        }
    }
    return {ReferenceState::broken, where, {}};
}

} // namespace sober
