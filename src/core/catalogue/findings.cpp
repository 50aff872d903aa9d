#include "core/catalogue/findings.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/table_difference.h"

#include <map>
#include <set>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

void bindCount(SQLite::Statement& statement, int index, std::uint64_t count) {
    statement.bind(index, static_cast<std::int64_t>(count));
}

CopySet setFrom(SQLite::Statement& row) {
    return {row.getColumn(0).getInt64(),
            checksumOf(row.getColumn(1)),
            static_cast<Sameness>(row.getColumn(2).getInt()),
            countAt(row, 3),
            countAt(row, 4),
            countAt(row, 5),
            countAt(row, 6),
            countAt(row, 7),
            row.getColumn(8).getInt() != 0};
}

constexpr const char* setColumns =
    "s.id, s.content, s.sameness, s.size, s.members, s.files, s.volumes, s.reclaimable, s.doubt";

std::vector<CopySet> allSets(SQLite::Database& database) {
    SQLite::Statement query(database, std::string("SELECT ") + setColumns + " FROM copy_sets s");
    std::vector<CopySet> sets;
    while (query.executeStep()) {
        sets.push_back(setFrom(query));
    }
    return sets;
}

using Membership = std::pair<SetId, HoldingId>;

std::vector<Membership> allMembers(SQLite::Database& database) {
    SQLite::Statement query(database, "SELECT set_id, holding FROM set_members");
    std::vector<Membership> members;
    while (query.executeStep()) {
        members.emplace_back(query.getColumn(0).getInt64(), query.getColumn(1).getInt64());
    }
    return members;
}

void writeSets(SQLite::Database& database, const std::vector<CopySet>& before,
               const std::vector<CopySet>& after) {
    SQLite::Statement remove(database, "DELETE FROM copy_sets WHERE id = ?");
    SQLite::Statement insert(database, "INSERT INTO copy_sets VALUES(?,?,?,?,?,?,?,?,?)");
    writeDifference(
        before, after,
        [&](const CopySet& set) {
            remove.bind(1, set.id);
            remove.exec();
            remove.reset();
        },
        [&](const CopySet& set) {
            insert.bind(1, set.id);
            bindBytes(insert, 2, set.content);
            insert.bind(3, static_cast<int>(set.sameness));
            bindCount(insert, 4, set.size);
            bindCount(insert, 5, set.members);
            bindCount(insert, 6, set.files);
            bindCount(insert, 7, set.volumes);
            bindCount(insert, 8, set.reclaimable);
            insert.bind(9, set.doubt ? 1 : 0);
            insert.exec();
            insert.reset();
        });
}

void writeMembers(SQLite::Database& database, const std::vector<Membership>& before,
                  std::vector<Membership> after) {
    SQLite::Statement remove(database, "DELETE FROM set_members WHERE set_id = ? AND holding = ?");
    SQLite::Statement insert(database, "INSERT INTO set_members VALUES(?,?)");
    const auto with = [](SQLite::Statement& statement) {
        return [&statement](const Membership& member) {
            statement.bind(1, member.first);
            statement.bind(2, member.second);
            statement.exec();
            statement.reset();
        };
    };
    writeDifference(before, std::move(after), with(remove), with(insert));
}

/// Gives sets the ids that they had: one with the same content its own, then one with other content that of a
/// set which had a member of it.
class SetNumbers {
  public:
    SetNumbers(const std::vector<CopySet>& before, const std::vector<Membership>& members,
               std::span<const FoundSet> found) {
        for (const auto& set : before) {
            byContent_.emplace(set.content, set.id);
            last_ = std::max(last_, set.id);
        }
        std::set<Checksum128> staying;
        for (const auto& [set, holdings] : found) {
            staying.insert(set.content);
        }
        std::unordered_set<SetId> free;
        for (const auto& set : before) {
            if (!staying.contains(set.content)) {
                free.insert(set.id);
            }
        }
        for (const auto& [set, holding] : members) {
            if (free.contains(set)) {
                byMember_.emplace(holding, set);
            }
        }
    }

    SetId of(const FoundSet& found) {
        if (const auto same = byContent_.find(found.set.content); same != byContent_.end()) {
            return same->second;
        }
        for (const auto holding : found.members) {
            const auto had = byMember_.find(holding);
            if (had != byMember_.end() && given_.insert(had->second).second) {
                return had->second;
            }
        }
        return ++last_;
    }

  private:
    std::map<Checksum128, SetId> byContent_;
    std::unordered_map<HoldingId, SetId> byMember_; ///< of sets whose content is no set's any more
    std::unordered_set<SetId> given_;
    SetId last_ = 0;
};

