#include "core/catalogue/fixity_store.h"

#include "core/catalogue/fixity_rows.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/holdings.h"

namespace sober {
namespace {

constexpr const char* recordedSelect =
    "SELECT h.id, h.path, h.state, h.size, h.mtime, max(h.first_seen, coalesce(v.verified, 0)), "
    "d.holding IS NOT NULL FROM holdings h LEFT JOIN verified v ON v.holding = h.id LEFT JOIN "
    "drifts d ON d.holding = h.id AND d.accepted = 0 ";

FixityStore::Recorded recordedFrom(SQLite::Statement& row) {
    return {row.getColumn(0).getInt64(),
            bytesOf(row.getColumn(1)),
            static_cast<HoldingState>(row.getColumn(2).getInt()),
            static_cast<std::uint64_t>(row.getColumn(3).getInt64()),
            row.getColumn(4).getInt64(),
            row.getColumn(5).getInt64(),
            row.getColumn(6).getInt() != 0};
}

} // namespace

Outcome FixityStore::eachRecordedOn(VolumeId volume,
                                    const std::function<void(const Recorded&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(recordedSelect) +
                                  "WHERE h.volume = ? AND h.state IN (0, 1) ORDER BY h.path");
        ask.bind(1, volume);
        while (ask.executeStep()) {
            visit(recordedFrom(ask));
        }
    });
}

Result<std::vector<FixityStore::Recorded>> FixityStore::recorded(std::span<const HoldingId> ids) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string(recordedSelect) + "WHERE h.id = ?");
        std::vector<Recorded> recorded;
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                recorded.push_back(recordedFrom(ask));
            }
            ask.reset();
        }
        return recorded;
    });
}

Result<FixityStore::Standing> FixityStore::standingOf(VolumeId volume, Nanoseconds before) const {
    return guarded(catalogue_, [&] {
        // What was first seen since needs no look at its verifications.
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT (SELECT count(*) FROM holdings h INDEXED BY holdings_seen WHERE h.volume = ?1 AND "
            "h.state = 0), (SELECT count(*) FROM holdings h INDEXED BY holdings_seen WHERE h.volume = ?1 AND "
            "h.state = 0 AND h.first_seen <= ?2 AND NOT EXISTS(SELECT 1 FROM verified v WHERE v.holding = "
            "h.id AND v.verified > ?2))");
        ask.bind(1, volume);
        ask.bind(2, before);
        ask.executeStep();
        return Standing{static_cast<std::uint64_t>(ask.getColumn(0).getInt64()),
                        static_cast<std::uint64_t>(ask.getColumn(1).getInt64())};
    });
}

Result<std::vector<Checksum128>> FixityStore::blocksOf(HoldingId holding) const {
    return guarded(catalogue_, [&] { return blocksIn(catalogue_.database(), holding); });
}

Result<std::optional<FixityFacts>> FixityStore::factsOf(HoldingId holding) const {
    return guarded(catalogue_, [&] { return factsIn(catalogue_.database(), holding); });
}

Result<CheckId> FixityStore::beginCheck(const FixityCheck& check) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(
            catalogue_.database(),
            "INSERT INTO checks(volume, began, scope, strong, planned) VALUES(?,?,?,?,?)");
        write.bind(1, check.volume);
        write.bind(2, check.began);
        write.bind(3, static_cast<int>(check.scope));
        write.bind(4, check.strong ? 1 : 0);
        write.bind(5, static_cast<std::int64_t>(check.planned));
        write.exec();
        return CheckId{catalogue_.database().getLastInsertRowid()};
    });
}

Outcome FixityStore::updateCheck(const FixityCheck& check) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(),
                                "UPDATE checks SET ended = ?, planned = ?, checked = ?, bytes = ?, "
                                "drifted = ?, unreadable = ? WHERE id = ?");
        write.bind(1, check.ended);
        int at = 2;
        for (const auto count :
             {check.planned, check.checked, check.bytes, check.drifted, check.unreadable}) {
            write.bind(at++, static_cast<std::int64_t>(count));
        }
        write.bind(at, check.id);
        write.exec();
    });
}

