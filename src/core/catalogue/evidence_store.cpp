#include "core/catalogue/evidence_store.h"

#include "core/base/inner_path.h"
#include "core/catalogue/filter_clause.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"
#include "core/catalogue/table_difference.h"
#include "core/evidence/packed_evidence.h"

#include <algorithm>
#include <tuple>

namespace sober {
namespace {

/// Transcoded before doubtful before undetermined before genuine; of each the surest first, and those alike
/// as they were catalogued. Sorted here: their paths would have to be fetched and compared else.
void putWorstFirst(std::vector<ClaimPoint>& points) {
    std::ranges::sort(points, {}, [](const ClaimPoint& point) {
        const int rank = point.verdict == VerdictClass::transcoded     ? 0
                         : point.verdict == VerdictClass::doubtful     ? 1
                         : point.verdict == VerdictClass::undetermined ? 2
                                                                       : 3;
        return std::tuple(rank, -point.confidence, point.holding);
    });
}

/// Where only examined holdings can be meant, the search begins with what was examined (SQLite keeps the
/// order of a cross join): many more may never have been.
std::string meantSql(const std::string& columns, const HoldingFilter& filter, const FilterClause& clause,
                     bool examinedOnly = false) {
    const bool isExamined = examinedOnly || !filter.verdicts.empty();
    return "SELECT " + columns +
           (isExamined && clause.meansFew() ? " FROM holdings h CROSS JOIN evidence e ON e.holding = h.id"
            : isExamined                    ? " FROM evidence e CROSS JOIN holdings h ON h.id = e.holding"
                                            : " FROM holdings h LEFT JOIN evidence e ON e.holding = h.id") +
           " WHERE " + clause.present() + " AND " + clause.sql();
}

std::unordered_set<HoldingId> idsFrom(SQLite::Statement& ask) {
    std::unordered_set<HoldingId> ids;
    while (ask.executeStep()) {
        ids.insert(ask.getColumn(0).getInt64());
    }
    return ids;
}

std::optional<Md5> samplesOf(const SQLite::Column& column) {
    const BytePath bytes = column.isNull() ? BytePath() : bytesOf(column);
    Md5 md5{};
    if (bytes.size() != md5.size()) {
        return std::nullopt;
    }
    std::ranges::copy(bytes, md5.begin());
    return md5;
}

void bindSamples(SQLite::Statement& statement, int index, const std::optional<Md5>& md5) {
    if (md5) {
        statement.bind(index, md5->data(), static_cast<int>(md5->size()));
    } else {
        statement.bind(index);
    }
}

} // namespace

Result<std::optional<Evidence>> EvidenceStore::of(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<Evidence> {
        const KeptStatement ask(catalogue_,
                                "SELECT packed, fingerprint FROM packed_evidence WHERE holding = ?");
        ask->bind(1, holding);
        if (!ask->executeStep()) {
            return std::nullopt;
        }
        auto evidence = unpackEvidence(bytesOf(ask->getColumn(0)));
        if (evidence) {
            evidence->fingerprint = unpackFingerprint(bytesOf(ask->getColumn(1))).value_or(Fingerprint{});
        }
        return evidence;
    });
}

Result<std::optional<EvidenceStore::Judged>> EvidenceStore::judged(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<Judged> {
        const KeptStatement ask(catalogue_, "SELECT verdict, sound FROM evidence WHERE holding = ?");
        ask->bind(1, holding);
        if (!ask->executeStep()) {
            return std::nullopt;
        }
        return Judged{static_cast<VerdictClass>(ask->getColumn(0).getInt()), ask->getColumn(1).getInt() != 0};
    });
}

Result<std::vector<ClaimPoint>> EvidenceStore::points(const HoldingFilter& filter) const {
    return guarded(catalogue_, [&] {
        const FilterClause clause(catalogue_.database(), filter);
        SQLite::Statement ask(
            catalogue_.database(),
            meantSql(std::string("h.id, e.verdict, ") + acceptedSql +
                         ", h.lossless, h.bit_depth, h.sample_rate, h.bitrate, e.cutoff, e.confidence",
                     filter, clause, true));
        clause.bindTo(ask, 1);
        std::vector<ClaimPoint> points;
        while (ask.executeStep()) {
            points.push_back({ask.getColumn(0).getInt64(),
                              static_cast<VerdictClass>(ask.getColumn(1).getInt()),
                              ask.getColumn(2).getInt() != 0, ask.getColumn(3).getInt() != 0,
                              ask.getColumn(4).getInt(), ask.getColumn(5).getInt(),
                              ask.getColumn(6).getInt64(), static_cast<float>(ask.getColumn(7).getDouble()),
                              static_cast<float>(ask.getColumn(8).getDouble())});
        }
        putWorstFirst(points);
        return points;
    });
}

