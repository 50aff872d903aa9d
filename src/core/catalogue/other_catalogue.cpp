#include "core/catalogue/other_catalogue.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/policies.h"
#include "core/catalogue/standing_lists.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

void copyValue(const SQLite::Column& value, SQLite::Statement& into, int at) {
    if (value.isInteger()) {
        into.bind(at, value.getInt64());
    } else if (value.isFloat()) {
        into.bind(at, value.getDouble());
    } else if (value.isText()) {
        into.bind(at, value.getString());
    } else if (value.isBlob()) {
        bindBytes(into, at, bytesOf(value));
    } else {
        into.bind(at);
    }
}

/// Rows of a table of which the first of `columns` is an id of a holding or volume there; those of which that
/// is not among `ids` stay. What is here already stays as it is.
void copyRows(SQLite::Database& from, SQLite::Database& to, const std::string& table,
              const std::unordered_map<std::int64_t, std::int64_t>& ids, const std::string& columns,
              const std::string& unless = {}) {
    SQLite::Statement rows(from, "SELECT " + columns + " FROM " + table);
    const int count = rows.getColumnCount();
    std::string marks;
    for (int i = 0; i < count; ++i) {
        marks += fmt::format("{}?{}", i == 0 ? "" : ",", i + 1);
    }
    SQLite::Statement insert(to, unless.empty() ? "INSERT OR IGNORE INTO " + table + "(" + columns +
                                                      ") VALUES(" + marks + ")"
                                                : "INSERT INTO " + table + "(" + columns + ") SELECT " +
                                                      marks + " WHERE NOT EXISTS (" + unless + ")");
    while (rows.executeStep()) {
        const auto counterpart = ids.find(rows.getColumn(0).getInt64());
        if (counterpart == ids.end()) {
            continue;
        }
        insert.bind(1, counterpart->second);
        for (int i = 1; i < count; ++i) {
            copyValue(rows.getColumn(i), insert, i + 1);
        }
        insert.exec();
        insert.reset();
        insert.clearBindings();
    }
}

void takeVerified(SQLite::Database& from, SQLite::Database& to,
                  const std::unordered_map<HoldingId, HoldingId>& ids) {
    SQLite::Statement rows(from, "SELECT holding, verified FROM verified");
    SQLite::Statement insert(to,
                             "INSERT INTO verified(holding, verified) VALUES(?1, ?2) ON CONFLICT(holding) DO "
                             "UPDATE SET verified = max(verified, ?2)");
    while (rows.executeStep()) {
        if (const auto counterpart = ids.find(rows.getColumn(0).getInt64()); counterpart != ids.end()) {
            insert.bind(1, counterpart->second);
            insert.bind(2, rows.getColumn(1).getInt64());
            insert.exec();
            insert.reset();
        }
    }
}

void takeAcceptances(SQLite::Database& from, SQLite::Database& to) {
    SQLite::Statement rows(from, "SELECT payload, samples_md5, reason, accepted FROM acceptances");
    SQLite::Statement insert(
        to, "INSERT OR IGNORE INTO acceptances(payload, samples_md5, reason, accepted) VALUES(?,?,?,?)");
    while (rows.executeStep()) {
        for (int i = 0; i < 4; ++i) {
            copyValue(rows.getColumn(i), insert, i + 1);
        }
        insert.exec();
        insert.reset();
        insert.clearBindings();
    }
}

/// Of `theirs`, what has a name that none of `ours` has.
template <typename Named>
std::vector<Named> newOnes(std::vector<Named> theirs, const std::vector<Named>& ours) {
    std::erase_if(theirs, [&](const Named& each) {
        return std::ranges::any_of(ours, [&](const Named& other) { return other.name == each.name; });
    });
    return theirs;
}

/// Whether what speaks of a volume can be said of one here.
template <typename Id>
bool translate(Id& volume, const Counterparts& counterparts) {
    const auto found = counterparts.volumes.find(volume);
    if (found != counterparts.volumes.end()) {
        volume = found->second;
    }
    return found != counterparts.volumes.end();
}

