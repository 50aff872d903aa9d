#include "core/catalogue/ledger_store.h"

#include "core/base/difference.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

namespace sober {

const BytePath& standsAt(const LedgerAction& action) {
    return action.kind == ActionKind::move      ? action.made
           : action.kind == ActionKind::replace ? action.stays
                                                : action.place;
}

bool changesPlace(const LedgerAction& action) {
    return action.kind == ActionKind::move ||
           (action.kind == ActionKind::replace && action.stays != action.place);
}

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

/// The statements that settling takes, prepared once for many actions.
class Settling {
  public:
    explicit Settling(SQLite::Database& database) : database_(database) {}

    void settle(const Settlement& each) {
        const auto& action = each.action;
        mark(action, each.step, action.sentence);
        if (each.state) {
            setState(action.holding, *each.state);
        }
        if (each.moved) {
            move(action.holding, each.moved->first, each.moved->second);
        }
        // What is not missed any more is not missed in the lists either.
        const bool isWrittenOff = each.state == HoldingState::writtenOff;
        if (each.writtenOffPlace.value_or(isWrittenOff)) {
            run(writeOff_, "INSERT OR IGNORE INTO written_off_places(path) VALUES(?)", action.place);
        } else if (each.writtenOffPlace || each.state == HoldingState::missing) {
            run(missed_, "DELETE FROM written_off_places WHERE path = ?", action.place);
        }
        if (action.holding != 0) {
            // What a transfer does with a holding is no decision of the docket's.
            for (const auto kind : decidedAs(action.kind)) {
                const std::string decided(word(kind));
                run(offDocket_, "DELETE FROM docket WHERE holding = ? AND kind = ?", action.holding,
                    Text{decided});
            }
        }
        if (action.holding == 0 || isAboutNoHolding(action.kind)) {
            run(placeOffDocket_, "DELETE FROM docket WHERE holding IS NULL AND place = ?", action.place);
        }
    }

    void mark(const LedgerAction& action, ActionStep step, const std::string& sentence) {
        run(mark_, "UPDATE ledger_actions SET step = ?, sentence = ?, unflushed = ?, waits = ? WHERE id = ?",
            static_cast<int>(step), Text{sentence}, action.unflushed ? 1 : 0, Text{action.waits}, action.id);
    }

  private:
    struct Text {
        const std::string& value;
    };

    /// What is missing is brought back from a copy or from what was salvaged.
    static std::vector<ActionKind> decidedAs(ActionKind kind) {
        return kind == ActionKind::bringBack ? std::vector{ActionKind::restore, ActionKind::salvage}
                                             : std::vector{kind};
    }

    void setState(HoldingId holding, HoldingState state) {
        if (state == HoldingState::present) {
            // A later holding that came and went at the same place gives it back.
            run(yield_,
                "UPDATE holdings SET state = 3 WHERE state IN (1, 2) AND id <> ?1 AND "
                "(volume, path) = (SELECT volume, path FROM holdings WHERE id = ?1)",
                holding);
        }
        run(state_,
            "UPDATE holdings SET state = ?1, last_seen = CASE WHEN ?1 = 0 THEN 0 ELSE "
            "max(last_seen, CASE WHEN state = 0 THEN ?2 ELSE 0 END) END WHERE id = ?3",
            static_cast<int>(state), timeNow(), holding);
    }

    void move(HoldingId holding, VolumeId volume, const BytePath& path) {
        run(remember_,
            "INSERT OR IGNORE INTO former_places(volume, path, holding) SELECT volume, path, id FROM "
            "holdings "
            "WHERE id = ?",
            holding);
        // What was missing at the new place is there again, as this holding.
        run(yieldPlace_,
            "UPDATE holdings SET state = 3 WHERE state IN (1, 2) AND volume = ? AND path = ? AND id <> ?",
            volume, path, holding);
        run(place_, "UPDATE holdings SET volume = ?, path = ? WHERE id = ?", volume, path, holding);
    }

    void bind(SQLite::Statement& statement, int index, std::int64_t value) { statement.bind(index, value); }
    void bind(SQLite::Statement& statement, int index, int value) { statement.bind(index, value); }
    void bind(SQLite::Statement& statement, int index, const BytePath& bytes) {
        bindBytes(statement, index, bytes);
    }
    void bind(SQLite::Statement& statement, int index, const Text& text) {
        statement.bind(index, text.value);
    }

    template <typename... Values>
    void run(std::optional<SQLite::Statement>& statement, const char* sql, const Values&... values) {
        if (!statement) {
            statement.emplace(database_, sql);
        }
        int index = 0;
        (bind(*statement, ++index, values), ...);
        statement->exec();
        statement->reset();
    }

    SQLite::Database& database_;
    std::optional<SQLite::Statement> mark_;
    std::optional<SQLite::Statement> yield_;
    std::optional<SQLite::Statement> state_;
    std::optional<SQLite::Statement> remember_;
    std::optional<SQLite::Statement> yieldPlace_;
    std::optional<SQLite::Statement> place_;
    std::optional<SQLite::Statement> writeOff_;
    std::optional<SQLite::Statement> missed_;
    std::optional<SQLite::Statement> offDocket_;
    std::optional<SQLite::Statement> placeOffDocket_;
};

/// Writes actions down one after another.
class Starting {
  public:
    explicit Starting(SQLite::Database& database)
        : database_(database),
          write_(database,
                 "INSERT INTO ledger_actions(entry, kind, holding, place, aside, note, size, xxh3, step, "
                 "sentence, made, made_xxh3, stays) VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)") {}

