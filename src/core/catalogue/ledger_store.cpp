#include "core/catalogue/ledger_store.h"

#include "core/catalogue/guarded.h"

namespace sober {
namespace {

constexpr const char* entrySelect =
    "SELECT l.id, l.time, l.ended, l.kind, l.summary, l.undoes, count(a.id), total(a.step = 2), total(a.step "
    "= 5), "
    "total(a.step = 0), total(CASE WHEN a.step IN (2, 5) THEN a.size ELSE 0 END) FROM ledger l LEFT JOIN "
    "ledger_actions a ON a.entry = l.id ";

LedgerEntry entryFrom(SQLite::Statement& row) {
    LedgerEntry entry;
    entry.id = row.getColumn(0).getInt64();
    entry.time = row.getColumn(1).getInt64();
    entry.ended = row.getColumn(2).getInt64();
    entry.kind = row.getColumn(3).getString();
    entry.summary = row.getColumn(4).getString();
    if (!row.getColumn(5).isNull()) {
        entry.undoes = row.getColumn(5).getInt64();
    }
    entry.actions = static_cast<std::uint64_t>(row.getColumn(6).getInt64());
    entry.carriedOut = static_cast<std::uint64_t>(row.getColumn(7).getInt64());
    entry.undone = static_cast<std::uint64_t>(row.getColumn(8).getInt64());
    entry.refused = static_cast<std::uint64_t>(row.getColumn(9).getInt64());
    entry.bytes = static_cast<std::uint64_t>(row.getColumn(10).getInt64());
    return entry;
}

std::vector<LedgerEntry> entriesFrom(SQLite::Statement& ask) {
    std::vector<LedgerEntry> entries;
    while (ask.executeStep()) {
        entries.push_back(entryFrom(ask));
    }
    return entries;
}

std::vector<LedgerAction> actionsFrom(SQLite::Statement& ask) {
    std::vector<LedgerAction> actions;
    while (ask.executeStep()) {
        LedgerAction action;
        action.id = ask.getColumn(0).getInt64();
        action.entry = ask.getColumn(1).getInt64();
        action.kind = ask.getColumn(2).getString();
        action.holding = ask.getColumn(3).getInt64();
        action.place = bytesOf(ask.getColumn(4));
        action.aside = bytesOf(ask.getColumn(5));
        action.note = bytesOf(ask.getColumn(6));
        action.size = static_cast<std::uint64_t>(ask.getColumn(7).getInt64());
        action.checksum = checksumOf(ask.getColumn(8));
        action.step = static_cast<ActionStep>(ask.getColumn(9).getInt());
        action.sentence = ask.getColumn(10).getString();
        action.made = bytesOf(ask.getColumn(11));
        action.madeChecksum = checksumOf(ask.getColumn(12));
        actions.push_back(std::move(action));
    }
    return actions;
}

constexpr const char* actionSelect =
    "SELECT id, entry, kind, holding, place, aside, note, size, xxh3, step, sentence, made, made_xxh3 FROM "
    "ledger_actions ";

void markStep(SQLite::Database& database, const LedgerAction& action, ActionStep step,
              const std::string& sentence) {
    SQLite::Statement write(database, "UPDATE ledger_actions SET step = ?, sentence = ? WHERE id = ?");
    write.bind(1, static_cast<int>(step));
    write.bind(2, sentence);
    write.bind(3, action.id);
    write.exec();
}

LedgerAction started(SQLite::Database& database, LedgerAction action) {
    SQLite::Statement write(
        database, "INSERT INTO ledger_actions(entry, kind, holding, place, aside, note, size, xxh3, step, "
                  "sentence, made, made_xxh3) VALUES(?,?,?,?,?,?,?,?,?,?,?,?)");
    write.bind(1, action.entry);
    write.bind(2, action.kind);
    bindId(write, 3, action.holding);
    bindBytes(write, 4, action.place);
    bindBytes(write, 5, action.aside);
    bindBytes(write, 6, action.note);
    write.bind(7, static_cast<std::int64_t>(action.size));
    bindBytes(write, 8, action.checksum);
    write.bind(9, static_cast<int>(action.step));
    write.bind(10, action.sentence);
    bindBytes(write, 11, action.made);
    bindBytes(write, 12, action.madeChecksum);
    write.exec();
    action.id = database.getLastInsertRowid();
    return action;
}

void takeOffDocket(SQLite::Database& database, const LedgerAction& action) {
    SQLite::Statement erase(database, action.holding != 0
                                          ? "DELETE FROM docket WHERE holding = ?"
                                          : "DELETE FROM docket WHERE holding IS NULL AND place = ?");
    if (action.holding != 0) {
        erase.bind(1, action.holding);
    } else {
        bindBytes(erase, 1, action.place);
    }
    erase.exec();
}

void markPlace(SQLite::Database& database, const LedgerAction& action, bool writtenOff) {
    SQLite::Statement write(database, writtenOff ? "INSERT OR IGNORE INTO written_off_places(path) VALUES(?)"
                                                 : "DELETE FROM written_off_places WHERE path = ?");
    bindBytes(write, 1, action.place);
    write.exec();
}

} // namespace

Result<EntryId> LedgerStore::open(const std::string& kind, const std::string& summary,
                                  std::optional<EntryId> undoes) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(),
                                "INSERT INTO ledger(time, kind, summary, undoes) VALUES(?,?,?,?)");
        write.bind(1, timeNow());
        write.bind(2, kind);
        write.bind(3, summary);
        if (undoes) {
            write.bind(4, *undoes);
        } else {
            write.bind(4);
        }
        write.exec();
        return EntryId{catalogue_.database().getLastInsertRowid()};
    });
}