Result<std::vector<HoldingId>> EvidenceStore::meant(const HoldingFilter& filter) const {
    return guarded(catalogue_, [&] {
        const FilterClause clause(catalogue_.database(), filter);
        SQLite::Statement ask(catalogue_.database(),
                              meantSql("h.id", filter, clause) + " ORDER BY h.volume, h.path");
        clause.bindTo(ask, 1);
        std::vector<HoldingId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Result<std::uint64_t> EvidenceStore::count(const HoldingFilter& filter) const {
    return guarded(catalogue_, [&] {
        const FilterClause clause(catalogue_.database(), filter);
        SQLite::Statement ask(catalogue_.database(), meantSql("count(*)", filter, clause));
        clause.bindTo(ask, 1);
        ask.executeStep();
        return static_cast<std::uint64_t>(ask.getColumn(0).getInt64());
    });
}

Result<std::vector<std::string>> EvidenceStore::codecs() const {
    return guarded(catalogue_, [&] {
        // From each to the next by the index: as many steps as there are codecs.
        SQLite::Statement ask(
            catalogue_.database(),
            "WITH RECURSIVE each(codec) AS (SELECT min(codec) FROM holdings UNION ALL SELECT (SELECT "
            "min(h.codec) FROM holdings h WHERE h.codec > each.codec) FROM each WHERE each.codec IS NOT "
            "NULL) SELECT codec FROM each WHERE codec IS NOT NULL AND EXISTS(SELECT 1 FROM holdings h JOIN "
            "evidence e ON e.holding = h.id WHERE h.codec = each.codec AND h.state = 0) ORDER BY 1");
        std::vector<std::string> codecs;
        while (ask.executeStep()) {
            codecs.push_back(ask.getColumn(0).getString());
        }
        return codecs;
    });
}

Result<std::unordered_set<HoldingId>> EvidenceStore::unsound() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), "SELECT holding FROM evidence WHERE sound = 0");
        return idsFrom(ask);
    });
}

Result<std::vector<HoldingId>> EvidenceStore::flawed() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT e.holding FROM evidence e CROSS JOIN holdings h ON h.id = e.holding WHERE "
            "(e.sound = 0 OR e.remarks > 0) AND h.state = 0 AND NOT EXISTS(SELECT 1 FROM drifts d "
            "WHERE d.holding = e.holding AND d.accepted = 0) ORDER BY e.sound, h.volume, h.path");
        std::vector<HoldingId> ids;
        while (ask.executeStep()) {
            ids.push_back(ask.getColumn(0).getInt64());
        }
        return ids;
    });
}

Result<std::unordered_set<HoldingId>> EvidenceStore::contradicted() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT e.holding FROM evidence e WHERE " + contradictedSql);
        return idsFrom(ask);
    });
}

Result<std::vector<std::pair<VolumeId, std::uint64_t>>> EvidenceStore::examinedByVolume() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT h.volume, count(*) FROM evidence e CROSS JOIN holdings h ON h.id = e.holding "
            "WHERE h.state = 0 GROUP BY h.volume");
        std::vector<std::pair<VolumeId, std::uint64_t>> counts;
        while (ask.executeStep()) {
            counts.emplace_back(ask.getColumn(0).getInt64(),
                                static_cast<std::uint64_t>(ask.getColumn(1).getInt64()));
        }
        return counts;
    });
}

namespace {

constexpr int comparableColumns = 17;

/// Selects what `comparableFrom` reads, from holdings `h` and their evidence `e`.
std::string comparableSelect(const FilterClause& isUnderLimit) {
    return "SELECT h.id, h.volume, h.path, h.title, h.artist, h.codec, h.lossless, h.bitrate, h.duration, " +
           isUnderLimit.sql() + ", e.verdict, e.sound, h.xxh3, e.payload, e.samples_md5, h.size, e.silent";
}

FilterClause underLimitClause(SQLite::Database& database) {
    HoldingFilter low;
    low.underLimit = true;
    low.acceptedToo = true;
    return {database, low};
}

ComparableHolding comparableFrom(SQLite::Statement& ask) {
    ComparableHolding row{ask.getColumn(0).getInt64(),
                          ask.getColumn(1).getInt64(),
                          ask.getColumn(3).getString(),
                          !ask.getColumn(3).getString().empty(),
                          ask.getColumn(4).getString(),
                          ask.getColumn(5).getString(),
                          ask.getColumn(6).getInt() != 0,
                          ask.getColumn(7).getInt64(),
                          ask.getColumn(8).getDouble(),
                          ask.getColumn(9).getInt() != 0,
                          static_cast<VerdictClass>(ask.getColumn(10).getInt()),
                          ask.getColumn(11).getInt() != 0,
                          checksumOf(ask.getColumn(12)),
                          static_cast<std::uint64_t>(ask.getColumn(15).getInt64()),
                          checksumOf(ask.getColumn(13)),
                          samplesOf(ask.getColumn(14)),
                          ask.getColumn(16).getInt() != 0};
    const BytePath path = bytesOf(ask.getColumn(2));
    row.isInside = isInsideArchive(path);
    if (row.title.empty()) {
        const auto name = nameOf(path);
        row.title = std::string(name.substr(0, name.rfind('.')));
    }
    return row;
}

} // namespace