    void start(LedgerAction& action) {
        write_.bind(1, action.entry);
        write_.bind(2, std::string(word(action.kind)));
        bindId(write_, 3, action.holding);
        bindBytes(write_, 4, action.place);
        bindBytes(write_, 5, action.aside);
        bindBytes(write_, 6, action.note);
        write_.bind(7, static_cast<std::int64_t>(action.size));
        bindBytes(write_, 8, action.checksum);
        write_.bind(9, static_cast<int>(action.step));
        write_.bind(10, action.sentence);
        bindBytes(write_, 11, action.made);
        bindBytes(write_, 12, action.madeChecksum);
        bindBytes(write_, 13, action.stays);
        write_.exec();
        write_.reset();
        action.id = database_.getLastInsertRowid();
    }

  private:
    SQLite::Database& database_;
    SQLite::Statement write_;
};

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
        Starting starting(catalogue_.database());
        for (auto* action : actions) {
            starting.start(*action);
        }
        transaction.commit();
    });
}

namespace {

/// What a list was before an action. Nothing where it is not kept, or what is kept cannot be read.
std::optional<std::string> keptList(SQLite::Database& database, std::int64_t action) {
    SQLite::Statement ask(database,
                          "SELECT l.content, b.content FROM ledger_lists l LEFT JOIN ledger_lists b ON "
                          "b.action = l.base WHERE l.action = ?");
    ask.bind(1, action);
    if (!ask.executeStep()) {
        return std::nullopt;
    }
    auto content = bytesOf(ask.getColumn(0));
    return ask.getColumn(1).isNull() ? std::optional(std::move(content))
                                     : withDifference(bytesOf(ask.getColumn(1)), content);
}

/// The whole of it the first time in an entry, from then on what differs from that: carried out in batches, a
/// long list is changed often.
void keepList(SQLite::Database& database, const LedgerAction& action, std::string_view content) {
    SQLite::Statement first(
        database, "SELECT l.action, l.content FROM ledger_actions a JOIN ledger_lists l ON l.action = a.id "
                  "WHERE a.entry = ? AND a.place = ? AND a.id < ? AND l.base IS NULL ORDER BY a.id LIMIT 1");
    first.bind(1, action.entry);
    bindBytes(first, 2, action.place);
    first.bind(3, action.id);
    const auto difference = first.executeStep() ? differenceFrom(bytesOf(first.getColumn(1)), content)
                                                : std::optional<std::string>();
    SQLite::Statement write(database, "INSERT INTO ledger_lists(action, content, base) VALUES(?,?,?)");
    write.bind(1, action.id);
    bindBytes(write, 2, difference ? std::string_view(*difference) : content);
    if (difference) {
        write.bind(3, first.getColumn(0).getInt64());
    } else {
        write.bind(3);
    }
    write.exec();
}

} // namespace

Result<LedgerAction> LedgerStore::startWithList(LedgerAction action, std::string_view content) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        Starting(database).start(action);
        keepList(database, action, content);
        transaction.commit();
        return action;
    });
}

Result<std::string> LedgerStore::listBefore(const LedgerAction& action) const {
    return guarded(catalogue_, [&]() -> Result<std::string> {
        auto content = keptList(catalogue_.database(), action.id);
        return content ? Result<std::string>(std::move(*content))
                       : Error{Cause::notFound, action.place, "The ledger does not hold what the list was."};
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
        ask.bind(2, std::string(word(action.kind)));
        ask.bind(3, action.id);
        auto now = action.madeChecksum;
        while (ask.executeStep()) {
            now = checksumOf(ask.getColumn(0)) == now ? checksumOf(ask.getColumn(1)) : now;
        }
        return now;
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
        Settling settling(database);
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
        Settling(catalogue_.database()).mark(action, step, sentence);
    });
}

Outcome LedgerStore::markAll(std::span<const LedgerAction* const> actions, ActionStep step) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        Settling settling(catalogue_.database());
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

Outcome LedgerStore::noteFolders(EntryId entry, std::span<const BytePath> folders) const {
    const auto volumes = folders.empty() ? Result(std::vector<Volume>()) : Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        SQLite::Statement note(catalogue_.database(), "INSERT OR IGNORE INTO ledger_folders VALUES(?,?,?)");
        for (const auto& folder : folders) {
            const auto volume = volumeHolding(*volumes, folder);
            note.bind(1, entry);
            note.bind(2, volume ? (*volume)->id : VolumeId{0});
            bindBytes(note, 3, volume ? relativeTo(folder, (*volume)->root).value_or(folder) : folder);
            note.exec();
            note.reset();
        }
    });
}

Result<std::vector<BytePath>> LedgerStore::foldersMadeBy(EntryId entry) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT volume, path FROM ledger_folders WHERE entry = ? ORDER BY volume, path");
        ask.bind(1, entry);
        std::vector<BytePath> folders;
        while (ask.executeStep()) {
            const auto volume = std::ranges::find(*volumes, ask.getColumn(0).getInt64(), &Volume::id);
            const auto path = bytesOf(ask.getColumn(1));
            if (ask.getColumn(0).getInt64() == 0) {
                folders.push_back(path);
            } else if (volume != volumes->end() && volume->reaches(path)) {
                folders.push_back(joinPath(volume->root, path));
            }
        }
        return folders;
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

Result<bool> LedgerStore::hasWritten(const BytePath& list, const Checksum128& content) const {
    return guarded(catalogue_, [&] {
        const std::string wrote(word(ActionKind::writeList));
        const std::string renewed(word(ActionKind::replaceList));
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT 1 FROM ledger_actions WHERE place = ? AND made_xxh3 = ? "
                              "AND step = ? AND kind IN (?, ?)");
        bindBytes(ask, 1, list);
        bindBytes(ask, 2, content);
        ask.bind(3, static_cast<int>(ActionStep::carriedOut));
        ask.bind(4, wrote);
        ask.bind(5, renewed);
        return ask.executeStep();
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