void replaceSets(SQLite::Database& database, std::span<const FoundSet> found) {
    const auto before = allSets(database);
    const auto membersBefore = allMembers(database);
    SetNumbers numbers(before, membersBefore, found);
    std::vector<CopySet> after;
    std::vector<Membership> members;
    for (const auto& each : found) {
        after.push_back(each.set);
        after.back().id = numbers.of(each);
        for (const auto holding : each.members) {
            members.emplace_back(after.back().id, holding);
        }
    }
    writeSets(database, before, after);
    writeMembers(database, membersBefore, std::move(members));
}

/// A condition on the members of a set `s`, as holdings `h`.
std::string someMember(const std::string& condition, const std::string& joined = {}) {
    return "EXISTS(SELECT 1 FROM set_members m JOIN holdings h ON h.id = m.holding " + joined +
           " WHERE m.set_id = s.id AND h.state = 0 AND " + condition + ")";
}

void insertVolumes(SQLite::Database& database, std::span<const VolumeFigures> volumes) {
    SQLite::Statement insert(database, "INSERT INTO volume_figures VALUES(?,?,?,?,?,?,?,?,?,?)");
    for (const auto& figures : volumes) {
        insert.bind(1, figures.volume);
        bindCount(insert, 2, figures.holdings);
        bindCount(insert, 3, figures.bytes);
        insert.bind(4, figures.duration);
        bindCount(insert, 5, figures.heldOnce);
        bindCount(insert, 6, figures.inSets);
        bindCount(insert, 7, figures.missing);
        bindCount(insert, 8, figures.troubled);
        bindCount(insert, 9, figures.examined);
        bindCount(insert, 10, figures.claims);
        insert.exec();
        insert.reset();
    }
}

FolderFigures folderFrom(SQLite::Statement& row) {
    return {row.getColumn(0).getInt64(),
            bytesOf(row.getColumn(1)),
            row.getColumn(2).getInt(),
            countAt(row, 3),
            countAt(row, 4),
            countAt(row, 5),
            countAt(row, 6),
            countAt(row, 7),
            countAt(row, 8)};
}

constexpr const char* folderColumns =
    "volume, path, depth, holdings, bytes, in_sets, missing, troubled, claims";

void replaceFolders(SQLite::Database& database, std::span<const FolderFigures> folders) {
    SQLite::Statement query(database, std::string("SELECT ") + folderColumns + " FROM folder_figures");
    std::vector<FolderFigures> before;
    while (query.executeStep()) {
        before.push_back(folderFrom(query));
    }
    SQLite::Statement remove(database,
                             "DELETE FROM folder_figures WHERE volume = ? AND path = ? AND depth = ?");
    SQLite::Statement insert(database, "INSERT INTO folder_figures VALUES(?,?,?,?,?,?,?,?,?)");
    const auto bindPlace = [](SQLite::Statement& statement, const FolderFigures& figures) {
        statement.bind(1, figures.volume);
        bindBytes(statement, 2, figures.path);
        statement.bind(3, figures.depth);
    };
    writeDifference(
        std::move(before), std::vector(folders.begin(), folders.end()),
        [&](const FolderFigures& figures) {
            bindPlace(remove, figures);
            remove.exec();
            remove.reset();
        },
        [&](const FolderFigures& figures) {
            bindPlace(insert, figures);
            bindCount(insert, 4, figures.holdings);
            bindCount(insert, 5, figures.bytes);
            bindCount(insert, 6, figures.inSets);
            bindCount(insert, 7, figures.missing);
            bindCount(insert, 8, figures.troubled);
            bindCount(insert, 9, figures.claims);
            insert.exec();
            insert.reset();
        });
}

} // namespace

Result<bool> Findings::areStale() const {
    return guarded(catalogue_, [&] {
        return catalogue_.database().execAndGet("SELECT findings_stale FROM freshness").getInt() != 0;
    });
}

Outcome Findings::markStale() const {
    return guarded(catalogue_,
                   [&] { catalogue_.database().exec("UPDATE freshness SET findings_stale = 1"); });
}

Outcome Findings::replace(std::span<const FoundSet> sets, std::span<const VolumeFigures> volumes,
                          std::span<const FolderFigures> folders,
                          const std::function<Outcome()>& follow) const {
    return guarded(catalogue_, [&]() -> Outcome {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        database.exec("DELETE FROM volume_figures; UPDATE freshness SET findings_stale = 0");
        replaceSets(database, sets);
        insertVolumes(database, volumes);
        replaceFolders(database, folders);
        if (auto followed = follow(); !followed) {
            return followed;
        }
        transaction.commit();
        return done();
    });
}

Result<std::vector<SetId>> Findings::setOrder(SetOrder order, const SetFilter& filter) const {
    return setsIn(order, filter, std::nullopt);
}

