#include "core/catalogue/volume_leaving.h"

#include "core/base/text.h"
#include "core/catalogue/excerpt_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/guarded.h"

#include <fmt/format.h>

namespace sober {
namespace {

std::uint64_t countOf(SQLite::Database& database, const std::string& sql, VolumeId volume) {
    SQLite::Statement ask(database, sql);
    ask.bind(1, volume);
    ask.executeStep();
    return countAt(ask, 0);
}

/// Those of a volume, in a subquery.
constexpr const char* itsHoldings = "(SELECT id FROM holdings WHERE volume = ?1)";

/// What was noted of a volume's holdings and of itself. What the ledger, transfers and finds speak of stays.
constexpr const char* forgetting[] = {
    "DELETE FROM better_copies WHERE holding IN $ OR better IN $",
    "DELETE FROM set_members WHERE holding IN $",
    "UPDATE set_decisions SET keeper = NULL WHERE keeper IN $",
    "DELETE FROM evidence WHERE holding IN $",
    "DELETE FROM packed_evidence WHERE holding IN $",
    "DELETE FROM blocks WHERE holding IN $",
    "DELETE FROM drifts WHERE holding IN $",
    "DELETE FROM verified WHERE holding IN $",
    "DELETE FROM unreadable WHERE holding IN $",
    "DELETE FROM search_pending WHERE holding IN $",
    "DELETE FROM former_places WHERE volume = ?1 OR holding IN $",
    "UPDATE list_references SET holding = NULL WHERE holding IN $",
    "UPDATE finds SET holding = NULL WHERE holding IN $",
    "DELETE FROM survey_changes WHERE volume = ?1 OR holding IN $",
    "DELETE FROM survey_errors WHERE volume = ?1",
    "DELETE FROM passed_over WHERE volume = ?1",
    "DELETE FROM volume_figures WHERE volume = ?1",
    "DELETE FROM folder_figures WHERE volume = ?1",
    "DELETE FROM inner_mounts WHERE volume = ?1",
    "DELETE FROM policy_preferences WHERE volume = ?1",
    // Players and their lists are no part of the volume: they are read where it was, whenever something is
    // there.
    "UPDATE OR IGNORE player_places SET volume = 0, path = CAST((SELECT rtrim(root, '/') FROM volumes "
    "WHERE id = ?1) || CASE path WHEN x'' THEN '' ELSE '/' || path END AS BLOB) WHERE volume = ?1",
    "UPDATE OR IGNORE lists SET volume = 0, path = CAST((SELECT rtrim(root, '/') FROM volumes WHERE id = ?1) "
    "|| '/' || path AS BLOB) WHERE volume = ?1",
    "INSERT INTO search_index(search_index, rowid, text) SELECT 'delete', holding, text FROM search_texts "
    "WHERE holding IN $",
    "DELETE FROM search_texts WHERE holding IN $",
    "DELETE FROM holdings WHERE volume = ?1 AND id NOT IN (SELECT holding FROM ledger_actions WHERE holding "
    "IS NOT NULL) AND id NOT IN (SELECT source FROM transfer_items)",
    "UPDATE holdings SET state = 4 WHERE volume = ?1",
    // Labels are single: another volume may take this one's.
    "UPDATE volumes SET forgotten = 1, at_hand = 0, filesystem = '', label = label || ' (forgotten ' || id "
    "|| ')' WHERE id = ?1",
};

std::string withHoldings(std::string sql) {
    for (auto at = sql.find('$'); at != std::string::npos; at = sql.find('$')) {
        sql.replace(at, 1, itsHoldings);
    }
    return sql;
}

} // namespace

Result<VolumeLeaving> leavingOf(const Catalogue& catalogue, VolumeId volume) {
    return guarded(catalogue, [&] {
        auto& database = catalogue.database();
        VolumeLeaving leaving;
        SQLite::Statement all(
            database, "SELECT count(*), coalesce(sum(size), 0) FROM holdings WHERE volume = ? AND state = 0");
        all.bind(1, volume);
        all.executeStep();
        leaving.holdings = countAt(all, 0);
        leaving.bytes = countAt(all, 1);
        leaving.heldElsewhere =
            countOf(database,
                    "SELECT count(DISTINCT m.holding) FROM holdings h JOIN set_members m ON m.holding = h.id "
                    "JOIN copy_sets s ON "
                    "s.id = m.set_id WHERE h.volume = ?1 AND h.state = 0 AND s.sameness <> " +
                        std::to_string(static_cast<int>(Sameness::tagsOnly)) +
                        " AND EXISTS(SELECT 1 FROM set_members o JOIN holdings k ON k.id = o.holding WHERE "
                        "o.set_id = "
                        "m.set_id AND k.state = 0 AND k.volume <> ?1)",
                    volume);
        leaving.references = countOf(
            database, withHoldings("SELECT count(*) FROM list_references WHERE holding IN $"), volume);
        leaving.lists = countOf(database, "SELECT count(*) FROM lists WHERE volume = ?1", volume);
        leaving.canBeUndone = countOf(
            database, withHoldings("SELECT count(*) FROM ledger_actions WHERE step = 2 AND holding IN $"),
            volume);
        leaving.waiting =
            countOf(database,
                    withHoldings("SELECT count(*) FROM ledger_actions WHERE step IN (1, 4) AND holding IN $"),
                    volume);
        leaving.transfers = countOf(
            database,
            withHoldings(
                "SELECT count(*) FROM transfers t WHERE (t.state < 3 AND t.volume = ?1) OR (t.state < 2 AND "
                "EXISTS(SELECT 1 FROM transfer_items i WHERE i.transfer = t.id AND i.source IN $))"),
            volume);
        leaving.onDocket =
            countOf(database, withHoldings("SELECT count(*) FROM docket WHERE holding IN $"), volume);
        return leaving;
    });
}

std::string whyNotForgotten(const Volume& volume, const VolumeLeaving& leaving) {
    const auto sentence = [&](const std::string& whilst, const char* first) {
        return fmt::format("{} cannot be forgotten while {}. {}", volume.label, whilst, first);
    };
    return leaving.onDocket > 0
               ? sentence(fmt::format("the docket holds {} about it", counted(leaving.onDocket, "action")),
                          "Carry them out or take them off first.")
           : leaving.transfers > 0
               ? sentence(counted(leaving.transfers, "transfer from it or to it is not at its end",
                                  "transfers from it or to it are not at their end"),
                          "Run them to their end or forget them first.")
           : leaving.waiting > 0 ? sentence(counted(leaving.waiting, "action waits there to be settled",
                                                    "actions wait there to be settled"),
                                            "The next work on it does that.")
                                 : std::string();
}

Outcome forgetVolume(const Catalogue& catalogue, const Volume& volume) {
    const auto leaving = leavingOf(catalogue, volume.id);
    RETURN_IF_FAILED(leaving);
    if (auto why = whyNotForgotten(volume, *leaving); !why.empty()) {
        return refusedError(volume.root, std::move(why));
    }
    const auto forgotten = guarded(catalogue, [&] {
        auto& database = catalogue.database();
        WritingTransaction transaction(database);
        for (const auto* sql : forgetting) {
            SQLite::Statement forget(database, withHoldings(sql));
            forget.bind(1, volume.id);
            forget.exec();
        }
        database.exec("UPDATE freshness SET findings_stale = 1");
        transaction.commit();
    });
    return forgotten ? ExcerptStore(catalogue).tidy() : forgotten;
}

} // namespace sober
