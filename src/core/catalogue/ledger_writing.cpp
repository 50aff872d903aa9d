#include "core/catalogue/ledger_writing.h"

#include "core/base/difference.h"
#include "core/catalogue/guarded.h"

namespace sober {
namespace {

struct Text {
    const std::string& value;
};

void bindValue(SQLite::Statement& statement, int index, std::int64_t value) {
    statement.bind(index, value);
}
void bindValue(SQLite::Statement& statement, int index, int value) {
    statement.bind(index, value);
}
void bindValue(SQLite::Statement& statement, int index, const BytePath& bytes) {
    bindBytes(statement, index, bytes);
}
void bindValue(SQLite::Statement& statement, int index, const Text& text) {
    statement.bind(index, text.value);
}

/// What is missing is brought back from a copy or from what was salvaged.
std::vector<ActionKind> decidedAs(ActionKind kind) {
    return kind == ActionKind::bringBack ? std::vector{ActionKind::restore, ActionKind::salvage}
                                         : std::vector{kind};
}

} // namespace

LedgerStarting::LedgerStarting(SQLite::Database& database)
    : database_(database),
      write_(database,
             "INSERT INTO ledger_actions(entry, kind, holding, place, aside, note, size, xxh3, step, "
             "sentence, made, made_xxh3, stays) VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?)") {}

void LedgerStarting::start(LedgerAction& action) {
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

template <typename... Values>
SQLite::Statement& LedgerSettling::bound(std::optional<SQLite::Statement>& statement, const std::string& sql,
                                         const Values&... values) {
    if (!statement) {
        statement.emplace(database_, sql);
    }
    int index = 0;
    (bindValue(*statement, ++index, values), ...);
    return *statement;
}

template <typename... Values>
void LedgerSettling::run(std::optional<SQLite::Statement>& statement, const std::string& sql,
                         const Values&... values) {
    auto& run = bound(statement, sql, values...);
    run.exec();
    run.reset();
}

/// Asked for first: an update of what it is found by makes a table of its own even where there is none.
template <typename... Values>
void LedgerSettling::yield(const std::string& which, std::optional<SQLite::Statement>& asked,
                           std::optional<SQLite::Statement>& update, const Values&... values) {
    auto& ask = bound(asked, "SELECT 1 FROM holdings WHERE " + which, values...);
    const bool found = ask.executeStep();
    ask.reset();
    if (found) {
        run(update, "UPDATE holdings SET state = 3 WHERE " + which, values...);
    }
}

void LedgerSettling::settle(const Settlement& each) {
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

void LedgerSettling::mark(const LedgerAction& action, ActionStep step, const std::string& sentence) {
    run(mark_, "UPDATE ledger_actions SET step = ?, sentence = ?, unflushed = ?, waits = ? WHERE id = ?",
        static_cast<int>(step), Text{sentence}, action.unflushed ? 1 : 0, Text{action.waits}, action.id);
}

void LedgerSettling::setState(HoldingId holding, HoldingState state) {
    if (state == HoldingState::present) {
        // A later holding that came and went at the same place gives it back.
        yield("state IN (1, 2) AND id <> ?1 AND (volume, path) = (SELECT volume, path FROM holdings WHERE id "
              "= ?1)",
              heldBack_, yield_, holding);
    }
    run(state_,
        "UPDATE holdings SET state = ?1, last_seen = CASE WHEN ?1 = 0 THEN 0 ELSE "
        "max(last_seen, CASE WHEN state = 0 THEN ?2 ELSE 0 END) END WHERE id = ?3",
        static_cast<int>(state), timeNow(), holding);
}

void LedgerSettling::move(HoldingId holding, VolumeId volume, const BytePath& path) {
    run(remember_,
        "INSERT OR IGNORE INTO former_places(volume, path, holding) SELECT volume, path, id FROM "
        "holdings "
        "WHERE id = ?",
        holding);
    // What was missing at the new place is there again, as this holding.
    yield("state IN (1, 2) AND volume = ? AND path = ? AND id <> ?", missedThere_, yieldPlace_, volume, path,
          holding);
    // A volume that is written anew is taken out of every index that it is in, and put in again.
    run(place_, "UPDATE holdings SET path = ? WHERE id = ? AND volume = ?", path, holding, volume);
    if (database_.getChanges() == 0) {
        run(volume_, "UPDATE holdings SET volume = ?, path = ? WHERE id = ?", volume, path, holding);
    }
}

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

} // namespace sober
