#include "core/catalogue/fixity_rows.h"

#include "core/catalogue/guarded.h"
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

} // namespace

std::vector<Checksum128> blocksIn(SQLite::Database& database, HoldingId holding) {
    SQLite::Statement ask(database, "SELECT xxh3 FROM blocks WHERE holding = ?");
    ask.bind(1, holding);
    return ask.executeStep() ? blocksFrom(bytesOf(ask.getColumn(0))) : std::vector<Checksum128>{};
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

void execFor(SQLite::Database& database, const char* sql, HoldingId holding) {
    SQLite::Statement statement(database, sql);
    statement.bind(1, holding);
    statement.exec();
}

} // namespace sober