Outcome takeStandingLists(const Catalogue& from, const Catalogue& to, const Counterparts& counterparts) {
    const auto theirs = StandingLists(from).all();
    const auto ours = StandingLists(to).all();
    if (!theirs || !ours) {
        return theirs ? ours.error() : theirs.error();
    }
    for (auto& list : newOnes(*theirs, *ours)) {
        if (list.filter.volume && !translate(*list.filter.volume, counterparts)) {
            continue;
        }
        if (const auto kept = StandingLists(to).keep(list.name, list.filter); !kept) {
            return kept;
        }
    }
    return done();
}

Outcome takePolicies(const Catalogue& from, const Catalogue& to, const Counterparts& counterparts) {
    const auto theirs = Policies(from).all();
    const auto ours = Policies(to).all();
    if (!theirs || !ours) {
        return theirs ? ours.error() : theirs.error();
    }
    for (auto& policy : newOnes(*theirs, *ours)) {
        policy.id = 0;
        std::erase_if(policy.preferences, [&](Preference& each) {
            return each.kind == PreferenceKind::onVolume && !translate(each.volume, counterparts);
        });
        RETURN_IF_FAILED(Policies(to).keep(policy));
    }
    return done();
}

/// Of players as one of the catalogues has them: those whose lists are looked for on a volume.
constexpr const char* playersOnVolumes =
    "SELECT id, name, ignores_case, written_prefix, stands_for FROM players WHERE id IN (SELECT player FROM "
    "player_places WHERE volume <> 0)";

/// A player is the same by its name. What it reads on no volume is that machine's.
Outcome takePlayers(const Catalogue& other, const Catalogue& here, const Counterparts& counterparts) {
    const auto theirs = Volumes(other).all();
    const auto ours = Volumes(here).all();
    RETURN_IF_FAILED(theirs);
    RETURN_IF_FAILED(ours);
    auto& from = other.database();
    auto& to = here.database();
    SQLite::Statement rows(from, playersOnVolumes);
    SQLite::Statement places(from, "SELECT volume, path FROM player_places WHERE player = ? AND volume <> 0");
    SQLite::Statement add(to, "INSERT OR IGNORE INTO players(name, ignores_case, written_prefix, stands_for) "
                              "VALUES(?,?,?,?)");
    SQLite::Statement addPlace(to,
                               "INSERT OR IGNORE INTO player_places(player, volume, path) SELECT id, ?2, ?3 "
                               "FROM players WHERE name = ?1");
    while (rows.executeStep()) {
        const auto name = rows.getColumn(1).getString();
        for (int column = 1; column <= 3; ++column) {
            copyValue(rows.getColumn(column), add, column);
        }
        bindBytes(add, 4, placeHere(bytesOf(rows.getColumn(4)), *theirs, *ours, counterparts));
        add.exec();
        add.reset();
        places.bind(1, rows.getColumn(0).getInt64());
        while (places.executeStep()) {
            const auto volume = counterparts.volumes.find(places.getColumn(0).getInt64());
            if (volume != counterparts.volumes.end()) {
                addPlace.bind(1, name);
                addPlace.bind(2, volume->second);
                copyValue(places.getColumn(1), addPlace, 3);
                addPlace.exec();
                addPlace.reset();
            }
        }
        places.reset();
    }
    return done();
}

} // namespace

BytePath placeHere(const BytePath& there, const std::vector<Volume>& theirs, const std::vector<Volume>& ours,
                   const Counterparts& counterparts) {
    for (const auto& volume : theirs) {
        const auto within = there.empty() ? std::nullopt : relativeTo(there, volume.root);
        const auto counterpart = counterparts.volumes.find(volume.id);
        if (within && counterpart != counterparts.volumes.end()) {
            return joinPath(std::ranges::find(ours, counterpart->second, &Volume::id)->root, *within);
        }
    }
    return there;
}

