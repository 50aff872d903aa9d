#include "core/catalogue/finding_rows.h"
#include "core/catalogue/findings.h"
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

void writeSets(SQLite::Database& database, std::vector<CopySet> before, std::vector<CopySet> after) {
    SQLite::Statement remove(database, "DELETE FROM copy_sets WHERE id = ?");
    SQLite::Statement insert(database, "INSERT INTO copy_sets VALUES(?,?,?,?,?,?,?,?,?)");
    writeDifference(
        std::move(before), std::move(after),
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

void writeMembers(SQLite::Database& database, std::vector<Membership> before, std::vector<Membership> after) {
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
    writeDifference(std::move(before), std::move(after), with(remove), with(insert));
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
    auto before = allSets(database);
    auto membersBefore = allMembers(database);
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
    writeSets(database, std::move(before), std::move(after));
    writeMembers(database, std::move(membersBefore), std::move(members));
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

} // namespace sober
