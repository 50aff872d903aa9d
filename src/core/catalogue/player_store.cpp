#include "core/catalogue/player_store.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/player_rows.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <map>

namespace sober {
namespace {

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