Result<std::vector<KnownHolding>> knownOn(const Catalogue& catalogue, VolumeId volume) {
    return guarded(catalogue, [&] {
        SQLite::Statement ask(
            catalogue.database(),
            "WITH deeds AS (SELECT l.id, max(l.time, coalesce(max(u.time), 0)) AS time FROM ledger l LEFT "
            "JOIN ledger u ON u.undoes = l.id GROUP BY l.id), done AS (SELECT a.holding, max(d.time) AS time "
            "FROM ledger_actions a JOIN deeds d ON d.id = a.entry WHERE a.holding IS NOT NULL AND a.step IN "
            "(2, 5) AND a.kind <> ?3 GROUP BY a.holding) "
            "SELECT h.id, h.path, h.state, h.size, h.xxh3, e.holding IS NOT NULL, h.last_seen, "
            "coalesce(done.time, 0), h.first_seen FROM holdings h LEFT JOIN evidence e ON e.holding = h.id "
            "AND e.method = "
            "?1 "
            "LEFT JOIN done ON done.holding = h.id WHERE h.volume = ?2 AND h.state < 4 ORDER BY h.path");
        ask.bind(1, evidenceMethod);
        ask.bind(2, volume);
        ask.bind(3, std::string(word(ActionKind::accept))); // which looks at nothing
        std::vector<KnownHolding> known;
        while (ask.executeStep()) {
            known.push_back({ask.getColumn(0).getInt64(), bytesOf(ask.getColumn(1)),
                             static_cast<HoldingState>(ask.getColumn(2).getInt()),
                             static_cast<std::uint64_t>(ask.getColumn(3).getInt64()),
                             checksumOf(ask.getColumn(4)), ask.getColumn(5).getInt() != 0,
                             ask.getColumn(6).getInt64(), ask.getColumn(7).getInt64(),
                             ask.getColumn(8).getInt64()});
        }
        return known;
    });
}

Result<std::vector<BytePath>> unreadOn(const Catalogue& catalogue, VolumeId volume) {
    return guarded(catalogue, [&] {
        SQLite::Statement ask(catalogue.database(), "SELECT path FROM survey_errors WHERE volume = ?");
        ask.bind(1, volume);
        std::vector<BytePath> paths;
        while (ask.executeStep()) {
            paths.push_back(bytesOf(ask.getColumn(0)));
        }
        return paths;
    });
}

Result<FileRecord> recordOf(const Catalogue& catalogue, HoldingId id) {
    const auto found = Holdings(catalogue).byIds(std::array{id});
    RETURN_IF_FAILED(found);
    if (found->empty()) {
        return Error{Cause::notFound, {}, "A holding left the catalogue meanwhile."};
    }
    const auto& holding = found->front();
    FileRecord record;
    record.stamp = {0, holding.inode, holding.links, holding.size, holding.mtime, holding.ctime};
    record.checksums.file = holding.checksum;
    record.checksums.sha256 = holding.sha256;
    record.claims = holding.claims;
    record.tags = holding.tags;
    record.filing = holding.filing;
    record.problem = holding.problem;
    const auto blocks = guarded(catalogue, [&] {
        SQLite::Statement ask(catalogue.database(), "SELECT xxh3, parts FROM blocks WHERE holding = ?");
        ask.bind(1, id);
        if (ask.executeStep()) {
            const auto all = bytesOf(ask.getColumn(0));
            record.checksums.blocks.resize(all.size() / sizeof(Checksum128));
            std::memcpy(record.checksums.blocks.data(), all.data(),
                        record.checksums.blocks.size() * sizeof(Checksum128));
            const auto parts = bytesOf(ask.getColumn(1));
            record.checksums.parts.resize(parts.size() / sizeof(PartChecksum));
            std::memcpy(record.checksums.parts.data(), parts.data(),
                        record.checksums.parts.size() * sizeof(PartChecksum));
        }
    });
    auto evidence = EvidenceStore(catalogue).of(id);
    if (!blocks || !evidence) {
        return blocks ? evidence.error() : blocks.error();
    }
    record.evidence = std::move(*evidence);
    return record;
}