Result<std::vector<SetId>> Findings::firstSets(SetOrder order, const SetFilter& filter, int most) const {
    return setsIn(order, filter, most);
}

Result<std::vector<SetId>> Findings::setsIn(SetOrder order, const SetFilter& filter,
                                            std::optional<int> most) const {
    return guarded(catalogue_, [&] {
        std::string sql = "SELECT s.id FROM copy_sets s WHERE ";
        sql += filter.sameness ? "s.sameness = " + std::to_string(static_cast<int>(*filter.sameness))
                               : "s.sameness <> " + std::to_string(static_cast<int>(Sameness::tagsOnly));
        if (filter.volume) {
            sql += " AND " + someMember("h.volume = ?1");
        }
        if (filter.undecidedOnly) {
            sql += " AND NOT EXISTS(SELECT 1 FROM set_decisions d WHERE d.xxh3 = s.content AND d.left_alone) "
                   "AND NOT " +
                   someMember("1", "JOIN docket d ON d.holding = h.id AND d.kind = 'retire'");
        }
        // Each by itself: one member may be what the text means, another what the list does.
        std::vector<FilterClause> clauses;
        if (filter.list) {
            clauses.emplace_back(catalogue_.database(), *filter.list);
        }
        if (!filter.text.empty()) {
            HoldingFilter byText;
            byText.text = filter.text;
            clauses.emplace_back(catalogue_.database(), byText);
        }
        for (const auto& clause : clauses) {
            // In the order of the sets it ends with the first that are wanted; for all, each holding is
            // looked at once, beginning with them where few are meant (SQLite keeps the order of a cross
            // join).
            const bool inOrder = most && !clause.meansFew();
            const std::string members =
                std::string(clause.meansFew() ? "FROM holdings h CROSS JOIN set_members m ON m.holding = h.id"
                            : inOrder         ? "FROM set_members m CROSS JOIN holdings h ON h.id = m.holding"
                                              : "FROM set_members m JOIN holdings h ON h.id = m.holding") +
                " LEFT JOIN evidence e ON e.holding = h.id WHERE " + clause.present() + " AND " +
                clause.sql();
            sql += inOrder ? " AND EXISTS(SELECT 1 " + members + " AND m.set_id = s.id)"
                           : " AND s.id IN (SELECT m.set_id " + members + ")";
        }
        switch (order) {
        case SetOrder::mostBytes:
            sql += " ORDER BY s.reclaimable DESC, s.size DESC, s.id";
            break;
        case SetOrder::mostMembers:
            sql += " ORDER BY s.members DESC, s.reclaimable DESC, s.id";
            break;
        case SetOrder::mostDoubt:
            sql += " ORDER BY s.doubt DESC, s.reclaimable DESC, s.id";
            break;
        case SetOrder::weakestFirst:
            sql += " ORDER BY s.sameness DESC, s.reclaimable DESC, s.id";
            break;
        }
        SQLite::Statement ask(catalogue_.database(), sql + (most ? " LIMIT " + std::to_string(*most) : ""));
        if (filter.volume) {
            ask.bind(1, *filter.volume);
        }
        // Unnumbered parameters follow the highest numbered one.
        int free = filter.volume ? 2 : 1;
        for (const auto& clause : clauses) {
            free = clause.bindTo(ask, free);
        }
        std::vector<SetId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Result<std::vector<CopySet>> Findings::sets(std::span<const SetId> ids) const {
    return guarded(catalogue_, [&] {
        std::vector<CopySet> found;
        found.reserve(ids.size());
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + setColumns + " FROM copy_sets s WHERE s.id = ?");
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                found.push_back(setFrom(ask));
            }
            ask.reset();
        }
        return found;
    });
}

Result<std::optional<CopySet>> Findings::setOf(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<CopySet> {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT ") + setColumns +
                " FROM set_members m JOIN copy_sets s ON s.id = m.set_id WHERE m.holding = ? "
                "AND s.sameness <> " +
                std::to_string(static_cast<int>(Sameness::tagsOnly)));
        ask.bind(1, holding);
        return ask.executeStep() ? std::optional(setFrom(ask)) : std::nullopt;
    });
}

Result<std::vector<HoldingId>> Findings::membersOf(SetId set) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT h.id FROM set_members m JOIN holdings h ON h.id = m.holding WHERE "
                              "m.set_id = ? AND h.state = 0 ORDER BY h.volume, h.path");
        ask.bind(1, set);
        std::vector<HoldingId> members;
        while (ask.executeStep()) {
            members.push_back(ask.getColumn(0).getInt64());
        }
        return members;
    });
}

