// What comes from another catalogue's ledger: another part of ledger_store.h.
#include "core/catalogue/guarded.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/ledger_writing.h"

namespace sober {

Result<std::optional<EntryId>> LedgerStore::entryAt(Nanoseconds time, const std::string& kind) const {
    return guarded(catalogue_, [&]() -> std::optional<EntryId> {
        SQLite::Statement ask(catalogue_.database(), "SELECT id FROM ledger WHERE time = ? AND kind = ?");
        ask.bind(1, time);
        ask.bind(2, kind);
        return ask.executeStep() ? std::optional(EntryId{ask.getColumn(0).getInt64()}) : std::nullopt;
    });
}

Result<EntryId> LedgerStore::takeEntry(const LedgerStore& other, const LedgerEntry& entry,
                                       std::span<LedgerAction> actions) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement write(
            database, "INSERT INTO ledger(time, ended, kind, summary, undoes, origin) VALUES(?,?,?,?,?,?)");
        write.bind(1, entry.time);
        write.bind(2, entry.ended);
        write.bind(3, entry.kind);
        write.bind(4, entry.summary);
        if (entry.undoes) {
            write.bind(5, *entry.undoes);
        } else {
            write.bind(5);
        }
        bindBytes(write, 6, entry.origin);
        write.exec();
        const EntryId id = database.getLastInsertRowid();
        LedgerStarting starting(database);
        for (auto& action : actions) {
            const auto list = keptList(other.catalogue_.database(), action.id);
            action.entry = id;
            starting.start(action);
            if (list) {
                keepList(database, action, *list);
            }
        }
        transaction.commit();
        return id;
    });
}

Outcome LedgerStore::takeUndone(EntryId entry, std::span<const LedgerAction> undone) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement mark(
            catalogue_.database(),
            "UPDATE ledger_actions SET step = 5 WHERE entry = ? AND kind = ? AND place = ? AND step = 2");
        for (const auto& action : undone) {
            mark.bind(1, entry);
            mark.bind(2, std::string(word(action.kind)));
            bindBytes(mark, 3, action.place);
            mark.exec();
            mark.reset();
        }
        transaction.commit();
    });
}

} // namespace sober