Outcome LedgerStore::close(EntryId entry, const std::string& summary) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(),
                                "UPDATE ledger SET ended = ?, summary = ? WHERE id = ?");
        write.bind(1, timeNow());
        write.bind(2, summary);
        write.bind(3, entry);
        write.exec();
    });
}

Result<LedgerAction> LedgerStore::start(LedgerAction action) const {
    return guarded(catalogue_, [&] { return started(catalogue_.database(), std::move(action)); });
}

Result<LedgerAction> LedgerStore::startWithList(LedgerAction action, std::string_view content) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        SQLite::Transaction transaction(database);
        auto written = started(database, std::move(action));
        SQLite::Statement write(database, "INSERT INTO ledger_lists(action, content) VALUES(?,?)");
        write.bind(1, written.id);
        bindBytes(write, 2, content);
        write.exec();
        transaction.commit();
        return written;
    });
}

Result<std::string> LedgerStore::listBefore(const LedgerAction& action) const {
    return guarded(catalogue_, [&]() -> Result<std::string> {
        SQLite::Statement ask(catalogue_.database(), "SELECT content FROM ledger_lists WHERE action = ?");
        ask.bind(1, action.id);
        if (!ask.executeStep()) {
            return Error{Cause::notFound, action.place, "The ledger does not hold what the list was."};
        }
        return bytesOf(ask.getColumn(0));
    });
}

Result<Checksum128> LedgerStore::listAfter(const LedgerAction& action) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT a.xxh3, a.made_xxh3 FROM ledger_actions a JOIN ledger l ON l.id = a.entry WHERE "
            "a.place = ? AND a.kind = ? AND a.id > ? AND a.step = 2 AND l.kind IN ('undo', "
            "'recovery') ORDER BY a.id");
        bindBytes(ask, 1, action.place);
        ask.bind(2, action.kind);
        ask.bind(3, action.id);
        auto now = action.madeChecksum;
        while (ask.executeStep()) {
            now = checksumOf(ask.getColumn(0)) == now ? checksumOf(ask.getColumn(1)) : now;
        }
        return now;
    });
}

Outcome LedgerStore::replan(const LedgerAction& action) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(
            catalogue_.database(),
            "UPDATE ledger_actions SET aside = ?, note = ?, made = ?, made_xxh3 = ? WHERE id = ?");
        bindBytes(write, 1, action.aside);
        bindBytes(write, 2, action.note);
        bindBytes(write, 3, action.made);
        bindBytes(write, 4, action.madeChecksum);
        write.bind(5, action.id);
        write.exec();
    });
}

