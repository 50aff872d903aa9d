#include "core/catalogue/salvage_store.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/salvage_rows.h"

#include <cstring>

namespace sober {

Result<std::vector<SalvageSource>> SalvageStore::images() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + sourceColumns +
                                  " FROM salvage_sources WHERE path <> x'' ORDER BY began "
                                  "DESC, id DESC");
        std::vector<SalvageSource> sources;
        while (ask.executeStep()) {
            sources.push_back(sourceFrom(ask));
        }
        return sources;
    });
}

Result<std::optional<SalvageSource>> SalvageStore::sourceOf(const BytePath& path) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string("SELECT ") + sourceColumns +
                                                         " FROM salvage_sources WHERE path = ?");
        bindBytes(ask, 1, path);
        return ask.executeStep() ? std::optional(sourceFrom(ask)) : std::nullopt;
    });
}

Result<SalvageSource> SalvageStore::source(SalvageSourceId id) const {
    return guarded(catalogue_, [&]() -> Result<SalvageSource> {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + sourceColumns + " FROM salvage_sources WHERE id = ?");
        ask.bind(1, id);
        if (!ask.executeStep()) {
            return Error{Cause::notFound, {}, "What was scanned is not in the catalogue any more."};
        }
        return sourceFrom(ask);
    });
}

Outcome SalvageStore::forget(SalvageSourceId id) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        for (const auto* const statement :
             {"DELETE FROM finds WHERE source = ?", "DELETE FROM salvage_starts WHERE source = ?",
              "DELETE FROM salvage_sources WHERE id = ?"}) {
            SQLite::Statement remove(catalogue_.database(), statement);
            remove.bind(1, id);
            remove.exec();
        }
        transaction.commit();
    });
}

Result<SalvageSourceId> SalvageStore::begin(const SalvageSource& source) const {
    return guarded(catalogue_, [&]() -> Result<SalvageSourceId> {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        const auto before = sourceOf(source.path);
        const auto forgotten = !before ? Outcome(before.error()) : *before ? forget((*before)->id) : done();
        RETURN_IF_FAILED(forgotten);
        SQLite::Statement insert(database,
                                 "INSERT INTO salvage_sources(path, size, mtime, kinds, everywhere, "
                                 "reached, state, began, file_systems) VALUES(?,?,?,?,?,?,?,?,?)");
        bindBytes(insert, 1, source.path);
        insert.bind(2, static_cast<std::int64_t>(source.size));
        insert.bind(3, source.mtime);
        insert.bind(4, source.kinds);
        insert.bind(5, source.everywhere ? 1 : 0);
        insert.bind(6, static_cast<std::int64_t>(source.reached));
        insert.bind(7, static_cast<int>(source.state));
        insert.bind(8, source.began);
        insert.bind(9, source.fileSystems);
        insert.exec();
        const SalvageSourceId id = database.getLastInsertRowid();
        transaction.commit();
        return id;
    });
}

Outcome SalvageStore::advance(const SalvageSource& source, std::span<Find> found,
                              std::span<const std::pair<std::uint64_t, std::uint64_t>> starts) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement insert(database, "INSERT INTO finds(" +
                                               std::string(findColumns).substr(std::strlen("id, ")) +
                                               ") VALUES(" + placeholders(findFields) + ")");
        for (auto& find : found) {
            find.source = source.id;
            bindFind(insert, find);
            insert.exec();
            insert.reset();
            find.id = database.getLastInsertRowid();
        }
        SQLite::Statement start(database, "INSERT OR REPLACE INTO salvage_starts VALUES(?,?,?)");
        for (const auto& [place, sum] : starts) {
            start.bind(1, source.id);
            start.bind(2, static_cast<std::int64_t>(place));
            start.bind(3, static_cast<std::int64_t>(sum));
            start.exec();
            start.reset();
        }
        SQLite::Statement update(database,
                                 "UPDATE salvage_sources SET reached = ?, state = ?, file_systems = ?, "
                                 "passed_over = ? WHERE id = ?");
        update.bind(1, static_cast<std::int64_t>(source.reached));
        update.bind(2, static_cast<int>(source.state));
        update.bind(3, source.fileSystems);
        bindBytes(update, 4, packedRanges(source.passedOver));
        update.bind(5, source.id);
        update.exec();
        transaction.commit();
    });
}

