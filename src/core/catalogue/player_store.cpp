#include "core/catalogue/player_store.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>

namespace sober {
namespace {

/// Where something lies: a volume and the path within it, or no volume and the whole path.
struct Place {
    VolumeId volume = 0;
    BytePath path;
};

Place placeFor(std::span<const Volume> volumes, const BytePath& path) {
    const Volume* best = nullptr;
    for (const auto& volume : volumes) {
        if (volume.atHand && isWithin(path, volume.root) &&
            (best == nullptr || volume.root.size() > best->root.size())) {
            best = &volume;
        }
    }
    return best != nullptr ? Place{best->id, *relativeTo(path, best->root)} : Place{0, path};
}

const Volume* volumeOf(std::span<const Volume> volumes, VolumeId id) {
    const auto found = std::ranges::find(volumes, id, &Volume::id);
    return found != volumes.end() ? &*found : nullptr;
}

BytePath absolute(std::span<const Volume> volumes, VolumeId id, const BytePath& path) {
    const auto* volume = volumeOf(volumes, id);
    return volume != nullptr ? joinPath(volume->root, path) : path;
}

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

void writePlaces(SQLite::Database& database, std::span<const Volume> volumes, const Player& player) {
    SQLite::Statement clear(database, "DELETE FROM player_places WHERE player = ?");
    clear.bind(1, player.id);
    clear.exec();
    SQLite::Statement insert(database,
                             "INSERT OR IGNORE INTO player_places(player, volume, path) VALUES(?,?,?)");
    for (const auto& path : player.places) {
        const auto place = placeFor(volumes, path);
        insert.bind(1, player.id);
        insert.bind(2, place.volume);
        bindBytes(insert, 3, place.path);
        insert.exec();
        insert.reset();
    }
}

void bindPlayer(SQLite::Statement& statement, const Player& player) {
    statement.bind(1, player.name);
    statement.bind(2, player.ignoresCase ? 1 : 0);
    bindBytes(statement, 3, player.writtenPrefix);
    bindBytes(statement, 4, player.standsFor);
}

void dropOrphans(SQLite::Database& database) {
    database.exec("DELETE FROM list_references WHERE list NOT IN (SELECT list FROM player_lists)");
    database.exec("DELETE FROM lists WHERE id NOT IN (SELECT list FROM player_lists)");
}

/// Within the caller's transaction.
ListFileId writeList(SQLite::Database& database, std::span<const Volume> volumes, const ListFile& list,
                     PlayerId player) {
    // One that is known stays where it is known, also while its volume seems to be away.
    const auto place = placeFor(volumes, list.path);
    SQLite::Statement insert(
        database,
        "INSERT INTO lists(volume, path, size, mtime, ctime, inode, problem, as_uri) "
        "SELECT coalesce(k.volume, ?1), coalesce(k.path, ?2), ?3, ?4, ?5, ?6, ?7, ?8 FROM (SELECT 1) "
        "LEFT JOIN lists k ON k.id = ?9 WHERE true "
        "ON CONFLICT(volume, path) DO UPDATE SET size = excluded.size, mtime = excluded.mtime, "
        "ctime = excluded.ctime, inode = excluded.inode, problem = excluded.problem, as_uri = "
        "excluded.as_uri RETURNING id");
    insert.bind(1, place.volume);
    bindBytes(insert, 2, place.path);
    insert.bind(3, static_cast<std::int64_t>(list.stamp.size));
    insert.bind(4, list.stamp.mtime);
    insert.bind(5, list.stamp.ctime);
    insert.bind(6, static_cast<std::int64_t>(list.stamp.inode));
    insert.bind(7, list.problem);
    insert.bind(8, list.asUri ? 1 : 0);
    insert.bind(9, list.id);
    insert.executeStep();
    const auto id = insert.getColumn(0).getInt64();
    insert.reset();
    SQLite::Statement own(database, "INSERT OR IGNORE INTO player_lists(player, list) VALUES(?,?)");
    own.bind(1, player);
    own.bind(2, id);
    own.exec();
    return id;
}

} // namespace

Result<std::vector<Player>> PlayerStore::all() const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        std::vector<Player> players;
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT id, name, ignores_case, written_prefix, stands_for FROM players ORDER BY name");
        while (ask.executeStep()) {
            players.push_back({ask.getColumn(0).getInt64(),
                               ask.getColumn(1).getString(),
                               {},
                               ask.getColumn(2).getInt() != 0,
                               bytesOf(ask.getColumn(3)),
                               bytesOf(ask.getColumn(4))});
        }
        SQLite::Statement places(catalogue_.database(),
                                 "SELECT volume, path FROM player_places WHERE player = ? ORDER BY path");
        for (auto& player : players) {
            places.bind(1, player.id);
            while (places.executeStep()) {
                player.places.push_back(
                    absolute(*volumes, places.getColumn(0).getInt64(), bytesOf(places.getColumn(1))));
            }
            places.reset();
        }
        return players;
    });
}

