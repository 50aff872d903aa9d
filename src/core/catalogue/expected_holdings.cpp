#include "core/catalogue/expected_holdings.h"

#include "core/base/file_handle.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

namespace sober {
namespace {

constexpr const char* known =
    "sha256, troubled, problem, container, codec, lossless, bitrate, sample_rate, channels, "
    "bit_depth, duration, title, artist, album, track, date, albumartist, composer, genre, disc";

/// The statements, prepared once for many.
class Becoming {
  public:
    explicit Becoming(SQLite::Database& database)
        : stamp_(database, "UPDATE holdings SET mtime = ?, ctime = ?, inode = ?, links = ? WHERE id = ?"),
          offDocket_(database, "DELETE FROM docket WHERE kind = ? AND target = ?"),
          // One that was examined where there is one.
          same_(database,
                "SELECT h.id FROM holdings h LEFT JOIN evidence e ON e.holding = h.id WHERE h.state = 0 AND "
                "h.xxh3 = ? AND h.id <> ? ORDER BY e.holding IS NULL, h.sha256 IS NULL LIMIT 1") {
        copies_.emplace_back(database, std::string("UPDATE holdings SET (") + known + ") = (SELECT " + known +
                                           " FROM holdings WHERE id = ?2) WHERE id = ?1");
        for (const std::string rows : {"blocks", "evidence", "packed_evidence"}) {
            const auto names = ", " + columnsOf(database, rows, "holding");
            copies_.emplace_back(database, "INSERT OR REPLACE INTO " + rows + "(holding" + names +
                                               ") SELECT ?1" + names + " FROM " + rows +
                                               " WHERE holding = ?2");
        }
    }

    void become(const LedgerAction& action, const FileStamp& stamp) {
        stamp_.bind(1, stamp.mtime);
        stamp_.bind(2, stamp.ctime);
        stamp_.bind(3, static_cast<std::int64_t>(stamp.inode));
        stamp_.bind(4, static_cast<std::int64_t>(stamp.links));
        stamp_.bind(5, action.holding);
        run(stamp_);
        offDocket_.bind(1, std::string(word(ActionKind::copy)));
        bindBytes(offDocket_, 2, action.place);
        run(offDocket_);
        bindBytes(same_, 1, action.checksum);
        same_.bind(2, action.holding);
        const HoldingId same = same_.executeStep() ? same_.getColumn(0).getInt64() : 0;
        same_.reset();
        for (auto& copy : copies_) {
            if (same != 0) {
                copy.bind(1, action.holding);
                copy.bind(2, same);
                run(copy);
            }
        }
    }

  private:
    static void run(SQLite::Statement& statement) {
        statement.exec();
        statement.reset();
    }

    SQLite::Statement stamp_;
    SQLite::Statement offDocket_;
    SQLite::Statement same_;
    std::vector<SQLite::Statement> copies_;
};

} // namespace

Outcome expectHoldings(Catalogue& catalogue, std::span<LedgerAction* const> actions) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue, [&]() -> Outcome {
        auto& database = catalogue.database();
        SQLite::Statement insert(
            database, "INSERT INTO holdings(volume, path, state, size, mtime, ctime, inode, links, "
                      "xxh3, troubled, first_seen) VALUES(?, ?, 3, ?, 0, 0, 0, 1, ?, 0, ?)");
        for (auto* action : actions) {
            if (action->holding != 0) {
                continue; // what is missing has its place
            }
            const auto volume = volumeHolding(*volumes, action->place);
            RETURN_IF_FAILED(volume);
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

Outcome becomeCopies(Catalogue& catalogue, std::span<const LedgerAction* const> actions) {
    return guarded(catalogue, [&]() -> Outcome {
        Becoming becoming(catalogue.database());
        for (const auto* action : actions) {
            const auto stamp = stampAt(action->place);
            RETURN_IF_FAILED(stamp);
            becoming.become(*action, *stamp);
        }
        return done();
    });
}

} // namespace sober
