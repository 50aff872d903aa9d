// The lists that actions change, as they are kept: another part of ledger_store.h.
#include "core/catalogue/guarded.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/ledger_writing.h"

namespace sober {

Result<LedgerAction> LedgerStore::startWithList(LedgerAction action, std::string_view content) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        LedgerStarting(database).start(action);
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

} // namespace sober