Result<Player> PlayerStore::add(Player player) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement taken(database, "SELECT 1 FROM players WHERE name = ?");
        const std::string wanted = player.name;
        for (int number = 2;; ++number) {
            taken.bind(1, player.name);
            const bool isTakenName = taken.executeStep();
            taken.reset();
            if (!isTakenName) {
                break;
            }
            player.name = wanted + " " + std::to_string(number);
        }
        SQLite::Statement insert(
            database, "INSERT INTO players(name, ignores_case, written_prefix, stands_for) VALUES(?,?,?,?)");
        bindPlayer(insert, player);
        insert.exec();
        player.id = database.getLastInsertRowid();
        writePlaces(database, *volumes, player);
        transaction.commit();
        return player;
    });
}

Outcome PlayerStore::update(const Player& player) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement change(
            catalogue_.database(),
            "UPDATE players SET name = ?, ignores_case = ?, written_prefix = ?, stands_for = ? WHERE id = ?");
        bindPlayer(change, player);
        change.bind(5, player.id);
        change.exec();
        writePlaces(catalogue_.database(), *volumes, player);
        transaction.commit();
    });
}

Outcome PlayerStore::remove(PlayerId player) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        for (const char* sql :
             {"DELETE FROM player_lists WHERE player = ?", "DELETE FROM player_places WHERE player = ?",
              "DELETE FROM players WHERE id = ?"}) {
            SQLite::Statement erase(database, sql);
            erase.bind(1, player);
            erase.exec();
        }
        dropOrphans(database);
        transaction.commit();
    });
}

Result<std::vector<ListFile>> PlayerStore::lists() const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        std::map<ListFileId, std::vector<PlayerId>> players;
        SQLite::Statement owners(catalogue_.database(), "SELECT list, player FROM player_lists");
        while (owners.executeStep()) {
            players[owners.getColumn(0).getInt64()].push_back(owners.getColumn(1).getInt64());
        }
        std::vector<ListFile> lists;
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, path, size, mtime, ctime, inode, problem, as_uri "
                              "FROM lists ORDER BY volume, path");
        while (ask.executeStep()) {
            ListFile list;
            list.id = ask.getColumn(0).getInt64();
            const auto volume = ask.getColumn(1).getInt64();
            list.path = absolute(*volumes, volume, bytesOf(ask.getColumn(2)));
            const auto* on = volumeOf(*volumes, volume);
            list.away = on != nullptr && !on->atHand;
            list.stamp.size = countAt(ask, 3);
            list.stamp.mtime = ask.getColumn(4).getInt64();
            list.stamp.ctime = ask.getColumn(5).getInt64();
            list.stamp.inode = countAt(ask, 6);
            list.problem = ask.getColumn(7).getString();
            list.asUri = ask.getColumn(8).getInt() != 0;
            list.players = players[list.id];
            lists.push_back(std::move(list));
        }
        return lists;
    });
}

Result<ListFileId> PlayerStore::keepList(const ListFile& list, PlayerId player) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        const auto id = writeList(catalogue_.database(), *volumes, list, player);
        transaction.commit();
        return id;
    });
}

Outcome PlayerStore::forgetLists(PlayerId player, std::span<const ListFileId> lists) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement erase(database, "DELETE FROM player_lists WHERE player = ? AND list = ?");
        for (const auto list : lists) {
            erase.bind(1, player);
            erase.bind(2, list);
            erase.exec();
            erase.reset();
        }
        dropOrphans(database);
        transaction.commit();
    });
}

