#include "core/catalogue/holdings.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"

#include <algorithm>
#include <map>
#include <unordered_map>

namespace sober {
namespace {

constexpr const char* allColumns =
    "id, volume, path, state, size, mtime, ctime, inode, links, xxh3, sha256, problem, container, codec, "
    "lossless, bitrate, sample_rate, channels, bit_depth, duration, title, artist, album, track, date, "
    "first_seen, last_seen, albumartist, composer, genre, disc";

Holding holdingFrom(SQLite::Statement& row) {
    Holding holding;
    holding.id = row.getColumn(0).getInt64();
    holding.volume = row.getColumn(1).getInt64();
    holding.path = bytesOf(row.getColumn(2));
    holding.state = static_cast<HoldingState>(row.getColumn(3).getInt());
    holding.size = static_cast<std::uint64_t>(row.getColumn(4).getInt64());
    holding.mtime = row.getColumn(5).getInt64();
    holding.ctime = row.getColumn(6).getInt64();
    holding.inode = static_cast<std::uint64_t>(row.getColumn(7).getInt64());
    holding.links = static_cast<std::uint64_t>(row.getColumn(8).getInt64());
    holding.checksum = checksumOf(row.getColumn(9));
    if (!row.getColumn(10).isNull()) {
        const auto bytes = bytesOf(row.getColumn(10));
        holding.sha256.emplace();
        std::copy_n(bytes.begin(), std::min(bytes.size(), holding.sha256->size()), holding.sha256->begin());
    }
    holding.problem = row.getColumn(11).getString();
    holding.claims =
        Claims{row.getColumn(12).getString(), row.getColumn(13).getString(), row.getColumn(14).getInt() != 0,
               row.getColumn(15).getInt64(),  row.getColumn(16).getInt(),    row.getColumn(17).getInt(),
               row.getColumn(18).getInt(),    row.getColumn(19).getDouble()};
    holding.tags =
        Tags{row.getColumn(20).getString(), row.getColumn(21).getString(), row.getColumn(22).getString(),
             row.getColumn(23).getString(), row.getColumn(24).getString()};
    holding.firstSeen = row.getColumn(25).getInt64();
    holding.lastSeen = row.getColumn(26).getInt64();
    holding.filing = FilingTags{row.getColumn(27).getString(), row.getColumn(28).getString(),
                                row.getColumn(29).getString(), row.getColumn(30).getString()};
    return holding;
}

std::vector<Holding> allFrom(SQLite::Statement& ask) {
    std::vector<Holding> holdings;
    while (ask.executeStep()) {
        holdings.push_back(holdingFrom(ask));
    }
    return holdings;
}

} // namespace

Result<std::vector<Holding>> Holdings::byIds(std::span<const HoldingId> ids) const {
    return guarded(catalogue_, [&] {
        std::vector<Holding> ordered;
        ordered.reserve(ids.size());
        const KeptStatement ask(catalogue_,
                                std::string("SELECT ") + allColumns + " FROM holdings WHERE id = ?");
        for (const auto id : ids) {
            ask->bind(1, id);
            if (ask->executeStep()) {
                ordered.push_back(holdingFrom(*ask));
            }
            ask->reset();
        }
        return ordered;
    });
}

Result<std::optional<Holding>> Holdings::at(VolumeId volume, const BytePath& path) const {
    return guarded(catalogue_, [&]() -> std::optional<Holding> {
        const KeptStatement ask(catalogue_, std::string("SELECT ") + allColumns +
                                                " FROM holdings WHERE volume = ? AND path = ? AND state < 3");
        ask->bind(1, volume);
        bindBytes(*ask, 2, path);
        return ask->executeStep() ? std::optional(holdingFrom(*ask)) : std::nullopt;
    });
}

Result<std::vector<Holding>> Holdings::carrying(const Checksum128& checksum) const {
    return guarded(catalogue_, [&] {
        const KeptStatement ask(catalogue_,
                                std::string("SELECT ") + allColumns +
                                    " FROM holdings WHERE state = 0 AND xxh3 = ? ORDER BY volume, path");
        bindBytes(*ask, 1, checksum);
        return allFrom(*ask);
    });
}

Result<std::vector<Holding>> Holdings::carrying(const Sha256& digest) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + allColumns +
                                  " FROM holdings WHERE state = 0 AND sha256 = ? ORDER BY volume, path");
        ask.bindNoCopy(1, digest.data(), static_cast<int>(digest.size()));
        return allFrom(ask);
    });
}

Result<std::vector<Holding>> Holdings::lasting(double least, double most) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT ") + allColumns +
                " FROM holdings WHERE state IN (0, 1) AND duration BETWEEN ? AND ? ORDER BY "
                "volume, path");
        ask.bind(1, least);
        ask.bind(2, most);
        return allFrom(ask);
    });
}

