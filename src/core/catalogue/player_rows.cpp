#include "core/catalogue/player_rows.h"

#include "core/catalogue/guarded.h"

#include <algorithm>

namespace sober {

KeptPlace placeFor(std::span<const Volume> volumes, const BytePath& path) {
    const Volume* best = nullptr;
    for (const auto& volume : volumes) {
        if (volume.atHand && isWithin(path, volume.root) &&
            (best == nullptr || volume.root.size() > best->root.size())) {
            best = &volume;
        }
    }
    return best != nullptr ? KeptPlace{best->id, *relativeTo(path, best->root)} : KeptPlace{0, path};
}

const Volume* volumeOf(std::span<const Volume> volumes, VolumeId id) {
    const auto found = std::ranges::find(volumes, id, &Volume::id);
    return found != volumes.end() ? &*found : nullptr;
}

BytePath absolute(std::span<const Volume> volumes, VolumeId id, const BytePath& path) {
    const auto* volume = volumeOf(volumes, id);
    return volume != nullptr ? joinPath(volume->root, path) : path;
}

void dropOrphans(SQLite::Database& database) {
    database.exec("DELETE FROM list_references WHERE list NOT IN (SELECT list FROM player_lists)");
    database.exec("DELETE FROM lists WHERE id NOT IN (SELECT list FROM player_lists)");
}

ListFileId writeList(SQLite::Database& database, std::span<const Volume> volumes, const ListFile& list,
                     PlayerId player) {
    // One that is known stays where it is known, also while its volume seems to be away.
    const auto place = placeFor(volumes, list.path);
    SQLite::Statement insert(
        database,
        "INSERT INTO lists(volume, path, size, mtime, ctime, inode, problem, as_uri) "
        "SELECT coalesce(k.volume, ?1), coalesce(k.path, ?2), ?3, ?4, ?5, ?6, ?7, ?8 FROM (SELECT 1) "
        "LEFT JOIN lists k ON k.id = ?9 WHERE true "
        "ON CONFLICT(volume, path) DO UPDATE SET size = excluded.size, mtime = excluded.mtime, "
        "ctime = excluded.ctime, inode = excluded.inode, problem = excluded.problem, as_uri = "
        "excluded.as_uri RETURNING id");
    insert.bind(1, place.volume);
    bindBytes(insert, 2, place.path);
    insert.bind(3, static_cast<std::int64_t>(list.stamp.size));
    insert.bind(4, list.stamp.mtime);
    insert.bind(5, list.stamp.ctime);
    insert.bind(6, static_cast<std::int64_t>(list.stamp.inode));
    insert.bind(7, list.problem);
    insert.bind(8, list.asUri ? 1 : 0);
    insert.bind(9, list.id);
    insert.executeStep();
    const auto id = insert.getColumn(0).getInt64();
    insert.reset();
    SQLite::Statement own(database, "INSERT OR IGNORE INTO player_lists(player, list) VALUES(?,?)");
    own.bind(1, player);
    own.bind(2, id);
    own.exec();
    return id;
}

} // namespace sober