Result<std::vector<Reference>> PlayerStore::references(ListFileId list) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string(referenceColumns) +
                                                         "WHERE ?1 = 0 OR list = ?1 ORDER BY list, entry");
        ask.bind(1, list);
        std::vector<Reference> references;
        while (ask.executeStep()) {
            references.push_back(referenceFrom(ask));
        }
        return references;
    });
}

Result<std::vector<Reference>> PlayerStore::leadingTo(std::span<const BytePath> places) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(referenceColumns) + "WHERE path = ? ORDER BY list, entry");
        std::vector<Reference> references;
        for (const auto& place : places) {
            bindBytes(ask, 1, place);
            while (ask.executeStep()) {
                references.push_back(referenceFrom(ask));
            }
            ask.reset();
        }
        return references;
    });
}

Result<std::vector<BytePath>> PlayerStore::listsNaming(HoldingId holding) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT DISTINCT l.volume, l.path FROM holdings h JOIN list_references r ON ") +
                leadsSql + " JOIN lists l ON l.id = r.list WHERE h.id = ? ORDER BY l.path");
        ask.bind(1, holding);
        std::vector<BytePath> lists;
        while (ask.executeStep()) {
            lists.push_back(absolute(*volumes, ask.getColumn(0).getInt64(), bytesOf(ask.getColumn(1))));
        }
        return lists;
    });
}

Result<std::vector<Reference>> PlayerStore::leadingTo(std::span<const HoldingId> holdings) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(referenceColumns) +
                                  "WHERE holding = ? AND state < 2 ORDER BY list, entry");
        std::vector<Reference> references;
        for (const auto holding : holdings) {
            ask.bind(1, holding);
            while (ask.executeStep()) {
                references.push_back(referenceFrom(ask));
            }
            ask.reset();
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

Result<std::vector<PlayerFigures>> PlayerStore::figures() const {
    const auto players = all();
    RETURN_IF_FAILED(players);
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT r.state, w.path IS NOT NULL, count(*) FROM "
                                                     "player_lists o JOIN list_references r ON r.list = "
                                                     "o.list LEFT JOIN written_off_places w ON w.path = "
                                                     "r.path AND r.state IN (1, 2) WHERE o.player = ? "
                                                     "GROUP BY 1, 2");
        SQLite::Statement lists(catalogue_.database(), "SELECT count(*) FROM player_lists WHERE player = ?");
        std::vector<PlayerFigures> all;
        for (const auto& player : *players) {
            PlayerFigures figures;
            figures.player = player.id;
            lists.bind(1, player.id);
            lists.executeStep();
            figures.lists = countAt(lists, 0);
            lists.reset();
            ask.bind(1, player.id);
            while (ask.executeStep()) {
                const auto state = static_cast<ReferenceState>(ask.getColumn(0).getInt());
                const auto count = countAt(ask, 2);
                if (state == ReferenceState::stream) {
                    figures.streams += count;
                    continue;
                }
                const bool isLoose = state == ReferenceState::loosely;
                if (ask.getColumn(1).getInt() != 0 && !(isLoose && player.ignoresCase)) {
                    figures.writtenOff += count;
                    continue;
                }
                figures.references += count;
                figures.loosely += isLoose ? count : 0;
                figures.away += state == ReferenceState::away ? count : 0;
                const bool resolves = state == ReferenceState::resolved || (isLoose && player.ignoresCase);
                figures.resolved += resolves ? count : 0;
                figures.broken += state == ReferenceState::broken || (isLoose && !resolves) ? count : 0;
            }
            ask.reset();
            all.push_back(figures);
        }
        return all;
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

Result<std::vector<std::string>> PlayerStore::passingPlaces() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT pattern FROM passing_places ORDER BY pattern");
        std::vector<std::string> patterns;
        while (ask.executeStep()) {
            patterns.push_back(ask.getColumn(0).getString());
        }
        return patterns;
    });
}

Outcome PlayerStore::setPassingPlaces(std::span<const std::string> patterns) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        catalogue_.database().exec("DELETE FROM passing_places");
        SQLite::Statement insert(catalogue_.database(),
                                 "INSERT OR IGNORE INTO passing_places(pattern) VALUES(?)");
        for (const auto& pattern : patterns) {
            insert.bind(1, pattern);
            insert.exec();
            insert.reset();
        }
        transaction.commit();
    });
}

} // namespace sober
