#include "core/catalogue/former_places.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <set>

namespace sober {
namespace {

FormerHolding formerFrom(SQLite::Statement& row) {
    FormerHolding former;
    former.id = row.getColumn(0).getInt64();
    former.content = checksumOf(row.getColumn(1));
    former.size = static_cast<std::uint64_t>(row.getColumn(2).getInt64());
    former.seconds = row.getColumn(3).getDouble();
    former.title = row.getColumn(4).getString();
    former.artist = row.getColumn(5).getString();
    former.album = row.getColumn(6).getString();
    return former;
}

constexpr const char* formerColumns = "h.id, h.xxh3, h.size, h.duration, h.title, h.artist, h.album";

} // namespace

Result<std::vector<std::vector<FormerHolding>>> FormerPlaces::at(std::span<const BytePath> places) const {
    const auto volumes = Volumes(catalogue_).all();
    RETURN_IF_FAILED(volumes);
    return guarded(catalogue_, [&] {
        std::string sql = "SELECT ";
        sql += formerColumns;
        sql += " FROM holdings h WHERE h.volume = ?1 AND h.path = ?2 AND h.state <> 0 UNION SELECT ";
        sql += formerColumns;
        sql += " FROM former_places f CROSS JOIN holdings h ON h.id = f.holding WHERE f.volume = ?1 AND "
               "f.path = ?2";
        SQLite::Statement ask(catalogue_.database(), sql);
        std::vector<std::vector<FormerHolding>> all(places.size());
        for (std::size_t i = 0; i < places.size(); ++i) {
            for (const auto& volume : *volumes) {
                const auto within = relativeTo(places[i], volume.root);
                if (!within || within->empty()) {
                    continue;
                }
                ask.bind(1, volume.id);
                bindBytes(ask, 2, *within);
                while (ask.executeStep()) {
                    all[i].push_back(formerFrom(ask));
                }
                ask.reset();
            }
        }
        return all;
    });
}

Result<std::vector<FormerHolding>> FormerPlaces::byIds(std::span<const HoldingId> ids) const {
    return guarded(catalogue_, [&] {
        std::string sql = "SELECT ";
        sql += formerColumns;
        sql += " FROM holdings h WHERE h.id = ?";
        SQLite::Statement ask(catalogue_.database(), sql);
        std::vector<FormerHolding> found;
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                found.push_back(formerFrom(ask));
            }
            ask.reset();
        }
        return found;
    });
}

Result<std::vector<Relative>> FormerPlaces::relativesOf(HoldingId holding) const {
    return guarded(catalogue_, [&] {
        std::vector<Relative> found;
        // CROSS JOIN keeps the order: from the one holding outwards.
        SQLite::Statement same(catalogue_.database(), "SELECT h.id FROM (SELECT other.holding FROM evidence "
                                                      "own CROSS JOIN evidence other ON other.payload = "
                                                      "own.payload WHERE own.holding = ?1 UNION SELECT "
                                                      "other.holding FROM evidence own CROSS JOIN evidence "
                                                      "other ON other.samples_md5 = own.samples_md5 WHERE "
                                                      "own.holding = ?1) same CROSS JOIN holdings h ON h.id "
                                                      "= same.holding AND h.state = 0 WHERE h.id <> ?1");
        same.bind(1, holding);
        while (same.executeStep()) {
            found.push_back({same.getColumn(0).getInt64(), true, {}, {}});
        }
        SQLite::Statement compared(
            catalogue_.database(),
            "WITH own AS (SELECT payload FROM evidence WHERE holding = ?1), others AS (SELECT second AS "
            "payload "
            "FROM recording_pairs WHERE first = (SELECT payload FROM own) UNION SELECT first FROM "
            "recording_pairs WHERE second = (SELECT payload FROM own)) SELECT h.id, (SELECT payload FROM "
            "own), "
            "e.payload FROM others o CROSS JOIN evidence e ON e.payload = o.payload CROSS JOIN holdings h ON "
            "h.id = "
            "e.holding AND h.state = 0 WHERE h.id <> ?1");
        compared.bind(1, holding);
        while (compared.executeStep()) {
            found.push_back({compared.getColumn(0).getInt64(), false, checksumOf(compared.getColumn(1)),
                             checksumOf(compared.getColumn(2))});
        }
        return found;
    });
}

} // namespace sober
