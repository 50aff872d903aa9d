// The folders that an entry makes: another part of ledger_store.h.
#include "core/catalogue/guarded.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"

#include <algorithm>

namespace sober {
namespace {

/// Runs a statement for each, with the entry, the volume (0: none) and the path on it.
Outcome forEachFolder(const Catalogue& catalogue, EntryId entry, const std::set<BytePath>& folders,
                      const char* sql) {
    const auto volumes = folders.empty() ? Result(std::vector<Volume>()) : Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue, [&] {
        SQLite::Statement write(catalogue.database(), sql);
        for (const auto& folder : folders) {
            const auto volume = volumeHolding(*volumes, folder);
            write.bind(1, entry);
            write.bind(2, volume ? (*volume)->id : VolumeId{0});
            bindBytes(write, 3, volume ? relativeTo(folder, (*volume)->root).value_or(folder) : folder);
            write.exec();
            write.reset();
        }
    });
}

} // namespace

Outcome LedgerStore::noteFolders(EntryId entry, const std::set<BytePath>& folders) const {
    return forEachFolder(catalogue_, entry, folders, "INSERT OR IGNORE INTO ledger_folders VALUES(?,?,?)");
}

Outcome LedgerStore::forgetFolders(EntryId entry, const std::set<BytePath>& folders) const {
    return forEachFolder(catalogue_, entry, folders,
                         "DELETE FROM ledger_folders WHERE entry = ? AND volume = ? AND path = ?");
}

Result<std::vector<BytePath>> LedgerStore::foldersMadeBy(EntryId entry) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT volume, path FROM ledger_folders WHERE entry = ? ORDER BY volume, path");
        ask.bind(1, entry);
        std::vector<BytePath> folders;
        while (ask.executeStep()) {
            const auto volume = std::ranges::find(*volumes, ask.getColumn(0).getInt64(), &Volume::id);
            const auto path = bytesOf(ask.getColumn(1));
            if (ask.getColumn(0).getInt64() == 0) {
                folders.push_back(path);
            } else if (volume != volumes->end() && volume->reaches(path)) {
                folders.push_back(joinPath(volume->root, path));
            }
        }
        return folders;
    });
}

} // namespace sober