Outcome takeNotes(const Catalogue& from, const Catalogue& to, const Counterparts& counterparts) {
    return guarded(to, [&]() -> Outcome {
        WritingTransaction transaction(to.database());
        auto& theirs = from.database();
        auto& ours = to.database();
        copyRows(theirs, ours, "drifts", counterparts.holdings, columnsOf(ours, "drifts"));
        copyRows(theirs, ours, "unreadable", counterparts.holdings, columnsOf(ours, "unreadable"));
        copyRows(theirs, ours, "checks", counterparts.volumes,
                 "volume, began, ended, scope, strong, planned, checked, bytes, drifted, unreadable",
                 "SELECT 1 FROM checks WHERE volume = ?1 AND began = ?2");
        takeVerified(theirs, ours, counterparts.holdings);
        takeAcceptances(theirs, ours);
        RETURN_IF_FAILED(takePlayers(from, to, counterparts));
        const auto lists = takeStandingLists(from, to, counterparts);
        const auto policies = lists ? takePolicies(from, to, counterparts) : lists;
        if (policies) {
            ours.exec("UPDATE freshness SET findings_stale = 1");
            transaction.commit();
        }
        return policies;
    });
}

Result<std::uint64_t> listsOnNoVolume(const Catalogue& other) {
    return guarded(other, [&] {
        return static_cast<std::uint64_t>(
            other.database().execAndGet("SELECT count(*) FROM lists WHERE volume = 0").getInt64());
    });
}

Result<bool> hasDecidedSince(const Catalogue& other, const Catalogue& here) {
    return guarded(here, [&] {
        SQLite::Statement later(other.database(), "SELECT 1 FROM docket WHERE added > ?");
        later.bind(
            1, here.database()
                   .execAndGet("SELECT max(coalesce((SELECT max(added) FROM docket), 0), coalesce((SELECT "
                               "max(time) FROM ledger WHERE id IN (SELECT entry FROM ledger_actions)), 0))")
                   .getInt64());
        return later.executeStep();
    });
}

Result<NewDecisions> newDecisions(const Catalogue& from, const Catalogue& to) {
    const auto theirLists = StandingLists(from).all();
    const auto ourLists = StandingLists(to).all();
    const auto theirPolicies = Policies(from).all();
    const auto ourPolicies = Policies(to).all();
    if (!theirLists || !ourLists) {
        return theirLists ? ourLists.error() : theirLists.error();
    }
    if (!theirPolicies || !ourPolicies) {
        return theirPolicies ? ourPolicies.error() : theirPolicies.error();
    }
    const auto players = guarded(from, [&] {
        SQLite::Statement rows(from.database(), playersOnVolumes);
        SQLite::Statement known(to.database(), "SELECT 1 FROM players WHERE name = ?");
        std::uint64_t count = 0;
        while (rows.executeStep()) {
            known.bind(1, rows.getColumn(1).getString());
            count += known.executeStep() ? 0 : 1;
            known.reset();
        }
        return count;
    });
    RETURN_IF_FAILED(players);
    const auto acceptances = guarded(from, [&] {
        SQLite::Statement rows(from.database(), "SELECT payload FROM acceptances");
        SQLite::Statement known(to.database(), "SELECT 1 FROM acceptances WHERE payload = ?");
        std::uint64_t count = 0;
        while (rows.executeStep()) {
            bindBytes(known, 1, bytesOf(rows.getColumn(0)));
            count += known.executeStep() ? 0 : 1;
            known.reset();
        }
        return count;
    });
    return acceptances ? Result(NewDecisions{*acceptances, newOnes(*theirLists, *ourLists).size(),
                                             newOnes(*theirPolicies, *ourPolicies).size(), *players})
                       : Result<NewDecisions>(acceptances.error());
}

} // namespace sober