Result<std::vector<HoldingId>> Holdings::missing(const std::string& text,
                                                 const std::optional<HoldingFilter>& list) const {
    return guarded(catalogue_, [&] {
        HoldingFilter byText;
        byText.text = text;
        const FilterClause clause(catalogue_.database(), list.value_or(HoldingFilter{}));
        const FilterClause textClause(catalogue_.database(), byText);
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT h.id FROM holdings h LEFT JOIN evidence e ON e.holding = h.id WHERE "
                              "h.state = 1 AND " +
                                  textClause.sql() + " AND " + clause.sql() + " ORDER BY h.volume, h.path");
        clause.bindTo(ask, textClause.bindTo(ask, 1));
        std::vector<HoldingId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Result<std::vector<std::string>> Holdings::codecs() const {
    return guarded(catalogue_, [&] {
        // From each to the next in the index: as many steps as there are codecs, not holdings.
        SQLite::Statement ask(
            catalogue_.database(),
            "WITH RECURSIVE each(codec) AS (SELECT min(codec) FROM holdings UNION ALL SELECT "
            "(SELECT min(h.codec) FROM holdings h WHERE h.codec > each.codec) FROM each WHERE "
            "each.codec IS NOT NULL) SELECT codec FROM each WHERE codec <> ''");
        std::vector<std::string> codecs;
        while (ask.executeStep()) {
            codecs.push_back(ask.getColumn(0).getString());
        }
        return codecs;
    });
}

Result<std::vector<MissingFolder>> Holdings::missingFolders() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT m.volume, m.path, (SELECT min(h.id) FROM "
                                                     "holdings h WHERE h.state = 0 AND h.xxh3 = m.xxh3) "
                                                     "FROM holdings m WHERE m.state = 1");
        SQLite::Statement place(catalogue_.database(), "SELECT volume, path FROM holdings WHERE id = ?");
        struct Key {
            VolumeId volume;
            BytePath folder;
            VolumeId foundVolume;
            BytePath foundFolder;
            auto operator<=>(const Key&) const = default;
        };
        std::map<Key, std::uint64_t> counts;
        while (ask.executeStep()) {
            Key key{ask.getColumn(0).getInt64(), BytePath(parentOf(bytesOf(ask.getColumn(1)))), 0, {}};
            if (!ask.getColumn(2).isNull()) {
                place.bind(1, ask.getColumn(2).getInt64());
                if (place.executeStep()) {
                    key.foundVolume = place.getColumn(0).getInt64();
                    key.foundFolder = BytePath(parentOf(bytesOf(place.getColumn(1))));
                }
                place.reset();
            }
            ++counts[key];
        }
        std::vector<MissingFolder> folders;
        for (const auto& [key, count] : counts) {
            folders.push_back({key.volume, key.folder,
                               key.foundVolume != 0 ? std::optional(key.foundVolume) : std::nullopt,
                               key.foundFolder, count});
        }
        std::ranges::stable_sort(folders, std::greater{}, &MissingFolder::count);
        return folders;
    });
}

Result<std::vector<Holding>> Holdings::sample(VolumeId volume, int limit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ids(catalogue_.database(),
                              "SELECT id FROM holdings WHERE volume = ? AND state = 0 ORDER BY path");
        ids.bind(1, volume);
        std::vector<HoldingId> all;
        while (ids.executeStep()) {
            all.push_back(ids.getColumn(0).getInt64());
        }
        std::vector<HoldingId> picked;
        const std::size_t step = std::max<std::size_t>(1, all.size() / static_cast<std::size_t>(limit));
        for (std::size_t i = 0; i < all.size() && picked.size() < static_cast<std::size_t>(limit);
             i += step) {
            picked.push_back(all[i]);
        }
        return byIds(picked);
    });
}

Outcome Holdings::eachOutline(const std::function<void(const HoldingOutline&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, path, state, size, troubled FROM holdings INDEXED BY "
                              "holdings_walk WHERE state IN (0, 1) ORDER BY volume, path");
        while (ask.executeStep()) {
            visit({ask.getColumn(0).getInt64(), ask.getColumn(1).getInt64(), bytesOf(ask.getColumn(2)),
                   static_cast<HoldingState>(ask.getColumn(3).getInt()),
                   static_cast<std::uint64_t>(ask.getColumn(4).getInt64()), ask.getColumn(5).getInt() != 0});
        }
    });
}

Outcome Holdings::eachFiled(const std::function<void(const std::string& artist, const std::string& genre,
                                                     VolumeId volume, const BytePath& path)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT artist, genre, volume, path FROM holdings WHERE state = 0 AND artist <> ''");
        while (ask.executeStep()) {
            visit(ask.getColumn(0).getString(), ask.getColumn(1).getString(), ask.getColumn(2).getInt64(),
                  bytesOf(ask.getColumn(3)));
        }
    });
}

Outcome Holdings::eachPresent(const std::function<void(PresentHolding&&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, path, size, duration, title, artist, album, xxh3 FROM "
                              "holdings WHERE state = 0");
        while (ask.executeStep()) {
            visit({ask.getColumn(0).getInt64(), ask.getColumn(1).getInt64(), bytesOf(ask.getColumn(2)),
                   static_cast<std::uint64_t>(ask.getColumn(3).getInt64()), ask.getColumn(4).getDouble(),
                   ask.getColumn(5).getString(), ask.getColumn(6).getString(), ask.getColumn(7).getString(),
                   checksumOf(ask.getColumn(8))});
        }
    });
}

Outcome Holdings::eachDuplicated(const std::function<void(const Duplicated&)>& visit) const {
    return guarded(catalogue_, [&] {
        // The index delivers equal checksums side by side: a run of two or more is a copy set.
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, xxh3, size, inode, links FROM holdings INDEXED BY "
                              "holdings_content WHERE state = 0 ORDER BY xxh3, volume");
        std::optional<Duplicated> before;
        bool beforeVisited = false;
        while (ask.executeStep()) {
            Duplicated row{ask.getColumn(0).getInt64(),
                           ask.getColumn(1).getInt64(),
                           checksumOf(ask.getColumn(2)),
                           static_cast<std::uint64_t>(ask.getColumn(3).getInt64()),
                           static_cast<std::uint64_t>(ask.getColumn(4).getInt64()),
                           static_cast<std::uint64_t>(ask.getColumn(5).getInt64())};
            const bool same = before && before->checksum == row.checksum && before->size == row.size;
            if (same) {
                if (!beforeVisited) {
                    visit(*before);
                }
                visit(row);
            }
            before = row;
            beforeVisited = same;
        }
    });
}

} // namespace sober
