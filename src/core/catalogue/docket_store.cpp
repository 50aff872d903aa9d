#include "core/catalogue/docket_store.h"

#include "core/catalogue/guarded.h"

namespace sober {

Result<std::vector<DocketAction>> DocketStore::all() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, kind, holding, reason, added, change FROM docket ORDER BY id");
        std::vector<DocketAction> actions;
        while (ask.executeStep()) {
            actions.push_back({ask.getColumn(0).getInt64(), ask.getColumn(1).getString(),
                               ask.getColumn(2).getInt64(), ask.getColumn(3).getString(),
                               ask.getColumn(4).getInt64(), bytesOf(ask.getColumn(5))});
        }
        return actions;
    });
}

Result<DocketTotals> DocketStore::totals() const {
    return guarded(catalogue_, [&] {
        DocketTotals totals;
        totals.actions = static_cast<std::uint64_t>(
            catalogue_.database().execAndGet("SELECT count(*) FROM docket").getInt64());
        totals.frees = static_cast<std::uint64_t>(
            catalogue_.database()
                .execAndGet(
                    "SELECT coalesce(sum(bytes), 0) FROM (SELECT CASE WHEN count(*) >= max(h.links) THEN "
                    "max(h.size) ELSE 0 END AS bytes FROM docket d JOIN holdings h ON h.id = d.holding WHERE "
                    "d.kind = 'retire' GROUP BY h.volume, CASE WHEN h.links > 1 THEN -h.inode ELSE h.id END)")
                .getInt64());
        return totals;
    });
}

Outcome DocketStore::add(std::span<const DocketAction> actions) const {
    return guarded(catalogue_, [&] {
        SQLite::Transaction transaction(catalogue_.database());
        SQLite::Statement insert(
            catalogue_.database(),
            "INSERT INTO docket(kind, holding, reason, added, change) VALUES(?,?,?,?,?) ON "
            "CONFLICT(holding) DO UPDATE SET kind = excluded.kind, reason = excluded.reason, change = "
            "excluded.change");
        for (const auto& action : actions) {
            insert.bind(1, action.kind);
            insert.bind(2, action.holding);
            insert.bind(3, action.reason);
            insert.bind(4, action.added);
            bindBytes(insert, 5, action.change);
            insert.exec();
            insert.reset();
        }
        transaction.commit();
    });
}

Outcome DocketStore::remove(std::span<const HoldingId> holdings, std::string_view kind) const {
    return guarded(catalogue_, [&] {
        SQLite::Transaction transaction(catalogue_.database());
        SQLite::Statement erase(catalogue_.database(),
                                "DELETE FROM docket WHERE holding = ? AND (?2 = '' OR kind = ?2)");
        erase.bind(2, std::string(kind));
        for (const auto id : holdings) {
            erase.bind(1, id);
            erase.exec();
            erase.reset();
        }
        transaction.commit();
    });
}

Outcome DocketStore::clear() const {
    return guarded(catalogue_, [&] { catalogue_.database().exec("DELETE FROM docket"); });
}

Result<std::vector<HoldingId>> DocketStore::standing(std::span<const HoldingId> holdings,
                                                     std::string_view kind) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT 1 FROM docket WHERE holding = ? AND (?2 = '' OR kind = ?2)");
        std::vector<HoldingId> found;
        ask.bind(2, std::string(kind));
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
