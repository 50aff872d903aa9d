#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/player_rows.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>

namespace sober {

Result<std::vector<ListFile>> PlayerStore::lists() const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        std::map<ListFileId, std::vector<PlayerId>> players;
        SQLite::Statement owners(catalogue_.database(), "SELECT list, player FROM player_lists");
        while (owners.executeStep()) {
            players[owners.getColumn(0).getInt64()].push_back(owners.getColumn(1).getInt64());
        }
        std::vector<ListFile> lists;
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, path, size, mtime, ctime, inode, problem, as_uri "
                              "FROM lists ORDER BY volume, path");
        while (ask.executeStep()) {
            ListFile list;
            list.id = ask.getColumn(0).getInt64();
            const auto volume = ask.getColumn(1).getInt64();
            list.path = absolute(*volumes, volume, bytesOf(ask.getColumn(2)));
            const auto* on = volumeOf(*volumes, volume);
            list.away = on != nullptr && !on->atHand;
            list.stamp.size = countAt(ask, 3);
            list.stamp.mtime = ask.getColumn(4).getInt64();
            list.stamp.ctime = ask.getColumn(5).getInt64();
            list.stamp.inode = countAt(ask, 6);
            list.problem = ask.getColumn(7).getString();
            list.asUri = ask.getColumn(8).getInt() != 0;
            list.players = players[list.id];
            lists.push_back(std::move(list));
        }
        return lists;
    });
}

Result<ListFileId> PlayerStore::keepList(const ListFile& list, PlayerId player) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        const auto id = writeList(catalogue_.database(), *volumes, list, player);
        transaction.commit();
        return id;
    });
}

Outcome PlayerStore::forgetLists(PlayerId player, std::span<const ListFileId> lists) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement erase(database, "DELETE FROM player_lists WHERE player = ? AND list = ?");
        for (const auto list : lists) {
            erase.bind(1, player);
            erase.bind(2, list);
            erase.exec();
            erase.reset();
        }
        dropOrphans(database);
        transaction.commit();
    });
}

Result<std::vector<BytePath>> PlayerStore::listsNaming(HoldingId holding) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT DISTINCT l.volume, l.path FROM holdings h JOIN list_references r ON ") +
                leadsSql + " JOIN lists l ON l.id = r.list WHERE h.id = ? ORDER BY l.path");
        ask.bind(1, holding);
        std::vector<BytePath> lists;
        while (ask.executeStep()) {
            lists.push_back(absolute(*volumes, ask.getColumn(0).getInt64(), bytesOf(ask.getColumn(1))));
        }
        return lists;
    });
}

} // namespace sober
