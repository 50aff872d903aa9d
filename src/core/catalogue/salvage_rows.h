#pragma once

#include "core/catalogue/salvage_store.h"

#include <SQLiteCpp/SQLiteCpp.h>

namespace sober {

// Sources and finds as rows of the catalogue.

inline constexpr const char* sourceColumns =
    "id, path, size, mtime, kinds, everywhere, reached, state, began, file_systems, passed_over";
inline constexpr const char* findColumns =
    "id, source, how, format, extents, bytes, seconds, name, came_from, file, deleted, begins, ends, "
    "overwritten, sound, "
    "complete, xxh3, title, artist, album, track, date, fingerprint, holding, recognised, agreement, kin, "
    "examined, taken, piece, others";
inline constexpr int findFields = 30; ///< columns from the second on

std::string packedRanges(const std::vector<ByteRange>& ranges);
SalvageSource sourceFrom(SQLite::Statement& row);
Find findFrom(SQLite::Statement& row);
/// All columns from the second on.
void bindFind(SQLite::Statement& statement, const Find& find);

} // namespace sober