Outcome EvidenceStore::eachComparable(const std::function<void(const ComparableHolding&)>& visit) const {
    return guarded(catalogue_, [&] {
        const auto clause = underLimitClause(catalogue_.database());
        SQLite::Statement ask(catalogue_.database(),
                              comparableSelect(clause) +
                                  " FROM holdings h JOIN evidence e ON e.holding = h.id WHERE h.state = 0");
        clause.bindTo(ask, 1);
        while (ask.executeStep()) {
            visit(comparableFrom(ask));
        }
    });
}

Outcome
EvidenceStore::eachSet(const std::function<void(const std::vector<ComparableHolding>&)>& visit) const {
    return guarded(catalogue_, [&] {
        const auto clause = underLimitClause(catalogue_.database());
        SQLite::Statement ask(
            catalogue_.database(),
            comparableSelect(clause) +
                ", s.id FROM copy_sets s CROSS JOIN set_members m ON m.set_id = s.id CROSS JOIN "
                "holdings h ON h.id = m.holding AND h.state = 0 CROSS JOIN evidence e ON "
                "e.holding = h.id WHERE s.sameness <> " +
                std::to_string(static_cast<int>(Sameness::tagsOnly)) + " ORDER BY s.id");
        clause.bindTo(ask, 1);
        std::vector<ComparableHolding> members;
        std::int64_t set = 0;
        while (ask.executeStep()) {
            if (const auto id = ask.getColumn(comparableColumns).getInt64(); id != set) {
                visit(members);
                members.clear();
                set = id;
            }
            members.push_back(comparableFrom(ask));
        }
        visit(members);
    });
}

Result<bool> EvidenceStore::isUnderLimit(HoldingId holding) const {
    return guarded(catalogue_, [&] {
        HoldingFilter low;
        low.underLimit = true;
        low.acceptedToo = true;
        const FilterClause clause(catalogue_.database(), low);
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT 1 FROM holdings h WHERE " + clause.sql() + " AND h.id = ?");
        clause.bindTo(ask, 1);
        ask.bind(1, holding); // the clause itself binds nothing
        return ask.executeStep();
    });
}

Result<std::vector<std::string>>
EvidenceStore::packedFingerprints(std::span<const HoldingId> holdings) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT fingerprint FROM packed_evidence WHERE holding = ?");
        std::vector<std::string> packed(holdings.size());
        for (std::size_t at = 0; at < holdings.size(); ++at) {
            ask.bind(1, holdings[at]);
            if (ask.executeStep()) {
                packed[at] = bytesOf(ask.getColumn(0));
            }
            ask.reset();
        }
        return packed;
    });
}

Outcome EvidenceStore::replaceBetterCopies(std::span<const BetterCopies> found) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        using Row = std::array<std::int64_t, 3>; // holding, better, rank
        SQLite::Statement query(catalogue_.database(), "SELECT holding, better, rank FROM better_copies");
        std::vector<Row> before;
        while (query.executeStep()) {
            before.push_back({query.getColumn(0).getInt64(), query.getColumn(1).getInt64(),
                              query.getColumn(2).getInt64()});
        }
        std::vector<Row> after;
        for (const auto& [holding, better] : found) {
            for (std::size_t rank = 0; rank < better.size(); ++rank) {
                after.push_back({holding, better[rank], static_cast<std::int64_t>(rank)});
            }
        }
        SQLite::Statement remove(catalogue_.database(),
                                 "DELETE FROM better_copies WHERE holding = ? AND better = ? AND rank = ?");
        SQLite::Statement insert(catalogue_.database(), "INSERT INTO better_copies VALUES(?,?,?)");
        const auto with = [](SQLite::Statement& statement) {
            return [&statement](const Row& row) {
                for (int at = 0; at < 3; ++at) {
                    statement.bind(at + 1, row[static_cast<std::size_t>(at)]);
                }
                statement.exec();
                statement.reset();
            };
        };
        writeDifference(std::move(before), std::move(after), with(remove), with(insert));
        transaction.commit();
    });
}