Outcome SalvageStore::update(std::span<const Find> finds) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement update(database, "UPDATE finds SET (" +
                                               std::string(findColumns).substr(std::strlen("id, ")) +
                                               ") = (" + placeholders(findFields) + ") WHERE id = ?");
        for (const auto& find : finds) {
            bindFind(update, find);
            update.bind(findFields + 1, find.id);
            update.exec();
            update.reset();
        }
        transaction.commit();
    });
}

Outcome SalvageStore::remove(std::span<const FindId> finds) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement remove(catalogue_.database(), "DELETE FROM finds WHERE id = ?");
        for (const auto id : finds) {
            remove.bind(1, id);
            remove.exec();
            remove.reset();
        }
        transaction.commit();
    });
}

Result<std::vector<Find>> SalvageStore::finds(SalvageSourceId source) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string("SELECT ") + findColumns +
                                                         " FROM finds WHERE source = ? ORDER BY id");
        ask.bind(1, source);
        std::vector<Find> finds;
        while (ask.executeStep()) {
            finds.push_back(findFrom(ask));
        }
        std::ranges::stable_sort(finds, {}, [](const Find& find) {
            return find.extents.empty() ? 0 : find.extents.front().first;
        });
        return finds;
    });
}

Result<std::vector<Find>> SalvageStore::taken() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + findColumns + " FROM finds WHERE taken <> x''");
        std::vector<Find> finds;
        while (ask.executeStep()) {
            finds.push_back(findFrom(ask));
        }
        return finds;
    });
}

Result<std::uint64_t> SalvageStore::waitingForHome() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT count(DISTINCT f.holding) FROM finds f JOIN holdings h ON h.id = f.holding WHERE "
            "f.taken = x'' AND h.state = 1");
        ask.executeStep();
        return static_cast<std::uint64_t>(ask.getColumn(0).getInt64());
    });
}

Result<std::vector<Find>> SalvageStore::byIds(std::span<const FindId> ids) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + findColumns + " FROM finds WHERE id = ?");
        std::vector<Find> finds;
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                finds.push_back(findFrom(ask));
            }
            ask.reset();
        }
        return finds;
    });
}

Result<std::vector<std::pair<std::uint64_t, std::uint64_t>>>
SalvageStore::starts(SalvageSourceId source) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT place, start FROM salvage_starts WHERE source = ? ORDER BY place");
        ask.bind(1, source);
        std::vector<std::pair<std::uint64_t, std::uint64_t>> starts;
        while (ask.executeStep()) {
            starts.emplace_back(static_cast<std::uint64_t>(ask.getColumn(0).getInt64()),
                                static_cast<std::uint64_t>(ask.getColumn(1).getInt64()));
        }
        return starts;
    });
}

Result<std::multimap<std::uint64_t, BytePath>>
SalvageStore::filesOfSizes(std::span<const std::uint64_t> sizes) const {
    return guarded(catalogue_, [&] {
        std::string list = "[";
        for (const auto size : sizes) {
            list += (list.size() > 1 ? "," : "") + std::to_string(size);
        }
        SQLite::Statement ask(
            catalogue_.database(),
            "WITH wanted(size) AS (SELECT value FROM json_each(?)) "
            "SELECT h.size, v.root, h.path FROM holdings h JOIN volumes v ON v.id = h.volume "
            "WHERE h.state = 0 AND h.size IN wanted UNION ALL "
            "SELECT bytes, x'', file FROM finds WHERE file <> x'' AND bytes IN wanted");
        ask.bind(1, list + "]");
        std::multimap<std::uint64_t, BytePath> files;
        while (ask.executeStep()) {
            const auto root = bytesOf(ask.getColumn(1));
            const auto path = bytesOf(ask.getColumn(2));
            files.emplace(ask.getColumn(0).getInt64(), root.empty() ? path : joinPath(root, path));
        }
        return files;
    });
}

Result<EntryId> SalvageStore::entryThatSetAside(const BytePath& aside) const {
    return guarded(catalogue_, [&]() -> EntryId {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT entry FROM ledger_actions WHERE aside = ? AND aside <> x'' AND step = 2 "
            "ORDER BY id DESC LIMIT 1");
        bindBytes(ask, 1, aside);
        return ask.executeStep() ? ask.getColumn(0).getInt64() : 0;
    });
}

} // namespace sober
