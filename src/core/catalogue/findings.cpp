#include "core/catalogue/findings.h"

#include "core/catalogue/filter_clause.h"
#include "core/catalogue/finding_rows.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"

namespace sober {
namespace {

/// A condition on the members of a set `s`, as holdings `h`.
std::string someMember(const std::string& condition, const std::string& joined = {}) {
    return "EXISTS(SELECT 1 FROM set_members m JOIN holdings h ON h.id = m.holding " + joined +
           " WHERE m.set_id = s.id AND h.state = 0 AND " + condition + ")";
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
        const KeptStatement ask(catalogue_,
                                std::string("SELECT ") + setColumns + " FROM copy_sets s WHERE s.id = ?");
        for (const auto id : ids) {
            ask->bind(1, id);
            if (ask->executeStep()) {
                found.push_back(setFrom(*ask));
            }
            ask->reset();
        }
        return found;
    });
}

Result<std::optional<CopySet>> Findings::setOf(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<CopySet> {
        const KeptStatement ask(
            catalogue_, std::string("SELECT ") + setColumns +
                            " FROM set_members m JOIN copy_sets s ON s.id = m.set_id WHERE m.holding = ? "
                            "AND s.sameness <> " +
                            std::to_string(static_cast<int>(Sameness::tagsOnly)));
        ask->bind(1, holding);
        return ask->executeStep() ? std::optional(setFrom(*ask)) : std::nullopt;
    });
}

Result<std::vector<HoldingId>> Findings::membersOf(SetId set) const {
    return guarded(catalogue_, [&] {
        const KeptStatement ask(catalogue_,
                                "SELECT h.id FROM set_members m JOIN holdings h ON h.id = m.holding WHERE "
                                "m.set_id = ? AND h.state = 0 ORDER BY h.volume, h.path");
        ask->bind(1, set);
        std::vector<HoldingId> members;
        while (ask->executeStep()) {
            members.push_back(ask->getColumn(0).getInt64());
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
        const KeptStatement ask(catalogue_, "SELECT keeper, left_alone FROM set_decisions WHERE xxh3 = ?");
        bindBytes(*ask, 1, set.content);
        if (ask->executeStep()) {
            if (!ask->getColumn(0).isNull()) {
                decision.keeper = ask->getColumn(0).getInt64();
            }
            decision.leftAlone = ask->getColumn(1).getInt() != 0;
        }
        const KeptStatement waiting(catalogue_,
                                    "SELECT count(*) FROM set_members m JOIN holdings h ON h.id = m.holding "
                                    "JOIN docket d ON d.holding "
                                    "= h.id WHERE m.set_id = ? AND h.state = 0 AND d.kind = 'retire'");
        waiting->bind(1, set.id);
        waiting->executeStep();
        decision.onDocket = countAt(*waiting, 0);
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