Result<std::optional<HoldingId>> EvidenceStore::betterThan(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<HoldingId> {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT b.better FROM better_copies b JOIN holdings h ON h.id = b.better WHERE "
                              "b.holding = ? AND h.state = 0 ORDER BY b.rank");
        ask.bind(1, holding);
        return ask.executeStep() ? std::optional(ask.getColumn(0).getInt64()) : std::nullopt;
    });
}

Result<std::optional<Acceptance>> EvidenceStore::acceptanceOf(HoldingId holding) const {
    return guarded(catalogue_, [&]() -> std::optional<Acceptance> {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT a.reason, a.accepted FROM acceptances a JOIN evidence e ON "
                              "a.payload = e.payload OR a.samples_md5 = e.samples_md5 WHERE e.holding = ?");
        ask.bind(1, holding);
        return ask.executeStep()
                   ? std::optional(Acceptance{ask.getColumn(0).getString(), ask.getColumn(1).getInt64()})
                   : std::nullopt;
    });
}

Outcome EvidenceStore::accept(HoldingId holding, const std::string& reason) const {
    return guarded(catalogue_, [&]() -> Outcome {
        SQLite::Statement insert(catalogue_.database(),
                                 "INSERT OR REPLACE INTO acceptances(payload, samples_md5, reason, accepted) "
                                 "SELECT payload, samples_md5, ?, ? FROM evidence WHERE holding = ?");
        insert.bind(1, reason);
        insert.bind(2, timeNow());
        insert.bind(3, holding);
        if (insert.exec() == 0) {
            return Error{
                Cause::invalid, {}, "It was not examined yet: survey its volume at full effort first."};
        }
        catalogue_.database().exec("UPDATE freshness SET findings_stale = 1");
        return done();
    });
}

Outcome EvidenceStore::withdrawAcceptance(HoldingId holding) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement remove(catalogue_.database(),
                                 "DELETE FROM acceptances WHERE id IN (SELECT a.id FROM acceptances a JOIN "
                                 "evidence e ON a.payload = e.payload OR a.samples_md5 = e.samples_md5 WHERE "
                                 "e.holding = ?)");
        remove.bind(1, holding);
        remove.exec();
        catalogue_.database().exec("UPDATE freshness SET findings_stale = 1");
    });
}

Result<std::vector<std::pair<std::string, std::int64_t>>> EvidenceStore::bitrateLimits() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT codec, bitrate FROM bitrate_limits ORDER BY codec");
        std::vector<std::pair<std::string, std::int64_t>> limits;
        while (ask.executeStep()) {
            limits.emplace_back(ask.getColumn(0).getString(), ask.getColumn(1).getInt64());
        }
        return limits;
    });
}

Outcome EvidenceStore::setBitrateLimit(const std::string& codec, std::int64_t bitrate) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement set(catalogue_.database(), "INSERT OR REPLACE INTO bitrate_limits VALUES(?,?)");
        set.bind(1, codec);
        set.bind(2, bitrate);
        set.exec();
        catalogue_.database().exec("UPDATE freshness SET findings_stale = 1");
    });
}

void writeEvidence(SQLite::Database& database, HoldingId holding, const Evidence& evidence) {
    SQLite::Statement insert(database, "INSERT OR REPLACE INTO evidence VALUES(?,?,?,?,?,?,?,?,?,?,?,?)");
    insert.bind(1, holding);
    insert.bind(2, evidenceMethod);
    bindBytes(insert, 3, evidence.payload);
    bindSamples(insert, 4, evidence.samplesMd5);
    insert.bind(5, static_cast<int>(evidence.verdict.verdict));
    insert.bind(6, evidence.verdict.confidence);
    insert.bind(7, evidence.verdict.sourceCodec);
    insert.bind(8, evidence.verdict.sourceBitrate);
    insert.bind(9, evidence.bandwidth ? evidence.bandwidth->cutoff : 0.0);
    insert.bind(10, evidence.sound() ? 1 : 0);
    insert.bind(11, evidence.levels.silent ? 1 : 0);
    insert.bind(12, static_cast<int>(evidence.remarks.size()));
    insert.exec();
    SQLite::Statement packed(database, "INSERT OR REPLACE INTO packed_evidence VALUES(?,?,?)");
    packed.bind(1, holding);
    bindBytes(packed, 2, packEvidence(evidence));
    bindBytes(packed, 3, packFingerprint(evidence.fingerprint));
    packed.exec();
}

void forgetEvidence(SQLite::Database& database, HoldingId holding) {
    for (const char* sql :
         {"DELETE FROM evidence WHERE holding = ?", "DELETE FROM packed_evidence WHERE holding = ?"}) {
        SQLite::Statement forget(database, sql);
        forget.bind(1, holding);
        forget.exec();
    }
}

} // namespace sober
