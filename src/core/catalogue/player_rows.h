#pragma once

#include "core/catalogue/player_store.h"
#include "core/catalogue/records.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <span>

namespace sober {

// What the files of PlayerStore share.

/// Where something lies: a volume and the path within it, or no volume and the whole path.
struct KeptPlace {
    VolumeId volume = 0;
    BytePath path;
};

KeptPlace placeFor(std::span<const Volume> volumes, const BytePath& path);
/// Null where there is none of that id.
const Volume* volumeOf(std::span<const Volume> volumes, VolumeId id);
BytePath absolute(std::span<const Volume> volumes, VolumeId id, const BytePath& path);

/// Takes a list in or writes it anew, and makes it the player's. Within the caller's transaction.
ListFileId writeList(SQLite::Database& database, std::span<const Volume> volumes, const ListFile& list,
                     PlayerId player);
/// Forgets lists that are of no player any more. Within the caller's transaction.
void dropOrphans(SQLite::Database& database);

} // namespace sober
