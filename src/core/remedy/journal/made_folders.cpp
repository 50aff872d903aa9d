#include "core/remedy/journal/made_folders.h"

#include "core/base/text.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/changes/file_changes.h"

#include <algorithm>
#include <ranges>

namespace sober {

Outcome removeMadeFolders(const Catalogue& catalogue, EntryId entry) {
    const LedgerStore ledger(catalogue);
    const auto folders = ledger.foldersMadeBy(entry);
    RETURN_IF_FAILED(folders);
    const auto players = folders->empty() ? Result(std::vector<Player>()) : PlayerStore(catalogue).all();
    RETURN_IF_FAILED(players);
    const auto volumes = folders->empty() ? Result(std::vector<Volume>()) : Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    std::set<BytePath> removed;
    Unflushed unflushed;
    for (const auto& folder : std::views::reverse(*folders)) { // those within others first
        const auto isIn = [&](const BytePath& place) { return isWithin(place, folder); };
        const bool isKept = std::ranges::any_of(*volumes, isIn, &Volume::root) ||
                            std::ranges::any_of(*players, [&](const Player& player) {
                                return std::ranges::any_of(player.places, isIn);
                            });
        if (!isKept && removeEmptyFolder(folder, unflushed)) {
            removed.insert(folder);
        }
    }
    unflushed.flush();
    return ledger.forgetFolders(entry, removed);
}

} // namespace sober
