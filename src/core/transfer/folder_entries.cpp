#include "core/transfer/folder_entries.h"

#include "core/base/folder_names.h"
#include "core/base/text.h"
#include "core/transfer/target_names.h"

namespace sober {

bool FolderEntries::take(const BytePath& path) {
    const auto& rules = *place_.rules;
    if (rules.entriesInFolder == 0) {
        return true;
    }
    std::vector<std::pair<Folder*, BytePath>> added;
    for (BytePath here = path; !here.empty(); here = BytePath(parentOf(here))) {
        const BytePath above(parentOf(here));
        auto& folder = folderAt(above);
        if (folder.names.contains(collisionKey(rules, BytePath(nameOf(here))))) {
            break; // and so are the folders above it
        }
        if (folder.entries + entriesOf(rules, nameOf(here)) > limitOf(above)) {
            return false;
        }
        added.emplace_back(&folder, BytePath(nameOf(here)));
    }
    for (const auto& [folder, name] : added) {
        folder->entries += entriesOf(rules, name);
        folder->names.insert(collisionKey(rules, name));
    }
    return true;
}

FolderEntries::Folder& FolderEntries::folderAt(const BytePath& path) {
    const auto [found, isNew] = folders_.try_emplace(path);
    // What cannot be listed takes what it takes: the copying says so.
    const auto standing = isNew && withStanding_ && place_.isThere ? namesIn(joinPath(place_.folder, path))
                                                                   : Result(std::vector<std::string>());
    for (const auto& name : standing ? *standing : std::vector<std::string>()) {
        found->second.entries += entriesOf(*place_.rules, name);
        found->second.names.insert(collisionKey(*place_.rules, name));
    }
    return found->second;
}

std::uint64_t FolderEntries::limitOf(const BytePath& folder) const {
    const auto& rules = *place_.rules;
    return folder.empty() && place_.isRoot && rules.entriesInRoot > 0 ? rules.entriesInRoot
                                                                      : rules.entriesInFolder;
}

} // namespace sober
