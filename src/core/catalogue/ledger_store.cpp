#include "core/catalogue/ledger_store.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/ledger_writing.h"

namespace sober {

namespace {

constexpr const char* entrySelect =
    "SELECT l.id, l.time, l.ended, l.kind, l.summary, l.undoes, count(a.id), total(a.step = 2), total(a.step "
    "= 5), "
    "total(a.step = 0), total(CASE WHEN a.step IN (2, 5) THEN a.size ELSE 0 END), l.origin FROM ledger l "
    "LEFT JOIN "
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
    entry.origin = bytesOf(row.getColumn(11));
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
        action.kind = kindOf(ask.getColumn(2));
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
        action.stays = bytesOf(ask.getColumn(13));
        action.unflushed = ask.getColumn(14).getInt() != 0;
        action.waits = ask.getColumn(15).getString();
        if (!ask.getColumn(16).isNull()) {
            action.catalogued = {static_cast<std::uint64_t>(ask.getColumn(16).getInt64()),
                                 ask.getColumn(17).getInt64()};
        }
        actions.push_back(std::move(action));
    }
    return actions;
}

constexpr const char* actionSelect =
    "SELECT a.id, a.entry, a.kind, a.holding, a.place, a.aside, a.note, a.size, a.xxh3, a.step, a.sentence, "
    "a.made, a.made_xxh3, a.stays, a.unflushed, a.waits, h.size, h.mtime FROM ledger_actions a "
    "LEFT JOIN holdings h ON h.id = a.holding ";

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

Outcome LedgerStore::start(std::span<LedgerAction* const> actions) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        LedgerStarting starting(catalogue_.database());
        for (auto* action : actions) {
            starting.start(*action);
        }
        transaction.commit();
    });
}

Outcome LedgerStore::replan(std::span<const LedgerAction* const> actions) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement write(
            catalogue_.database(),
            "UPDATE ledger_actions SET aside = ?, note = ?, made = ?, made_xxh3 = ? WHERE id = ?");
        for (const auto* action : actions) {
            bindBytes(write, 1, action->aside);
            bindBytes(write, 2, action->note);
            bindBytes(write, 3, action->made);
            bindBytes(write, 4, action->madeChecksum);
            write.bind(5, action->id);
            write.exec();
            write.reset();
        }
        transaction.commit();
    });
}

Outcome LedgerStore::settle(std::span<const Settlement> settlements) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        const Patience patience(database);
        WritingTransaction transaction(database);
        LedgerSettling settling(database);
        bool concernsFindings = false;
        for (const auto& each : settlements) {
            settling.settle(each);
            concernsFindings = concernsFindings || each.action.holding != 0;
        }
        if (concernsFindings) {
            database.exec("UPDATE freshness SET findings_stale = 1");
        }
        transaction.commit();
    });
}

Outcome LedgerStore::mark(const LedgerAction& action, ActionStep step, const std::string& sentence) const {
    return guarded(catalogue_, [&] {
        const Patience patience(catalogue_.database());
        LedgerSettling(catalogue_.database()).mark(action, step, sentence);
    });
}

Outcome LedgerStore::markAll(std::span<const LedgerAction* const> actions, ActionStep step) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        LedgerSettling settling(catalogue_.database());
        for (const auto* action : actions) {
            settling.mark(*action, step, action->sentence);
        }
        transaction.commit();
    });
}

Outcome LedgerStore::setUnflushed(const LedgerAction& action, bool unflushed) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(),
                                "UPDATE ledger_actions SET unflushed = ? WHERE id = ?");
        write.bind(1, unflushed ? 1 : 0);
        write.bind(2, action.id);
        write.exec();
    });
}

Result<std::vector<LedgerEntry>> LedgerStore::entries() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(entrySelect) + "GROUP BY l.id ORDER BY l.time DESC, l.id DESC");
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
                              std::string(actionSelect) + "WHERE a.entry = ? ORDER BY a.id");
        ask.bind(1, entry);
        return actionsFrom(ask);
    });
}

Result<std::vector<LedgerAction>> LedgerStore::unfinished() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(actionSelect) + "WHERE a.step IN (1, 4) ORDER BY a.id");
        return actionsFrom(ask);
    });
}

Result<std::vector<LedgerAction>> LedgerStore::unflushed() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(actionSelect) + "WHERE a.unflushed = 1 ORDER BY a.id");
        return actionsFrom(ask);
    });
}

Result<std::vector<std::pair<BytePath, BytePath>>> LedgerStore::movesSince(Nanoseconds time) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT a.place, a.made FROM ledger l JOIN ledger_actions a ON a.entry = l.id "
                              "WHERE l.time >= ? AND a.kind = ? AND a.step = 2 ORDER BY a.id");
        ask.bind(1, time);
        ask.bind(2, std::string(word(ActionKind::move)));
        std::vector<std::pair<BytePath, BytePath>> moves;
        while (ask.executeStep()) {
            moves.emplace_back(bytesOf(ask.getColumn(0)), bytesOf(ask.getColumn(1)));
        }
        return moves;
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
