#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"
#include "core/catalogue/player_rows.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>

namespace sober {

namespace {

void bindContent(SQLite::Statement& statement, int index, const std::optional<Checksum128>& content) {
    if (content) {
        bindBytes(statement, index, *content);
    } else {
        statement.bind(index);
    }
}

constexpr const char* referenceColumns =
    "SELECT list, entry, location, title, artist, album, seconds, state, path, holding, xxh3 FROM "
    "list_references ";

Reference referenceFrom(SQLite::Statement& row) {
    Reference reference;
    reference.list = row.getColumn(0).getInt64();
    reference.entry = static_cast<std::size_t>(row.getColumn(1).getInt64());
    reference.location = bytesOf(row.getColumn(2));
    reference.title = row.getColumn(3).getString();
    reference.artist = row.getColumn(4).getString();
    reference.album = row.getColumn(5).getString();
    reference.seconds = row.getColumn(6).getDouble();
    reference.state = static_cast<ReferenceState>(row.getColumn(7).getInt());
    reference.path = bytesOf(row.getColumn(8));
    reference.holding = row.getColumn(9).getInt64();
    if (!row.getColumn(10).isNull()) {
        reference.content = checksumOf(row.getColumn(10));
    }
    return reference;
}

std::vector<Reference> referencesFrom(SQLite::Statement& rows) {
    std::vector<Reference> references;
    while (rows.executeStep()) {
        references.push_back(referenceFrom(rows));
    }
    return references;
}

/// Finds the present holdings that references lead to.
class HoldingTies {
  public:
    HoldingTies(SQLite::Database& database, std::span<const Volume> volumes)
        : volumes_(volumes),
          find_(database, "SELECT id, xxh3 FROM holdings WHERE volume = ? AND path = ? AND state = 0") {}

    /// True where the reference is tied to another holding, or to other content, than before.
    bool tie(Reference& reference) {
        if (reference.state != ReferenceState::resolved && reference.state != ReferenceState::loosely) {
            return false;
        }
        const auto place = placeFor(volumes_, reference.path);
        if (place.volume == 0) {
            return false;
        }
        find_.bind(1, place.volume);
        bindBytes(find_, 2, place.path);
        bool changed = false;
        if (find_.executeStep()) {
            const auto holding = find_.getColumn(0).getInt64();
            const auto content = checksumOf(find_.getColumn(1));
            changed = holding != reference.holding || content != reference.content;
            reference.holding = holding;
            reference.content = content;
        }
        find_.reset();
        return changed;
    }

  private:
    std::span<const Volume> volumes_;
    SQLite::Statement find_;
};

} // namespace

Result<std::vector<Reference>> PlayerStore::references(ListFileId list) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string(referenceColumns) +
                                                         "WHERE ?1 = 0 OR list = ?1 ORDER BY list, entry");
        ask.bind(1, list);
        return referencesFrom(ask);
    });
}

Result<std::vector<Reference>> PlayerStore::unresolved() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(referenceColumns) + "WHERE state IN (1, 2) ORDER BY list, entry");
        return referencesFrom(ask);
    });
}

Result<PlayerStore::Settled> PlayerStore::settled() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT coalesce(sum(state = 0), 0), coalesce(sum(state = 4), 0) FROM "
                              "list_references");
        ask.executeStep();
        return Settled{countAt(ask, 0), countAt(ask, 1)};
    });
}

Result<std::vector<Reference>> PlayerStore::leadingTo(std::span<const BytePath> places) const {
    return guarded(catalogue_, [&] {
        const KeptStatement ask(catalogue_,
                                std::string(referenceColumns) + "WHERE path = ? ORDER BY list, entry");
        std::vector<Reference> references;
        for (const auto& place : places) {
            bindBytes(*ask, 1, place);
            while (ask->executeStep()) {
                references.push_back(referenceFrom(*ask));
            }
            ask->reset();
        }
        return references;
    });
}

Result<std::vector<Reference>> PlayerStore::leadingTo(std::span<const HoldingId> holdings) const {
    return guarded(catalogue_, [&] {
        const KeptStatement ask(catalogue_, std::string(referenceColumns) +
                                                "WHERE holding = ? AND state < 2 ORDER BY list, entry");
        std::vector<Reference> references;
        for (const auto holding : holdings) {
            ask->bind(1, holding);
            while (ask->executeStep()) {
                references.push_back(referenceFrom(*ask));
            }
            ask->reset();
        }
        return references;
    });
}