Result<SetTotals> Findings::setTotals() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT count(*), coalesce(sum(reclaimable), 0) FROM copy_sets WHERE sameness <> " +
                std::to_string(static_cast<int>(Sameness::tagsOnly)));
        ask.executeStep();
        return SetTotals{countAt(ask, 0), countAt(ask, 1)};
    });
}

Result<std::vector<VolumeFigures>> Findings::volumeFigures() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT volume, holdings, bytes, duration, held_once, in_sets, "
                              "missing, troubled, examined, claims FROM volume_figures");
        std::vector<VolumeFigures> all;
        while (ask.executeStep()) {
            all.push_back({ask.getColumn(0).getInt64(), countAt(ask, 1), countAt(ask, 2),
                           ask.getColumn(3).getDouble(), countAt(ask, 4), countAt(ask, 5), countAt(ask, 6),
                           countAt(ask, 7), countAt(ask, 8), countAt(ask, 9)});
        }
        return all;
    });
}

Result<std::vector<FolderFigures>> Findings::folderFigures(VolumeId volume, int depth,
                                                           const BytePath& within) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string("SELECT ") + folderColumns +
                                                         " FROM folder_figures WHERE volume = ? AND depth = "
                                                         "? AND (path = ? OR (path >= ? AND path < ?)) "
                                                         "ORDER BY path");
        ask.bind(1, volume);
        ask.bind(2, depth);
        // Paths below a folder lie between "folder/" and "folder0", the byte after the slash; no path
        // (PATH_MAX is 4,096) comes after 4,096 times FF.
        bindBytes(ask, 3, within);
        bindBytes(ask, 4, within.empty() ? within : within + '/');
        bindBytes(ask, 5, within.empty() ? BytePath(4096, '\xFF') : within + '0');
        std::vector<FolderFigures> all;
        while (ask.executeStep()) {
            all.push_back(folderFrom(ask));
        }
        return all;
    });
}

Result<std::vector<std::pair<VolumeId, double>>> Findings::durations() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT volume, sum(duration) FROM holdings WHERE state = 0 GROUP BY volume");
        std::vector<std::pair<VolumeId, double>> all;
        while (ask.executeStep()) {
            all.emplace_back(ask.getColumn(0).getInt64(), ask.getColumn(1).getDouble());
        }
        return all;
    });
}

Result<std::vector<SurveyError>> Findings::surveyErrors() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT path, sentence FROM survey_errors ORDER BY volume, path");
        std::vector<SurveyError> errors;
        while (ask.executeStep()) {
            errors.push_back({bytesOf(ask.getColumn(0)), ask.getColumn(1).getString()});
        }
        return errors;
    });
}

Result<std::vector<SurveyChange>> Findings::surveyChanges() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT volume, holding, kind, path_before FROM survey_changes ORDER BY kind, id");
        std::vector<SurveyChange> changes;
        while (ask.executeStep()) {
            changes.push_back({ask.getColumn(0).getInt64(), ask.getColumn(1).getInt64(),
                               ask.getColumn(2).getString(), bytesOf(ask.getColumn(3))});
        }
        return changes;
    });
}

Result<SetDecision> Findings::decisionOn(const CopySet& set) const {
    return guarded(catalogue_, [&] {
        SetDecision decision;
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT keeper, left_alone FROM set_decisions WHERE xxh3 = ?");
        bindBytes(ask, 1, set.content);
        if (ask.executeStep()) {
            if (!ask.getColumn(0).isNull()) {
                decision.keeper = ask.getColumn(0).getInt64();
            }
            decision.leftAlone = ask.getColumn(1).getInt() != 0;
        }
        SQLite::Statement waiting(catalogue_.database(),
                                  "SELECT count(*) FROM set_members m JOIN holdings h ON h.id = m.holding "
                                  "JOIN docket d ON d.holding "
                                  "= h.id WHERE m.set_id = ? AND h.state = 0 AND d.kind = 'retire'");
        waiting.bind(1, set.id);
        waiting.executeStep();
        decision.onDocket = countAt(waiting, 0);
        return decision;
    });
}

Outcome Findings::decide(const Checksum128& content, std::optional<HoldingId> keeper, bool leftAlone) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(
            catalogue_.database(),
            "INSERT OR REPLACE INTO set_decisions(xxh3, keeper, left_alone) VALUES(?,?,?)");
        bindBytes(write, 1, content);
        if (keeper) {
            write.bind(2, *keeper);
        } else {
            write.bind(2);
        }
        write.bind(3, leftAlone ? 1 : 0);
        write.exec();
    });
}

Outcome Findings::forgetDecision(const Checksum128& content) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement erase(catalogue_.database(), "DELETE FROM set_decisions WHERE xxh3 = ?");
        bindBytes(erase, 1, content);
        erase.exec();
    });
}

} // namespace sober