Outcome LedgerStore::finish(const LedgerAction& action, ActionStep step, HoldingState holdingState) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        SQLite::Transaction transaction(database);
        markStep(database, action, step, action.sentence);
        if (holdingState == HoldingState::present) {
            // A later holding that came and went at the same place gives it back.
            SQLite::Statement yield(database,
                                    "UPDATE holdings SET state = 3 WHERE state IN (1, 2) AND id <> ?1 AND "
                                    "(volume, path) = (SELECT volume, path FROM holdings WHERE id = ?1)");
            yield.bind(1, action.holding);
            yield.exec();
        }
        SQLite::Statement state(database,
                                "UPDATE holdings SET state = ?, last_seen = CASE WHEN ? = 0 THEN 0 ELSE "
                                "max(last_seen, CASE WHEN state = 0 THEN ? ELSE 0 END) END WHERE id = ?");
        state.bind(1, static_cast<int>(holdingState));
        state.bind(2, static_cast<int>(holdingState));
        state.bind(3, timeNow());
        state.bind(4, action.holding);
        state.exec();
        // What is not missed any more is not missed in the lists either.
        if (holdingState == HoldingState::writtenOff) {
            markPlace(database, action, true);
        } else if (holdingState == HoldingState::missing) {
            markPlace(database, action, false);
        }
        takeOffDocket(database, action);
        database.exec("UPDATE freshness SET findings_stale = 1");
        transaction.commit();
    });
}

Outcome LedgerStore::finishMove(const LedgerAction& action, ActionStep step, VolumeId volume,
                                const BytePath& path) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        SQLite::Transaction transaction(database);
        markStep(database, action, step, {});
        SQLite::Statement remember(database,
                                   "INSERT OR IGNORE INTO former_places(volume, path, holding) SELECT "
                                   "volume, path, id FROM holdings WHERE id = ?");
        remember.bind(1, action.holding);
        remember.exec();
        // What was missing at the new place is there again, as this holding.
        SQLite::Statement yield(database,
                                "UPDATE holdings SET state = 3 WHERE state IN (1, 2) AND volume = ? "
                                "AND path = ? AND id <> ?");
        yield.bind(1, volume);
        bindBytes(yield, 2, path);
        yield.bind(3, action.holding);
        yield.exec();
        SQLite::Statement place(database, "UPDATE holdings SET volume = ?, path = ? WHERE id = ?");
        place.bind(1, volume);
        bindBytes(place, 2, path);
        place.bind(3, action.holding);
        place.exec();
        takeOffDocket(database, action);
        database.exec("UPDATE freshness SET findings_stale = 1");
        transaction.commit();
    });
}

Outcome LedgerStore::finishPlace(const LedgerAction& action, ActionStep step, bool writtenOff) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        SQLite::Transaction transaction(database);
        markStep(database, action, step, {});
        markPlace(database, action, writtenOff);
        takeOffDocket(database, action);
        transaction.commit();
    });
}

Outcome LedgerStore::mark(const LedgerAction& action, ActionStep step, const std::string& sentence) const {
    return guarded(catalogue_, [&] { markStep(catalogue_.database(), action, step, sentence); });
}

Result<std::vector<LedgerEntry>> LedgerStore::entries() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(entrySelect) + "GROUP BY l.id ORDER BY l.id DESC");
        return entriesFrom(ask);
    });
}

Result<std::optional<LedgerEntry>> LedgerStore::entry(EntryId id) const {
    return guarded(catalogue_, [&]() -> std::optional<LedgerEntry> {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(entrySelect) + "WHERE l.id = ? GROUP BY l.id");
        ask.bind(1, id);
        return ask.executeStep() ? std::optional(entryFrom(ask)) : std::nullopt;
    });
}

Result<std::vector<LedgerAction>> LedgerStore::actionsOf(EntryId entry) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(actionSelect) + "WHERE entry = ? ORDER BY id");
        ask.bind(1, entry);
        return actionsFrom(ask);
    });
}

Result<std::vector<LedgerAction>> LedgerStore::unfinished() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(actionSelect) + "WHERE step IN (1, 4) ORDER BY id");
        return actionsFrom(ask);
    });
}

Result<std::vector<LedgerEntry>> LedgerStore::unclosed() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(entrySelect) + "WHERE l.ended = 0 GROUP BY l.id ORDER BY l.id");
        return entriesFrom(ask);
    });
}

} // namespace sober
