#include "core/transfer/emptied_folders.h"

#include "core/base/folder_names.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"

#include <sys/stat.h>

#include <algorithm>
#include <iterator>
#include <set>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

class Emptied {
  public:
    Emptied(const FilesMoving& files, const BytePath& within, std::span<const BytePath> kept)
        : within_(within), leaves_(files.from.begin(), files.from.end()) {
        noteAbove(files.to);
        needed_.insert(kept.begin(), kept.end());
        std::ranges::for_each(kept, [this](const BytePath& folder) { noteAsListed(folder); });
        noteAbove(kept);
    }

    bool isEmptied(const BytePath& folder) {
        const auto known = known_.find(folder);
        if (known != known_.end()) {
            return known->second;
        }
        const bool emptied = !needed_.contains(folder) && holdsNothingElse(folder);
        known_.emplace(folder, emptied);
        return emptied;
    }

    /// The highest folder around it that is emptied; "" where none is.
    BytePath topmostAround(const BytePath& place) {
        BytePath topmost;
        for (BytePath folder(parentOf(place)); folder != within_ && isWithin(folder, within_);
             folder = BytePath(parentOf(folder))) {
            if (isEmptied(folder)) {
                topmost = folder;
            } else if (!topmost.empty()) {
                break;
            }
        }
        return topmost;
    }

  private:
    void noteAbove(std::span<const BytePath> paths) {
        for (const auto& path : paths) {
            BytePath folder(parentOf(path));
            while (folder.size() > 1 && needed_.insert(folder).second) {
                noteAsListed(folder);
                folder = BytePath(parentOf(folder));
            }
        }
    }

    /// A file system that ignores letter case has one folder under many names, and lists it by one.
    void noteAsListed(const BytePath& folder) {
        if (presenceOf(folder) != Presence::there) {
            return;
        }
        const BytePath above(parentOf(folder));
        auto listed = listed_.find(above);
        if (listed == listed_.end()) {
            auto names = namesIn(above);
            listed = listed_.emplace(above, names ? std::move(*names) : std::vector<std::string>()).first;
        }
        const auto& names = listed->second;
        if (std::ranges::binary_search(names, nameOf(folder))) {
            return;
        }
        for (const auto& name : names) {
            if (foldedName(name) == foldedName(nameOf(folder))) {
                needed_.insert(joinPath(above, name));
            }
        }
    }

    bool holdsNothingElse(const BytePath& folder) {
        struct stat here {};
        const auto names = namesIn(folder);
        if (!names || lstat(folder.c_str(), &here) != 0) {
            return false;
        }
        for (const auto& name : *names) {
            const auto path = joinPath(folder, name);
            struct stat status {};
            if (lstat(path.c_str(), &status) != 0 || status.st_dev != here.st_dev) {
                return false;
            }
            if (S_ISDIR(status.st_mode) ? !isEmptied(path) : !leaves_.contains(path)) {
                return false;
            }
        }
        return true;
    }

    BytePath within_;
    std::unordered_set<BytePath> leaves_;
    std::unordered_set<BytePath> needed_; ///< folders that hold something then, or are to stay
    std::unordered_map<BytePath, std::vector<std::string>> listed_; ///< by folder
    std::unordered_map<BytePath, bool> known_;
};

Result<std::vector<BytePath>> foldersToStay(const Catalogue& catalogue, const BytePath& target,
                                            std::span<const Volume> volumes) {
    const auto players = PlayerStore(catalogue).all();
    RETURN_IF_FAILED(players);
    std::vector<BytePath> kept{target};
    std::ranges::transform(volumes, std::back_inserter(kept), &Volume::root);
    for (const auto& player : *players) {
        kept.insert(kept.end(), player.places.begin(), player.places.end());
    }
    return kept;
}

} // namespace

std::vector<BytePath> emptiedFolders(const FilesMoving& files, const BytePath& within,
                                     std::span<const BytePath> kept) {
    Emptied emptied(files, within, kept);
    std::set<BytePath> folders;
    for (const auto& place : files.from) {
        if (auto topmost = emptied.topmostAround(place); !topmost.empty()) {
            folders.insert(std::move(topmost));
        }
    }
    return {folders.begin(), folders.end()};
}

Result<std::vector<BytePath>> foldersLeftEmpty(const Catalogue& catalogue, const Transfer& transfer,
                                               std::span<const TransferItem> items) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    const auto on = volumeHolding(*volumes, transfer.folder); // a plan does not name it yet
    if (transfer.mode == TransferMode::copy || !on) {
        return std::vector<BytePath>();
    }
    const auto& volume = *on;
    std::vector<HoldingId> ids;
    std::ranges::transform(items, std::back_inserter(ids), &TransferItem::source);
    const auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    FilesMoving files;
    std::unordered_set<BytePath> done;
    for (std::size_t i = 0; i < items.size(); ++i) {
        const auto& holding = (*holdings)[i];
        auto place = joinPath(transfer.folder, items[i].target);
        const bool waits = items[i].state == ItemState::waits || items[i].state == ItemState::failed;
        if (holding.volume == volume->id && items[i].state == ItemState::copied) {
            done.insert(std::move(place));
        } else if (holding.volume == volume->id && waits && holding.checksum == items[i].content) {
            files.from.push_back(joinPath(volume->root, holding.path));
            files.to.push_back(std::move(place));
        }
    }
    const auto moved = done.empty() ? Result(std::vector<std::pair<BytePath, BytePath>>())
                                    : LedgerStore(catalogue).movesSince(transfer.made);
    const auto kept = foldersToStay(catalogue, transfer.folder, *volumes);
    if (!moved || !kept) {
        return moved ? kept.error() : moved.error();
    }
    for (const auto& [from, to] : *moved) {
        if (done.contains(to)) {
            files.from.push_back(from);
        }
    }
    return files.from.empty() ? std::vector<BytePath>() : emptiedFolders(files, volume->root, *kept);
}

} // namespace sober
