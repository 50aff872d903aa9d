#pragma once

#include "core/catalogue/findings.h"
#include "core/catalogue/guarded.h"

namespace sober {

// How findings stand in their tables, for what reads and what writes them.

inline CopySet setFrom(SQLite::Statement& row) {
    return {row.getColumn(0).getInt64(),
            checksumOf(row.getColumn(1)),
            static_cast<Sameness>(row.getColumn(2).getInt()),
            countAt(row, 3),
            countAt(row, 4),
            countAt(row, 5),
            countAt(row, 6),
            countAt(row, 7),
            row.getColumn(8).getInt() != 0};
}

inline constexpr const char* setColumns =
    "s.id, s.content, s.sameness, s.size, s.members, s.files, s.volumes, s.reclaimable, s.doubt";

inline FolderFigures folderFrom(SQLite::Statement& row) {
    return {row.getColumn(0).getInt64(),
            bytesOf(row.getColumn(1)),
            row.getColumn(2).getInt(),
            countAt(row, 3),
            countAt(row, 4),
            countAt(row, 5),
            countAt(row, 6),
            countAt(row, 7),
            countAt(row, 8)};
}

inline constexpr const char* folderColumns =
    "volume, path, depth, holdings, bytes, in_sets, missing, troubled, claims";

} // namespace sober
