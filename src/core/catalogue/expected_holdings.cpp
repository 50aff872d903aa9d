#include "core/catalogue/expected_holdings.h"

#include "core/base/file_handle.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

namespace sober {
namespace {

constexpr const char* known =
    "sha256, troubled, problem, container, codec, lossless, bitrate, sample_rate, channels, "
    "bit_depth, duration, title, artist, album, track, date, albumartist, composer, genre, disc";

/// A holding that is there and has the same bytes, one that was examined where there is one.
std::optional<HoldingId> sameBytes(SQLite::Database& database, const LedgerAction& action) {
    SQLite::Statement ask(
        database,
        "SELECT h.id FROM holdings h LEFT JOIN evidence e ON e.holding = h.id WHERE h.state = 0 AND "
        "h.xxh3 = ? AND h.id <> ? ORDER BY e.holding IS NULL, h.sha256 IS NULL LIMIT 1");
    bindBytes(ask, 1, action.checksum);
    ask.bind(2, action.holding);
    return ask.executeStep() ? std::optional(ask.getColumn(0).getInt64()) : std::nullopt;
}

void copyRow(SQLite::Database& database, const std::string& sql, HoldingId to, HoldingId from) {
    SQLite::Statement statement(database, sql);
    statement.bind(1, to);
    statement.bind(2, from);
    statement.exec();
}

/// All columns of `table` but its key, from another holding's row.
void copyRows(SQLite::Database& database, const std::string& rows, HoldingId to, HoldingId from) {
    SQLite::Statement columns(database, "SELECT name FROM pragma_table_info(?) WHERE name <> 'holding'");
    columns.bind(1, rows);
    std::string names;
    while (columns.executeStep()) {
        names += ", " + columns.getColumn(0).getString();
    }
    copyRow(database,
            "INSERT OR REPLACE INTO " + rows + "(holding" + names + ") SELECT ?1" + names + " FROM " + rows +
                " WHERE holding = ?2",
            to, from);
}

void setStamp(SQLite::Database& database, HoldingId holding, const FileStamp& stamp) {
    SQLite::Statement statement(
        database, "UPDATE holdings SET mtime = ?, ctime = ?, inode = ?, links = ? WHERE id = ?");
    statement.bind(1, stamp.mtime);
    statement.bind(2, stamp.ctime);
    statement.bind(3, static_cast<std::int64_t>(stamp.inode));
    statement.bind(4, static_cast<std::int64_t>(stamp.links));
    statement.bind(5, holding);
    statement.exec();
}

} // namespace

Outcome expectHoldings(Catalogue& catalogue, std::span<LedgerAction* const> actions) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    return guarded(catalogue, [&]() -> Outcome {
        auto& database = catalogue.database();
        SQLite::Statement insert(
            database, "INSERT INTO holdings(volume, path, state, size, mtime, ctime, inode, links, "
                      "xxh3, troubled, first_seen) VALUES(?, ?, 3, ?, 0, 0, 0, 1, ?, 0, ?)");
        for (auto* action : actions) {
            const auto volume = volumeHolding(*volumes, action->place);
            if (!volume) {
                return volume.error();
            }
            insert.bind(1, (*volume)->id);
            bindBytes(insert, 2, *relativeTo(action->place, (*volume)->root));
            insert.bind(3, static_cast<std::int64_t>(action->size));
            bindBytes(insert, 4, action->checksum);
            insert.bind(5, timeNow());
            insert.exec();
            insert.reset();
            action->holding = database.getLastInsertRowid();
        }
        return done();
    });
}

Outcome becomeCopy(Catalogue& catalogue, const LedgerAction& action) {
    const auto stamp = stampAt(action.place);
    if (!stamp) {
        return stamp.error();
    }
    return guarded(catalogue, [&] {
        auto& database = catalogue.database();
        SQLite::Statement offDocket(database, "DELETE FROM docket WHERE kind = ? AND target = ?");
        offDocket.bind(1, std::string(word(ActionKind::copy)));
        bindBytes(offDocket, 2, action.place);
        offDocket.exec();
        setStamp(database, action.holding, *stamp);
        if (const auto same = sameBytes(database, action)) {
            copyRow(database,
                    std::string("UPDATE holdings SET (") + known + ") = (SELECT " + known +
                        " FROM holdings WHERE id = ?2) WHERE id = ?1",
                    action.holding, *same);
            for (const auto* table : {"blocks", "evidence", "packed_evidence"}) {
                copyRows(database, table, action.holding, *same);
            }
        }
    });
}

} // namespace sober
