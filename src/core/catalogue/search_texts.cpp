#include "core/catalogue/search_texts.h"

#include "core/base/text.h"
#include "core/catalogue/guarded.h"

namespace sober {
namespace {

constexpr std::size_t piece = 10'000; // holdings

std::string searchTextOf(SQLite::Statement& holding) {
    std::string text = bytesOf(holding.getColumn(1));
    for (int column = 2; column <= 8; ++column) {
        // A line of its own: no word is found across two fields.
        text += '\n' + holding.getColumn(column).getString();
    }
    return foldedForSearch(text);
}

/// Takes up to a piece of what is pending in. Returns how many that were.
std::size_t takeInPiece(SQLite::Database& database) {
    WritingTransaction transaction(database);
    SQLite::Statement pending(
        database, "SELECT h.id, h.path, h.title, h.artist, h.album, h.date, h.albumartist, h.composer, "
                  "h.genre, t.text FROM "
                  "search_pending p JOIN holdings h ON h.id = p.holding LEFT JOIN search_texts t "
                  "ON t.holding = h.id ORDER BY p.holding LIMIT ?");
    SQLite::Statement dropped(database,
                              "INSERT INTO search_index(search_index, rowid, text) VALUES('delete', ?, ?)");
    // Not "OR REPLACE": a statement that may have to be taken back makes the index write out all that it has.
    SQLite::Statement kept(database, "UPDATE search_texts SET text = ?2 WHERE holding = ?1");
    SQLite::Statement begun(database, "INSERT INTO search_texts VALUES(?, ?)");
    SQLite::Statement indexed(database, "INSERT INTO search_index(rowid, text) VALUES(?, ?)");
    const auto run = [](SQLite::Statement& statement, std::int64_t id, const std::string& text) {
        statement.bind(1, id);
        statement.bindNoCopy(2, text);
        statement.exec();
        statement.reset();
    };
    pending.bind(1, static_cast<std::int64_t>(piece));
    std::size_t count = 0;
    std::int64_t last = 0;
    while (pending.executeStep()) {
        last = pending.getColumn(0).getInt64();
        ++count;
        const auto text = searchTextOf(pending);
        const auto before = pending.getColumn(9);
        if (!before.isNull() && before.getString() == text) {
            continue;
        }
        if (before.isNull()) {
            run(begun, last, text);
        } else {
            run(dropped, last, before.getString());
            run(kept, last, text);
        }
        run(indexed, last, text);
    }
    pending.reset();
    SQLite::Statement done(database, "DELETE FROM search_pending WHERE holding <= ?");
    done.bind(1, last);
    done.exec();
    transaction.commit();
    return count;
}

} // namespace

Outcome refreshSearchTexts(const Catalogue& catalogue) {
    return guarded(catalogue, [&] {
        auto& database = catalogue.database();
        SQLite::Statement any(database, "SELECT EXISTS(SELECT 1 FROM search_pending)");
        any.executeStep();
        if (any.getColumn(0).getInt() == 0) {
            return;
        }
        any.reset();
        while (takeInPiece(database) == piece) {
        }
    });
}

} // namespace sober