Result<ListFileId> PlayerStore::keepRead(const ListFile& list, PlayerId player,
                                         std::vector<Reference> changed, std::size_t count) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        const auto id = writeList(database, *volumes, list, player);
        SQLite::Statement clear(database, "DELETE FROM list_references WHERE list = ? AND entry >= ?");
        clear.bind(1, id);
        const bool isWhole = changed.size() == count;
        clear.bind(2, isWhole ? 0 : static_cast<std::int64_t>(count));
        clear.exec();
        HoldingTies ties(database, *volumes);
        SQLite::Statement insert(
            database,
            std::string(isWhole ? "INSERT" : "INSERT OR REPLACE") +
                " INTO list_references(list, entry, location, title, artist, album, seconds, state, path, "
                "holding, xxh3) VALUES(?,?,?,?,?,?,?,?,?,?,?)");
        for (auto& reference : changed) {
            ties.tie(reference);
            insert.bind(1, id);
            insert.bind(2, static_cast<std::int64_t>(reference.entry));
            // The strings outlive the step: copying half a million of them would cost as much as writing
            // them.
            const auto bytes = [&](int index, const std::string& value) {
                insert.bindNoCopy(index, static_cast<const void*>(value.data()),
                                  static_cast<int>(value.size()));
            };
            bytes(3, reference.location);
            insert.bindNoCopy(4, reference.title);
            insert.bindNoCopy(5, reference.artist);
            insert.bindNoCopy(6, reference.album);
            insert.bind(7, reference.seconds);
            insert.bind(8, static_cast<int>(reference.state));
            bytes(9, reference.path);
            bindId(insert, 10, reference.holding);
            bindContent(insert, 11, reference.content);
            insert.exec();
            insert.reset();
        }
        transaction.commit();
        return id;
    });
}

Outcome PlayerStore::settle(ListFileId list, std::span<const Reference> changed) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement write(
            database, "UPDATE list_references SET state = ?, path = ? WHERE list = ? AND entry = ?");
        for (const auto& reference : changed) {
            write.bind(1, static_cast<int>(reference.state));
            bindBytes(write, 2, reference.path);
            write.bind(3, reference.list);
            write.bind(4, static_cast<std::int64_t>(reference.entry));
            write.exec();
            write.reset();
        }
        SQLite::Statement ask(database, std::string(referenceColumns) + "WHERE list = ? AND state < 2");
        SQLite::Statement tied(
            database, "UPDATE list_references SET holding = ?, xxh3 = ? WHERE list = ? AND entry = ?");
        HoldingTies ties(database, *volumes);
        std::vector<Reference> newlyTied;
        ask.bind(1, list);
        while (ask.executeStep()) {
            auto reference = referenceFrom(ask);
            if (ties.tie(reference)) {
                newlyTied.push_back(std::move(reference));
            }
        }
        for (const auto& reference : newlyTied) {
            bindId(tied, 1, reference.holding);
            bindContent(tied, 2, reference.content);
            tied.bind(3, list);
            tied.bind(4, static_cast<std::int64_t>(reference.entry));
            tied.exec();
            tied.reset();
        }
        transaction.commit();
    });
}

Result<std::uint64_t> PlayerStore::broken() const {
    const auto all = figures();
    RETURN_IF_FAILED(all);
    std::uint64_t broken = 0;
    for (const auto& figures : *all) {
        broken += figures.broken;
    }
    return broken;
}

Result<std::vector<HoldingId>> PlayerStore::inNoList() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT h.id FROM holdings h JOIN volumes v ON v.id = h.volume WHERE h.state = 0 AND "
                        "v.at_hand = 1 AND NOT EXISTS (SELECT 1 FROM list_references r WHERE ") +
                leadsSql + ") ORDER BY h.volume, h.path");
        std::vector<HoldingId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Result<std::vector<BytePath>> PlayerStore::writtenOff() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT path FROM written_off_places");
        std::vector<BytePath> places;
        while (ask.executeStep()) {
            places.push_back(bytesOf(ask.getColumn(0)));
        }
        return places;
    });
}

} // namespace sober
