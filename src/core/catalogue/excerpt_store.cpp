#include "core/catalogue/excerpt_store.h"

#include "core/base/text.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/guarded.h"

#include <sqlite3.h>

namespace sober {
namespace {

constexpr int excerptsVersion = 1;

bool isAttached(SQLite::Database& database) {
    SQLite::Statement ask(database, "SELECT 1 FROM pragma_database_list WHERE name = 'kept'");
    return ask.executeStep();
}

void detach(SQLite::Database& database) {
    database.exec("DETACH kept");
}

/// False where it may not be attached now, or is not for this program.
bool attach(SQLite::Database& database, const BytePath& file) {
    SQLite::Statement attaching(database, "ATTACH ? AS kept");
    bindBytes(attaching, 1, file);
    attaching.exec();
    if (database.execAndGet("PRAGMA kept.user_version").getInt() > excerptsVersion) {
        detach(database);
        return false;
    }
    return true;
}

const std::string excerptSelect = "SELECT k.begins, k.seconds, k.whole, k.sound, k.outline, k.cover FROM ";

Excerpt excerptFrom(SQLite::Statement& row) {
    Excerpt excerpt;
    excerpt.begins = row.getColumn(0).getDouble();
    excerpt.seconds = row.getColumn(1).getDouble();
    excerpt.whole = row.getColumn(2).getDouble();
    excerpt.sound = bytesOf(row.getColumn(3));
    const auto outline = bytesOf(row.getColumn(4));
    excerpt.outline.assign(outline.begin(), outline.end());
    excerpt.cover = bytesOf(row.getColumn(5));
    return excerpt;
}

} // namespace

BytePath excerptsPath(const BytePath& catalogue) {
    return catalogue + ".excerpts";
}

Outcome ExcerptStore::open() const {
    auto& database = catalogue_.database();
    const auto file = excerptsPath(catalogue_.path());
    return guarded(catalogue_, [&]() -> Outcome {
        try {
            if (!isAttached(database) && !attach(database, file)) {
                return Error{Cause::newer, file,
                             displayPath(file) + " was written by a newer Sober Archivist."};
            }
            database.exec("PRAGMA kept.auto_vacuum = FULL"); // of a new file
            database.exec("PRAGMA kept.journal_mode = WAL");
            database.exec(
                "CREATE TABLE IF NOT EXISTS kept.excerpts(payload BLOB PRIMARY KEY, begins REAL NOT "
                "NULL, seconds REAL NOT NULL, whole REAL NOT NULL, sound BLOB NOT NULL, outline "
                "BLOB NOT NULL, cover BLOB NOT NULL)");
            database.exec("PRAGMA kept.user_version = " + std::to_string(excerptsVersion));
        } catch (const SQLite::Exception& exception) {
            auto error = errorOf(exception, file);
            if (error.cause == Cause::damaged) {
                error.sentence = displayPath(file) +
                                 ", where excerpts are kept, is damaged. Delete it: a survey "
                                 "makes them again.";
            }
            return error;
        }
        return done();
    });
}

/// Attached where it can be: not within a transaction, and not while it is being made.
bool ExcerptStore::isThere() const {
    auto& database = catalogue_.database();
    try {
        if (!isAttached(database) &&
            (!isTaken(excerptsPath(catalogue_.path())) || sqlite3_get_autocommit(database.getHandle()) == 0 ||
             !attach(database, excerptsPath(catalogue_.path())))) {
            return false;
        }
        SQLite::Statement ask(database, "SELECT 1 FROM kept.sqlite_master WHERE name = 'excerpts'");
        return ask.executeStep();
    } catch (const SQLite::Exception&) {
        return false; // damaged, or nobody may read it: what it holds can be made again
    }
}

Result<std::optional<Excerpt>> ExcerptStore::of(HoldingId holding) const {
    if (!isThere()) {
        return std::optional<Excerpt>();
    }
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            excerptSelect + "evidence e JOIN kept.excerpts k ON k.payload = e.payload WHERE e.holding = ?");
        ask.bind(1, holding);
        return ask.executeStep() ? std::optional(excerptFrom(ask)) : std::nullopt;
    });
}

Result<ExcerptFigures> ExcerptStore::figures() const {
    const bool any = isThere();
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        ExcerptFigures figures;
        if (any) {
            figures.kept = static_cast<std::uint64_t>(
                database.execAndGet("SELECT count(*) FROM kept.excerpts").getInt64());
            figures.bytes = static_cast<std::uint64_t>(
                database
                    .execAndGet("SELECT (SELECT page_count FROM pragma_page_count('kept')) * (SELECT "
                                "page_size FROM pragma_page_size('kept'))")
                    .getInt64());
        }
        const std::string without =
            any ? " AND NOT EXISTS (SELECT 1 FROM kept.excerpts k WHERE k.payload = e.payload)" : "";
        figures.without = static_cast<std::uint64_t>(
            database
                .execAndGet("SELECT count(*) FROM evidence e JOIN holdings h ON h.id = e.holding WHERE "
                            "h.state = 0" +
                            without)
                .getInt64());
        return figures;
    });
}

Result<std::uint64_t> ExcerptStore::takeFrom(const Catalogue& other) const {
    const auto figures = ExcerptStore(other).figures();
    if (!figures || figures->kept == 0) {
        return figures ? Result<std::uint64_t>(0) : figures.error();
    }
    RETURN_IF_FAILED(open());
    return guarded(catalogue_, [&] {
        auto& ours = catalogue_.database();
        WritingTransaction transaction(ours);
        SQLite::Statement wanted(ours,
                                 "SELECT DISTINCT e.payload FROM evidence e WHERE NOT EXISTS (SELECT 1 FROM "
                                 "kept.excerpts k WHERE k.payload = e.payload)");
        SQLite::Statement ask(other.database(), excerptSelect + "kept.excerpts k WHERE k.payload = ?");
        std::vector<Checksum128> payloads;
        while (wanted.executeStep()) {
            payloads.push_back(checksumOf(wanted.getColumn(0)));
        }
        std::uint64_t taken = 0;
        for (const auto& payload : payloads) {
            bindBytes(ask, 1, payload);
            if (ask.executeStep()) {
                writeExcerpt(ours, payload, excerptFrom(ask));
                ++taken;
            }
            ask.reset();
        }
        transaction.commit();
        return taken;
    });
}

Outcome ExcerptStore::saveAs(const BytePath& to, RunControl& control, const ProgressSink& onProgress) const {
    return isThere() ? saveDatabase(catalogue_, "kept", to, control, onProgress) : done();
}

Outcome ExcerptStore::tidy() const {
    if (!isThere()) {
        return done();
    }
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        catalogue_.database().exec(
            "DELETE FROM kept.excerpts WHERE payload NOT IN (SELECT payload FROM evidence)");
        transaction.commit();
    });
}

void writeExcerpt(SQLite::Database& database, const Checksum128& payload, const Excerpt& excerpt) {
    SQLite::Statement insert(database,
                             "INSERT OR REPLACE INTO kept.excerpts(payload, begins, seconds, whole, "
                             "sound, outline, cover) VALUES(?,?,?,?,?,?,?)");
    bindBytes(insert, 1, payload);
    insert.bind(2, excerpt.begins);
    insert.bind(3, excerpt.seconds);
    insert.bind(4, excerpt.whole);
    bindBytes(insert, 5, excerpt.sound);
    bindBytes(insert, 6, {reinterpret_cast<const char*>(excerpt.outline.data()), excerpt.outline.size()});
    bindBytes(insert, 7, excerpt.cover);
    insert.exec();
}

} // namespace sober
