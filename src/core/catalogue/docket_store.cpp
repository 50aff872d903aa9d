#include "core/catalogue/docket_store.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"

#include <fmt/format.h>

namespace sober {
namespace {

std::string quoted(ActionKind kind) {
    return fmt::format("'{}'", word(kind));
}

} // namespace

Result<std::vector<DocketAction>> DocketStore::all() const {
    return which("true");
}

Result<std::vector<DocketAction>> DocketStore::aboutPlaces() const {
    return which("holding IS NULL");
}

Result<std::vector<DocketAction>> DocketStore::which(const std::string& condition) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT id, kind, holding, reason, added, change, "
                                                     "place, target, consent FROM docket WHERE " +
                                                         condition + " ORDER BY id");
        std::vector<DocketAction> actions;
        while (ask.executeStep()) {
            actions.push_back(
                {ask.getColumn(0).getInt64(), kindOf(ask.getColumn(1)), ask.getColumn(2).getInt64(),
                 ask.getColumn(3).getString(), ask.getColumn(4).getInt64(), bytesOf(ask.getColumn(5)),
                 bytesOf(ask.getColumn(6)), bytesOf(ask.getColumn(7)), ask.getColumn(8).getString()});
        }
        return actions;
    });
}

Result<DocketTotals> DocketStore::totals() const {
    return guarded(catalogue_, [&] {
        const auto figure = [&](const std::string& sql) {
            return static_cast<std::uint64_t>(catalogue_.database().execAndGet(sql).getInt64());
        };
        DocketTotals totals;
        // What an interruption has left half-way is no decision that waits any more: it waits to be settled.
        const std::string waiting =
            "(SELECT * FROM docket WHERE holding IS NULL OR holding NOT IN (SELECT holding "
            "FROM ledger_actions WHERE step IN (1, 4) AND holding IS NOT NULL)) d ";
        totals.actions = figure("SELECT count(*) FROM " + waiting);
        totals.frees = figure(
            "SELECT coalesce(sum(bytes), 0) FROM (SELECT CASE WHEN count(*) >= max(h.links) THEN "
            "max(h.size) ELSE 0 END AS bytes FROM " +
            waiting + "JOIN holdings h ON h.id = d.holding WHERE d.kind = " + quoted(ActionKind::retire) +
            " GROUP BY h.volume, CASE WHEN h.links > 1 THEN -h.inode ELSE h.id END)");
        totals.references =
            figure("SELECT (SELECT count(*) FROM " + waiting +
                   "JOIN list_references r ON r.holding = d.holding WHERE d.kind IN (" +
                   quoted(ActionKind::retire) + ", " + quoted(ActionKind::move) +
                   ") AND r.state < 2) + (SELECT count(*) FROM docket d JOIN list_references r ON "
                   "r.path = d.place WHERE d.kind = " +
                   quoted(ActionKind::repoint) + ")");
        return totals;
    });
}

Outcome DocketStore::add(std::span<const DocketAction> actions) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        constexpr const char* update =
            "DO UPDATE SET kind = excluded.kind, reason = excluded.reason, change = excluded.change, target "
            "= excluded.target, consent = excluded.consent";
        const std::string insert = "INSERT INTO docket(kind, holding, reason, added, change, place, target, "
                                   "consent) VALUES(?,?,?,?,?,?,?,?) "
                                   "ON CONFLICT";
        SQLite::Statement ofHolding(catalogue_.database(), insert + "(holding) " + update);
        SQLite::Statement ofPlace(catalogue_.database(), insert + "(place) WHERE holding IS NULL " + update);
        for (const auto& action : actions) {
            auto& statement = action.holding != 0 ? ofHolding : ofPlace;
            statement.bind(1, std::string(word(action.kind)));
            bindId(statement, 2, action.holding);
            statement.bind(3, action.reason);
            statement.bind(4, action.added);
            bindBytes(statement, 5, action.change);
            bindBytes(statement, 6, action.place);
            bindBytes(statement, 7, action.target);
            statement.bind(8, action.consent);
            statement.exec();
            statement.reset();
        }
        transaction.commit();
    });
}

Outcome DocketStore::remove(std::span<const HoldingId> holdings, std::optional<ActionKind> kind) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement erase(catalogue_.database(),
                                "DELETE FROM docket WHERE holding = ? AND (?2 = '' OR kind = ?2)");
        erase.bind(2, kind ? std::string(word(*kind)) : std::string());
        for (const auto id : holdings) {
            erase.bind(1, id);
            erase.exec();
            erase.reset();
        }
        transaction.commit();
    });
}

Outcome DocketStore::removePlaces(std::span<const BytePath> places) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement erase(catalogue_.database(),
                                "DELETE FROM docket WHERE place = ? AND holding IS NULL");
        for (const auto& place : places) {
            bindBytes(erase, 1, place);
            erase.exec();
            erase.reset();
        }
        transaction.commit();
    });
}

Result<std::uint64_t> DocketStore::removeActions(std::span<const ActionId> actions) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement erase(catalogue_.database(), "DELETE FROM docket WHERE id = ?");
        std::uint64_t removed = 0;
        for (const auto id : actions) {
            erase.bind(1, id);
            removed += static_cast<std::uint64_t>(erase.exec());
            erase.reset();
        }
        transaction.commit();
        return removed;
    });
}

Outcome DocketStore::consent(HoldingId holding, std::string_view loss) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(), "UPDATE docket SET consent = ? WHERE holding = ?");
        write.bind(1, std::string(loss));
        write.bind(2, holding);
        write.exec();
    });
}

Outcome DocketStore::clear() const {
    return guarded(catalogue_, [&] { catalogue_.database().exec("DELETE FROM docket"); });
}

Result<std::optional<ActionKind>> DocketStore::kindFor(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<ActionKind> {
        const KeptStatement ask(catalogue_, "SELECT kind FROM docket WHERE holding = ?");
        ask->bind(1, holding);
        return ask->executeStep() ? std::optional(kindOf(ask->getColumn(0))) : std::nullopt;
    });
}

Result<std::vector<HoldingId>> DocketStore::standing(std::span<const HoldingId> holdings,
                                                     std::optional<ActionKind> kind) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT 1 FROM docket WHERE holding = ? AND (?2 = '' OR kind = ?2)");
        std::vector<HoldingId> found;
        ask.bind(2, kind ? std::string(word(*kind)) : std::string());
        for (const auto id : holdings) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                found.push_back(id);
            }
            ask.reset();
        }
        return found;
    });
}

} // namespace sober
