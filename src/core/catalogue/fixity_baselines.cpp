// What a holding's content was before it became another: for the writers of this folder, see fixity_store.h.
#include "core/catalogue/fixity_rows.h"
#include "core/catalogue/guarded.h"
#include "core/evidence/packed_evidence.h"

namespace sober {
namespace {

void setKind(SQLite::Database& database, HoldingId holding, DriftKind kind) {
    SQLite::Statement write(
        database, "UPDATE drifts SET kind = ?, found = CASE found WHEN 0 THEN ? ELSE found END WHERE "
                  "holding = ?");
    write.bind(1, static_cast<int>(kind));
    write.bind(2, timeNow());
    write.bind(3, holding);
    write.exec();
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

} // namespace sober
