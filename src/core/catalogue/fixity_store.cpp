#include "core/catalogue/fixity_store.h"

#include "core/catalogue/guarded.h"
#include "core/catalogue/holdings.h"
#include "core/evidence/packed_evidence.h"

namespace sober {
namespace {

std::vector<Checksum128> blocksFrom(const BytePath& packed) {
    std::vector<Checksum128> blocks(packed.size() / sizeof(Checksum128::bytes));
    for (std::size_t at = 0; at < blocks.size(); ++at) {
        std::copy_n(packed.begin() + static_cast<std::ptrdiff_t>(at * 16), 16, blocks[at].bytes.begin());
    }
    return blocks;
}

std::vector<Checksum128> blocksIn(SQLite::Database& database, HoldingId holding) {
    SQLite::Statement ask(database, "SELECT xxh3 FROM blocks WHERE holding = ?");
    ask.bind(1, holding);
    return ask.executeStep() ? blocksFrom(bytesOf(ask.getColumn(0))) : std::vector<Checksum128>{};
}

template <std::size_t Length>
std::optional<std::array<std::uint8_t, Length>> digestFrom(const SQLite::Column& column) {
    const BytePath bytes = column.isNull() ? BytePath() : bytesOf(column);
    std::array<std::uint8_t, Length> digest{};
    if (bytes.size() != Length) {
        return std::nullopt;
    }
    std::copy_n(bytes.begin(), Length, digest.begin());
    return digest;
}

void addEvidence(SQLite::Database& database, HoldingId holding, FixityFacts& facts) {
    SQLite::Statement ask(database, "SELECT packed, fingerprint FROM packed_evidence WHERE holding = ?");
    ask.bind(1, holding);
    if (!ask.executeStep()) {
        return;
    }
    if (const auto evidence = unpackEvidence(bytesOf(ask.getColumn(0)))) {
        facts.payload = evidence->payload;
        facts.samples = evidence->samplesMd5;
        facts.seconds = evidence->seconds;
        facts.fingerprint = unpackFingerprint(bytesOf(ask.getColumn(1))).value_or(Fingerprint{});
    }
}

/// Codec, rate, channels, depth, length and the five tags, from a column on.
void readClaims(SQLite::Statement& row, int column, FixityFacts& facts) {
    facts.claims.codec = row.getColumn(column++).getString();
    facts.claims.sampleRate = row.getColumn(column++).getInt();
    facts.claims.channels = row.getColumn(column++).getInt();
    facts.claims.bitDepth = row.getColumn(column++).getInt();
    facts.claims.duration = row.getColumn(column++).getDouble();
    for (auto* tag :
         {&facts.tags.title, &facts.tags.artist, &facts.tags.album, &facts.tags.track, &facts.tags.date}) {
        *tag = row.getColumn(column++).getString();
    }
}

std::optional<FixityFacts> factsIn(SQLite::Database& database, HoldingId holding) {
    SQLite::Statement ask(
        database,
        "SELECT size, mtime, xxh3, codec, sample_rate, channels, bit_depth, duration, title, artist, "
        "album, track, date FROM holdings WHERE id = ?");
    ask.bind(1, holding);
    if (!ask.executeStep()) {
        return std::nullopt;
    }
    FixityFacts facts;
    facts.size = static_cast<std::uint64_t>(ask.getColumn(0).getInt64());
    facts.mtime = ask.getColumn(1).getInt64();
    facts.content = checksumOf(ask.getColumn(2));
    readClaims(ask, 3, facts);
    facts.blocks = blocksIn(database, holding);
    addEvidence(database, holding, facts);
    return facts;
}

constexpr const char* driftSelect = "SELECT d.holding, d.kind, d.found, d.size, d.mtime, d.xxh3, d.sha256, "
                                    "d.blocks, d.payload, d.samples_md5, "
                                    "d.fingerprint, d.accepted, d.reason, d.codec, d.sample_rate, "
                                    "d.channels, d.bit_depth, d.duration, d.title, "
                                    "d.artist, d.album, d.track, d.date FROM drifts d ";

Drift driftFrom(SQLite::Statement& row) {
    Drift drift;
    drift.holding = row.getColumn(0).getInt64();
    drift.kind = static_cast<DriftKind>(row.getColumn(1).getInt());
    drift.found = row.getColumn(2).getInt64();
    drift.recorded.size = static_cast<std::uint64_t>(row.getColumn(3).getInt64());
    drift.recorded.mtime = row.getColumn(4).getInt64();
    drift.recorded.content = checksumOf(row.getColumn(5));
    drift.sha256 = digestFrom<32>(row.getColumn(6));
    drift.recorded.blocks = blocksFrom(bytesOf(row.getColumn(7)));
    if (const auto payload = digestFrom<16>(row.getColumn(8))) {
        drift.recorded.payload = Checksum128{*payload};
    }
    drift.recorded.samples = digestFrom<16>(row.getColumn(9));
    if (!row.getColumn(10).isNull()) {
        drift.recorded.fingerprint = unpackFingerprint(bytesOf(row.getColumn(10))).value_or(Fingerprint{});
    }
    readClaims(row, 13, drift.recorded);
    drift.recorded.seconds = drift.recorded.payload ? drift.recorded.claims.duration : 0;
    drift.accepted = row.getColumn(11).getInt64();
    drift.reason = row.getColumn(12).getString();
    return drift;
}

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

void setKind(SQLite::Database& database, HoldingId holding, DriftKind kind) {
    SQLite::Statement write(
        database, "UPDATE drifts SET kind = ?, found = CASE found WHEN 0 THEN ? ELSE found END WHERE "
                  "holding = ?");
    write.bind(1, static_cast<int>(kind));
    write.bind(2, timeNow());
    write.bind(3, holding);
    write.exec();
}

void execFor(SQLite::Database& database, const char* sql, HoldingId holding) {
    SQLite::Statement statement(database, sql);
    statement.bind(1, holding);
    statement.exec();
}

} // namespace

void keepBaseline(SQLite::Database& database, HoldingId holding, const FileRecord& now) {
    const auto last = factsIn(database, holding);
    std::optional<Drift> known;
    {
        SQLite::Statement ask(database, std::string(driftSelect) + "WHERE d.holding = ? AND d.accepted = 0");
        ask.bind(1, holding);
        if (ask.executeStep()) {
            known = driftFrom(ask);
        }
    }
    if (!last || (!known && last->content == now.checksums.file)) {
        return;
    }
    if (known && known->isBaseline(now.checksums)) {
        execFor(database, "DELETE FROM drifts WHERE holding = ?", holding);
        return;
    }
    if (!known) {
        execFor(
            database,
            "INSERT OR REPLACE INTO drifts(holding, kind, found, size, mtime, xxh3, sha256, blocks, payload, "
            "samples_md5, fingerprint, codec, sample_rate, channels, bit_depth, duration, title, artist, "
            "album, track, "
            "date, accepted, reason) SELECT h.id, 0, 0, h.size, h.mtime, h.xxh3, h.sha256, coalesce(b.xxh3, "
            "x''), "
            "e.payload, e.samples_md5, p.fingerprint, h.codec, h.sample_rate, h.channels, h.bit_depth, "
            "h.duration, "
            "h.title, h.artist, h.album, h.track, h.date, 0, '' FROM holdings h LEFT JOIN blocks b ON "
            "b.holding = h.id "
            "LEFT JOIN evidence e ON e.holding = h.id LEFT JOIN packed_evidence p ON p.holding = h.id WHERE "
            "h.id = ?",
            holding);
    }
    if (!known || known->isFullyKnown()) {
        setKind(database, holding, driftKindOf(known ? known->recorded : *last, sober::factsOf(now)));
    }
}

void giveBaseline(SQLite::Database& database, HoldingId holding, const FileRecord& before) {
    const auto now = factsIn(database, holding);
    if (!now || now->content == before.checksums.file) {
        return;
    }
    const auto facts = factsOf(before);
    SQLite::Statement write(
        database,
        "INSERT OR IGNORE INTO drifts(holding, kind, found, size, mtime, xxh3, sha256, blocks, payload, "
        "samples_md5, fingerprint, codec, sample_rate, channels, bit_depth, duration, title, artist, album, "
        "track, date, accepted, reason) VALUES(?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,0,'')");
    const auto bindDigest = [&write](int at, const auto& digest) {
        if (digest) {
            write.bind(at, digest->data(), static_cast<int>(digest->size()));
        }
    };
    write.bind(1, holding);
    write.bind(2, static_cast<int>(driftKindOf(facts, *now)));
    write.bind(3, timeNow());
    write.bind(4, static_cast<std::int64_t>(facts.size));
    write.bind(5, facts.mtime);
    bindBytes(write, 6, facts.content);
    bindDigest(7, before.checksums.sha256);
    bindBytes(write, 8, facts.blocks);
    if (facts.payload) {
        bindBytes(write, 9, *facts.payload);
        bindBytes(write, 11, packFingerprint(facts.fingerprint));
    }
    bindDigest(10, facts.samples);
    write.bind(12, facts.claims.codec);
    write.bind(13, facts.claims.sampleRate);
    write.bind(14, facts.claims.channels);
    write.bind(15, facts.claims.bitDepth);
    write.bind(16, facts.claims.duration);
    int at = 17;
    for (const auto* tag :
         {&facts.tags.title, &facts.tags.artist, &facts.tags.album, &facts.tags.track, &facts.tags.date}) {
        write.bind(at++, *tag);
    }
    write.exec();
}

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