Result<std::vector<FixityCheck>> FixityStore::checks() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT id, volume, began, ended, scope, strong, planned, checked, "
                              "bytes, drifted, unreadable FROM checks ORDER BY began DESC, id DESC");
        std::vector<FixityCheck> checks;
        while (ask.executeStep()) {
            const auto count = [&](int column) {
                return static_cast<std::uint64_t>(ask.getColumn(column).getInt64());
            };
            checks.push_back(
                {ask.getColumn(0).getInt64(), ask.getColumn(1).getInt64(), ask.getColumn(2).getInt64(),
                 ask.getColumn(3).getInt64(), static_cast<CheckScope>(ask.getColumn(4).getInt()),
                 ask.getColumn(5).getInt() != 0, count(6), count(7), count(8), count(9), count(10)});
        }
        return checks;
    });
}

Outcome FixityStore::markVerified(std::span<const HoldingId> holdings, Nanoseconds time) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement write(catalogue_.database(),
                                "INSERT OR REPLACE INTO verified(holding, verified) VALUES(?,?)");
        SQLite::Statement clear(catalogue_.database(), "DELETE FROM unreadable WHERE holding = ?");
        for (const auto id : holdings) {
            write.bind(1, id);
            write.bind(2, time);
            write.exec();
            write.reset();
            clear.bind(1, id);
            clear.exec();
            clear.reset();
        }
        transaction.commit();
    });
}

Outcome FixityStore::noteUnreadable(HoldingId holding,
                                    std::span<const std::pair<std::uint64_t, std::uint64_t>> ranges) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        execFor(catalogue_.database(), "DELETE FROM unreadable WHERE holding = ?", holding);
        SQLite::Statement write(catalogue_.database(),
                                "INSERT INTO unreadable(holding, first, past) VALUES(?,?,?)");
        for (const auto& [first, past] : ranges) {
            write.bind(1, holding);
            write.bind(2, static_cast<std::int64_t>(first));
            write.bind(3, static_cast<std::int64_t>(past));
            write.exec();
            write.reset();
        }
        transaction.commit();
    });
}

Result<std::vector<std::pair<std::uint64_t, std::uint64_t>>>
FixityStore::unreadableOf(HoldingId holding) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT first, past FROM unreadable WHERE holding = ? ORDER BY first");
        ask.bind(1, holding);
        std::vector<std::pair<std::uint64_t, std::uint64_t>> ranges;
        while (ask.executeStep()) {
            ranges.emplace_back(ask.getColumn(0).getInt64(), ask.getColumn(1).getInt64());
        }
        return ranges;
    });
}

Result<std::vector<Drift>> FixityStore::open() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string(driftSelect) +
                                  "CROSS JOIN holdings h ON h.id = d.holding WHERE d.accepted = 0 AND "
                                  "h.state = 0 ORDER BY d.found DESC, d.holding");
        std::vector<Drift> drifts;
        while (ask.executeStep()) {
            drifts.push_back(driftFrom(ask));
        }
        return drifts;
    });
}

Result<std::optional<Drift>> FixityStore::of(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<Drift> {
        SQLite::Statement ask(catalogue_.database(), std::string(driftSelect) + "WHERE d.holding = ?");
        ask.bind(1, holding);
        return ask.executeStep() ? std::optional(driftFrom(ask)) : std::nullopt;
    });
}

Result<std::vector<HoldingId>> FixityStore::driftedFrom(const Checksum128& baseline) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT d.holding FROM drifts d JOIN holdings h ON h.id = d.holding "
                              "WHERE d.xxh3 = ? AND h.state = 0 ORDER BY d.holding");
        bindBytes(ask, 1, baseline);
        std::vector<HoldingId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Outcome FixityStore::noteListedOtherwise(HoldingId holding, const std::optional<Sha256>& listed,
                                         DriftKind kind) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        execFor(catalogue_.database(), "DELETE FROM drifts WHERE holding = ? AND accepted != 0", holding);
        SQLite::Statement write(catalogue_.database(),
                                "INSERT OR IGNORE INTO drifts(holding, kind, found, size, mtime, xxh3, "
                                "sha256, codec, sample_rate, channels, "
                                "bit_depth, duration, title, artist, album, track, date, accepted, reason) "
                                "SELECT id, ?2, ?3, size, mtime, "
                                "zeroblob(16), ?4, codec, sample_rate, channels, bit_depth, duration, title, "
                                "artist, album, track, date, 0, '' "
                                "FROM holdings WHERE id = ?1");
        write.bind(1, holding);
        write.bind(2, static_cast<int>(kind));
        write.bind(3, timeNow());
        if (listed) {
            write.bindNoCopy(4, listed->data(), static_cast<int>(listed->size()));
        }
        write.exec();
        SQLite::Statement stale(catalogue_.database(), "UPDATE freshness SET findings_stale = 1");
        stale.exec();
        transaction.commit();
    });
}

Result<std::vector<Holding>> FixityStore::carriersOf(const Drift& drift) const {
    const Holdings holdings(catalogue_);
    return drift.isFullyKnown() ? holdings.carrying(drift.recorded.content)
           : drift.sha256       ? holdings.carrying(*drift.sha256)
                                : Result<std::vector<Holding>>(std::vector<Holding>{});
}

Outcome FixityStore::noteOutside(const BytePath& path, const Checksum128& content) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(),
                                "INSERT OR REPLACE INTO outside_copies(path, xxh3) VALUES(?,?)");
        bindBytes(write, 1, path);
        bindBytes(write, 2, content);
        write.exec();
    });
}

Result<std::vector<BytePath>> FixityStore::outsideCopiesOf(const Checksum128& content) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT path FROM outside_copies WHERE xxh3 = ? ORDER BY path");
        bindBytes(ask, 1, content);
        std::vector<BytePath> paths;
        while (ask.executeStep()) {
            paths.push_back(bytesOf(ask.getColumn(0)));
        }
        return paths;
    });
}

Result<std::unordered_map<std::uint64_t, std::vector<Checksum128>>> FixityStore::lost() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT d.size, d.xxh3 FROM drifts d JOIN holdings h ON h.id = d.holding "
                              "WHERE d.accepted = 0 AND h.state IN (0, 1) UNION "
                              "SELECT size, xxh3 FROM holdings WHERE state = 1");
        std::unordered_map<std::uint64_t, std::vector<Checksum128>> lost;
        while (ask.executeStep()) {
            lost[static_cast<std::uint64_t>(ask.getColumn(0).getInt64())].push_back(
                checksumOf(ask.getColumn(1)));
        }
        return lost;
    });
}

Outcome FixityStore::accept(HoldingId holding, const std::string& reason) const {
    return guarded(catalogue_, [&]() -> Outcome {
        SQLite::Statement write(
            catalogue_.database(),
            "UPDATE drifts SET accepted = ?, reason = ? WHERE holding = ? AND accepted = 0");
        write.bind(1, timeNow());
        write.bind(2, reason);
        write.bind(3, holding);
        return write.exec() == 1
                   ? done()
                   : Outcome(Error{Cause::invalid, {}, "It is what was recorded: nothing to accept."});
    });
}

Outcome FixityStore::withdrawAcceptance(HoldingId holding) const {
    return guarded(catalogue_, [&] {
        execFor(catalogue_.database(), "UPDATE drifts SET accepted = 0, reason = '' WHERE holding = ?",
                holding);
    });
}

Result<int> FixityStore::periodOf(VolumeId volume) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT check_days FROM volumes WHERE id = ?");
        ask.bind(1, volume);
        return ask.executeStep() ? ask.getColumn(0).getInt() : 0;
    });
}

Outcome FixityStore::setPeriod(VolumeId volume, int days) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement write(catalogue_.database(), "UPDATE volumes SET check_days = ? WHERE id = ?");
        write.bind(1, days);
        write.bind(2, volume);
        write.exec();
    });
}

} // namespace sober
