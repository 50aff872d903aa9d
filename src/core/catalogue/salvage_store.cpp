#include "core/catalogue/salvage_store.h"

#include "core/catalogue/guarded.h"
#include "core/media/carve/piece.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

constexpr const char* sourceColumns =
    "id, path, size, mtime, kinds, everywhere, reached, state, began, file_systems";
constexpr const char* findColumns =
    "id, source, how, format, extents, bytes, seconds, name, came_from, file, deleted, begins, ends, "
    "overwritten, sound, "
    "complete, xxh3, title, artist, album, track, date, fingerprint, holding, recognised, agreement, kin, "
    "examined, taken, piece, others";

std::string joinedPaths(const std::vector<BytePath>& paths) {
    std::string joined;
    for (const auto& path : paths) {
        joined += (joined.empty() ? std::string() : std::string(1, '\0')) + path;
    }
    return joined;
}

std::vector<BytePath> pathsFrom(std::string_view joined) {
    std::vector<BytePath> paths;
    while (!joined.empty()) {
        const auto end = std::min(joined.find('\0'), joined.size());
        paths.emplace_back(joined.substr(0, end));
        joined.remove_prefix(std::min(end + 1, joined.size()));
    }
    return paths;
}

std::string packedRanges(const std::vector<ByteRange>& ranges) {
    std::string packed(ranges.size() * 16, '\0');
    for (std::size_t i = 0; i < ranges.size(); ++i) {
        std::memcpy(packed.data() + 16 * i, &ranges[i].first, 8);
        std::memcpy(packed.data() + 16 * i + 8, &ranges[i].second, 8);
    }
    return packed;
}

std::vector<ByteRange> rangesFrom(const std::string& packed) {
    std::vector<ByteRange> ranges(packed.size() / 16);
    for (std::size_t i = 0; i < ranges.size(); ++i) {
        std::memcpy(&ranges[i].first, packed.data() + 16 * i, 8);
        std::memcpy(&ranges[i].second, packed.data() + 16 * i + 8, 8);
    }
    return ranges;
}

std::vector<PartChecksum> partsFrom(const std::string& packed) {
    std::vector<PartChecksum> parts(packed.size() / sizeof(PartChecksum));
    std::memcpy(parts.data(), packed.data(), parts.size() * sizeof(PartChecksum));
    return parts;
}

SalvageSource sourceFrom(SQLite::Statement& row) {
    SalvageSource source;
    source.id = row.getColumn(0).getInt64();
    source.path = bytesOf(row.getColumn(1));
    source.size = static_cast<std::uint64_t>(row.getColumn(2).getInt64());
    source.mtime = row.getColumn(3).getInt64();
    source.kinds = row.getColumn(4).getUInt();
    source.everywhere = row.getColumn(5).getInt() != 0;
    source.reached = static_cast<std::uint64_t>(row.getColumn(6).getInt64());
    source.state = static_cast<SalvageState>(row.getColumn(7).getInt());
    source.began = row.getColumn(8).getInt64();
    source.fileSystems = row.getColumn(9).getString();
    return source;
}

Find findFrom(SQLite::Statement& row) {
    int at = 0;
    const auto next = [&] { return row.getColumn(at++); };
    Find find;
    find.id = next().getInt64();
    find.source = next().getInt64();
    find.how = static_cast<FoundHow>(next().getInt());
    find.format = next().getString();
    find.extents = rangesFrom(bytesOf(next()));
    find.bytes = static_cast<std::uint64_t>(next().getInt64());
    find.seconds = next().getDouble();
    find.name = bytesOf(next());
    find.from = bytesOf(next());
    find.file = bytesOf(next());
    find.deleted = next().getInt64();
    find.begins = next().getInt() != 0;
    find.ends = next().getInt() != 0;
    find.overwritten = next().getInt() != 0;
    if (const auto sound = next(); !sound.isNull()) {
        find.sound = sound.getInt() != 0;
    }
    if (const auto complete = next(); !complete.isNull()) {
        find.complete = complete.getDouble();
    }
    if (const auto checksum = next(); !checksum.isNull()) {
        find.checksum = checksumOf(checksum);
    }
    for (auto* field :
         {&find.tags.title, &find.tags.artist, &find.tags.album, &find.tags.track, &find.tags.date}) {
        *field = next().getString();
    }
    find.fingerprint = bytesOf(next());
    find.holding = next().getInt64();
    find.recognised = static_cast<RecognisedBy>(next().getInt());
    find.agreement = next().getDouble();
    find.kin = next().getInt64();
    find.examined = next().getInt() != 0;
    find.taken = bytesOf(next());
    find.piece = bytesOf(next());
    find.others = pathsFrom(bytesOf(next()));
    return find;
}

void bindOptional(SQLite::Statement& statement, int index, const std::optional<double>& value) {
    if (value) {
        statement.bind(index, *value);
    } else {
        statement.bind(index);
    }
}

/// All columns from the second on.
void bindFind(SQLite::Statement& statement, const Find& find) {
    int at = 1;
    statement.bind(at++, find.source);
    statement.bind(at++, static_cast<int>(find.how));
    statement.bind(at++, find.format);
    bindBytes(statement, at++, packedRanges(find.extents));
    statement.bind(at++, static_cast<std::int64_t>(find.bytes));
    statement.bind(at++, find.seconds);
    bindBytes(statement, at++, find.name);
    bindBytes(statement, at++, find.from);
    bindBytes(statement, at++, find.file);
    statement.bind(at++, find.deleted);
    statement.bind(at++, find.begins ? 1 : 0);
    statement.bind(at++, find.ends ? 1 : 0);
    statement.bind(at++, find.overwritten ? 1 : 0);
    bindOptional(statement, at++, find.sound ? std::optional<double>(*find.sound ? 1 : 0) : std::nullopt);
    bindOptional(statement, at++, find.complete);
    if (find.checksum) {
        bindBytes(statement, at++, *find.checksum);
    } else {
        statement.bind(at++);
    }
    for (const auto* field :
         {&find.tags.title, &find.tags.artist, &find.tags.album, &find.tags.track, &find.tags.date}) {
        statement.bind(at++, *field);
    }
    bindBytes(statement, at++, find.fingerprint);
    bindId(statement, at++, find.holding);
    statement.bind(at++, static_cast<int>(find.recognised));
    statement.bind(at++, find.agreement);
    statement.bind(at++, find.kin);
    statement.bind(at++, find.examined ? 1 : 0);
    bindBytes(statement, at++, find.taken);
    bindBytes(statement, at++, find.piece);
    bindBytes(statement, at++, joinedPaths(find.others));
}
constexpr int findFields = 30;

std::vector<HoldingId> idsOf(SQLite::Statement& ask) {
    std::vector<HoldingId> ids;
    while (ask.executeStep()) {
        ids.push_back(ask.getColumn(0).getInt64());
    }
    return ids;
}

/// Missing holdings first, then present, written off and retired ones.
constexpr const char* byUse = " ORDER BY h.state = 1 DESC, h.state, h.volume, h.path";

} // namespace

bool Find::isWhole() const {
    return examined &&
           (recognised == RecognisedBy::bytes || (ends && sound != false && complete.value_or(1) >= 1));
}

BytePath Find::nameOrPlace() const {
    if (!name.empty()) {
        return name;
    }
    const auto kind = pieceKindOf(format);
    return fmt::format("found {:012}.{}", firstByte(), kind ? endingFor(*kind) : "audio");
}

// The find's number, the checksum, so many extents, and the path.
std::string packFindBytes(const FindBytes& bytes) {
    std::string packed(8 + 16 + 8, '\0');
    const std::uint64_t count = bytes.extents.size();
    std::memcpy(packed.data(), &bytes.find, 8);
    std::memcpy(packed.data() + 8, bytes.checksum.bytes.data(), 16);
    std::memcpy(packed.data() + 24, &count, 8);
    packed += packedRanges(bytes.extents) + bytes.file;
    return bytes.others.empty() ? packed : packed + '\0' + joinedPaths(bytes.others);
}

std::optional<FindBytes> unpackFindBytes(std::string_view packed) {
    constexpr std::size_t head = 8 + 16 + 8;
    if (packed.size() < head) {
        return std::nullopt;
    }
    FindBytes bytes;
    std::uint64_t count = 0;
    std::memcpy(&bytes.find, packed.data(), 8);
    std::memcpy(bytes.checksum.bytes.data(), packed.data() + 8, 16);
    std::memcpy(&count, packed.data() + 24, 8);
    if (count > (packed.size() - head) / 16) {
        return std::nullopt;
    }
    bytes.extents = rangesFrom(std::string(packed.substr(head, count * 16)));
    bytes.others = pathsFrom(packed.substr(head + count * 16));
    if (bytes.others.empty()) {
        return std::nullopt;
    }
    bytes.file = bytes.others.front();
    bytes.others.erase(bytes.others.begin());
    return bytes;
}

std::string_view word(FoundHow how) {
    constexpr std::array<std::string_view, 4> words{"trash", "entry", "carved", "blocks"};
    return words.at(static_cast<std::size_t>(how));
}

std::string_view word(RecognisedBy by) {
    constexpr std::array<std::string_view, 7> words{"",       "bytes",       "payload", "samples",
                                                    "blocks", "fingerprint", "tags"};
    return words.at(static_cast<std::size_t>(by));
}

Result<std::vector<SalvageSource>> SalvageStore::images() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + sourceColumns +
                                  " FROM salvage_sources WHERE path <> x'' ORDER BY began "
                                  "DESC, id DESC");
        std::vector<SalvageSource> sources;
        while (ask.executeStep()) {
            sources.push_back(sourceFrom(ask));
        }
        return sources;
    });
}

Result<std::optional<SalvageSource>> SalvageStore::sourceOf(const BytePath& path) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string("SELECT ") + sourceColumns +
                                                         " FROM salvage_sources WHERE path = ?");
        bindBytes(ask, 1, path);
        return ask.executeStep() ? std::optional(sourceFrom(ask)) : std::nullopt;
    });
}

Result<SalvageSource> SalvageStore::source(SalvageSourceId id) const {
    return guarded(catalogue_, [&]() -> Result<SalvageSource> {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + sourceColumns + " FROM salvage_sources WHERE id = ?");
        ask.bind(1, id);
        if (!ask.executeStep()) {
            return Error{Cause::notFound, {}, "What was scanned is not in the catalogue any more."};
        }
        return sourceFrom(ask);
    });
}

Outcome SalvageStore::forget(SalvageSourceId id) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        for (const auto* const statement :
             {"DELETE FROM finds WHERE source = ?", "DELETE FROM salvage_starts WHERE source = ?",
              "DELETE FROM salvage_sources WHERE id = ?"}) {
            SQLite::Statement remove(catalogue_.database(), statement);
            remove.bind(1, id);
            remove.exec();
        }
        transaction.commit();
    });
}

Result<SalvageSourceId> SalvageStore::begin(const SalvageSource& source) const {
    return guarded(catalogue_, [&]() -> Result<SalvageSourceId> {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        const auto before = sourceOf(source.path);
        const auto forgotten = !before ? Outcome(before.error()) : *before ? forget((*before)->id) : done();
        RETURN_IF_FAILED(forgotten);
        SQLite::Statement insert(database,
                                 "INSERT INTO salvage_sources(path, size, mtime, kinds, everywhere, "
                                 "reached, state, began, file_systems) VALUES(?,?,?,?,?,?,?,?,?)");
        bindBytes(insert, 1, source.path);
        insert.bind(2, static_cast<std::int64_t>(source.size));
        insert.bind(3, source.mtime);
        insert.bind(4, source.kinds);
        insert.bind(5, source.everywhere ? 1 : 0);
        insert.bind(6, static_cast<std::int64_t>(source.reached));
        insert.bind(7, static_cast<int>(source.state));
        insert.bind(8, source.began);
        insert.bind(9, source.fileSystems);
        insert.exec();
        const SalvageSourceId id = database.getLastInsertRowid();
        transaction.commit();
        return id;
    });
}

Outcome SalvageStore::advance(const SalvageSource& source, std::span<Find> found,
                              std::span<const std::pair<std::uint64_t, std::uint64_t>> starts) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement insert(database, "INSERT INTO finds(" +
                                               std::string(findColumns).substr(std::strlen("id, ")) +
                                               ") VALUES(" + placeholders(findFields) + ")");
        for (auto& find : found) {
            find.source = source.id;
            bindFind(insert, find);
            insert.exec();
            insert.reset();
            find.id = database.getLastInsertRowid();
        }
        SQLite::Statement start(database, "INSERT OR REPLACE INTO salvage_starts VALUES(?,?,?)");
        for (const auto& [place, sum] : starts) {
            start.bind(1, source.id);
            start.bind(2, static_cast<std::int64_t>(place));
            start.bind(3, static_cast<std::int64_t>(sum));
            start.exec();
            start.reset();
        }
        SQLite::Statement update(database,
                                 "UPDATE salvage_sources SET reached = ?, state = ?, file_systems = ? "
                                 "WHERE id = ?");
        update.bind(1, static_cast<std::int64_t>(source.reached));
        update.bind(2, static_cast<int>(source.state));
        update.bind(3, source.fileSystems);
        update.bind(4, source.id);
        update.exec();
        transaction.commit();
    });
}

Outcome SalvageStore::update(std::span<const Find> finds) const {
    return guarded(catalogue_, [&] {
        auto& database = catalogue_.database();
        WritingTransaction transaction(database);
        SQLite::Statement update(database, "UPDATE finds SET (" +
                                               std::string(findColumns).substr(std::strlen("id, ")) +
                                               ") = (" + placeholders(findFields) + ") WHERE id = ?");
        for (const auto& find : finds) {
            bindFind(update, find);
            update.bind(findFields + 1, find.id);
            update.exec();
            update.reset();
        }
        transaction.commit();
    });
}

Outcome SalvageStore::remove(std::span<const FindId> finds) const {
    return guarded(catalogue_, [&] {
        WritingTransaction transaction(catalogue_.database());
        SQLite::Statement remove(catalogue_.database(), "DELETE FROM finds WHERE id = ?");
        for (const auto id : finds) {
            remove.bind(1, id);
            remove.exec();
            remove.reset();
        }
        transaction.commit();
    });
}

Result<std::vector<Find>> SalvageStore::finds(SalvageSourceId source) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(), std::string("SELECT ") + findColumns +
                                                         " FROM finds WHERE source = ? ORDER BY id");
        ask.bind(1, source);
        std::vector<Find> finds;
        while (ask.executeStep()) {
            finds.push_back(findFrom(ask));
        }
        std::ranges::stable_sort(finds, {}, [](const Find& find) {
            return find.extents.empty() ? 0 : find.extents.front().first;
        });
        return finds;
    });
}

Result<std::vector<Find>> SalvageStore::taken() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + findColumns + " FROM finds WHERE taken <> x''");
        std::vector<Find> finds;
        while (ask.executeStep()) {
            finds.push_back(findFrom(ask));
        }
        return finds;
    });
}

Result<std::uint64_t> SalvageStore::waitingForHome() const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT count(DISTINCT f.holding) FROM finds f JOIN holdings h ON h.id = f.holding WHERE "
            "f.taken = x'' AND h.state = 1");
        ask.executeStep();
        return static_cast<std::uint64_t>(ask.getColumn(0).getInt64());
    });
}

Result<std::vector<Find>> SalvageStore::byIds(std::span<const FindId> ids) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT ") + findColumns + " FROM finds WHERE id = ?");
        std::vector<Find> finds;
        for (const auto id : ids) {
            ask.bind(1, id);
            if (ask.executeStep()) {
                finds.push_back(findFrom(ask));
            }
            ask.reset();
        }
        return finds;
    });
}

Result<std::vector<std::pair<std::uint64_t, std::uint64_t>>>
SalvageStore::starts(SalvageSourceId source) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT place, start FROM salvage_starts WHERE source = ? ORDER BY place");
        ask.bind(1, source);
        std::vector<std::pair<std::uint64_t, std::uint64_t>> starts;
        while (ask.executeStep()) {
            starts.emplace_back(static_cast<std::uint64_t>(ask.getColumn(0).getInt64()),
                                static_cast<std::uint64_t>(ask.getColumn(1).getInt64()));
        }
        return starts;
    });
}

Outcome SalvageStore::eachMissing(const std::function<void(Remembered&&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              "SELECT h.id, h.size, h.xxh3, b.parts FROM holdings h JOIN blocks b ON "
                              "b.holding = h.id WHERE h.state = 1 AND b.parts <> x''");
        while (ask.executeStep()) {
            Remembered remembered;
            remembered.holding = ask.getColumn(0).getInt64();
            remembered.size = static_cast<std::uint64_t>(ask.getColumn(1).getInt64());
            remembered.checksum = checksumOf(ask.getColumn(2));
            remembered.parts = partsFrom(bytesOf(ask.getColumn(3)));
            visit(std::move(remembered));
        }
    });
}

Result<std::multimap<std::uint64_t, BytePath>>
SalvageStore::filesOfSizes(std::span<const std::uint64_t> sizes) const {
    return guarded(catalogue_, [&] {
        std::string list = "[";
        for (const auto size : sizes) {
            list += (list.size() > 1 ? "," : "") + std::to_string(size);
        }
        SQLite::Statement ask(
            catalogue_.database(),
            "WITH wanted(size) AS (SELECT value FROM json_each(?)) "
            "SELECT h.size, v.root, h.path FROM holdings h JOIN volumes v ON v.id = h.volume "
            "WHERE h.state = 0 AND h.size IN wanted UNION ALL "
            "SELECT bytes, x'', file FROM finds WHERE file <> x'' AND bytes IN wanted");
        ask.bind(1, list + "]");
        std::multimap<std::uint64_t, BytePath> files;
        while (ask.executeStep()) {
            const auto root = bytesOf(ask.getColumn(1));
            const auto path = bytesOf(ask.getColumn(2));
            files.emplace(ask.getColumn(0).getInt64(), root.empty() ? path : joinPath(root, path));
        }
        return files;
    });
}

Result<std::vector<HoldingId>> SalvageStore::withBytes(const Checksum128& checksum) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string("SELECT h.id FROM holdings h WHERE h.state IN (0, 1, 2, 3) AND h.xxh3 = ?") + byUse);
        bindBytes(ask, 1, checksum);
        return idsOf(ask);
    });
}

Result<std::vector<HoldingId>> SalvageStore::withPayload(const Checksum128& payload) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            std::string(
                "SELECT h.id FROM evidence e JOIN holdings h ON h.id = e.holding WHERE e.payload = ?") +
                byUse);
        bindBytes(ask, 1, payload);
        return idsOf(ask);
    });
}

Result<std::vector<HoldingId>> SalvageStore::withSamples(std::span<const std::uint8_t> md5) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(catalogue_.database(),
                              std::string("SELECT h.id FROM evidence e JOIN holdings h ON h.id "
                                          "= e.holding WHERE e.samples_md5 = ?") +
                                  byUse);
        bindBytes(ask, 1, {reinterpret_cast<const char*>(md5.data()), md5.size()});
        return idsOf(ask);
    });
}

Outcome SalvageStore::eachTitled(const std::function<void(Titled&&)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT id, duration, title, artist FROM holdings WHERE state IN (0, 1) AND title <> '' "
            "AND artist <> '' ORDER BY state = 1 DESC, id");
        while (ask.executeStep()) {
            visit({ask.getColumn(0).getInt64(), ask.getColumn(1).getDouble(), ask.getColumn(2).getString(),
                   ask.getColumn(3).getString()});
        }
    });
}

Outcome SalvageStore::eachFingerprint(const std::function<void(HoldingId, std::string_view)>& visit) const {
    return guarded(catalogue_, [&] {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT h.id, p.fingerprint FROM holdings h JOIN packed_evidence p ON p.holding = h.id "
            "WHERE h.state IN (0, 1) AND p.fingerprint <> x''");
        while (ask.executeStep()) {
            const auto packed = bytesOf(ask.getColumn(1));
            visit(ask.getColumn(0).getInt64(), packed);
        }
    });
}

Result<EntryId> SalvageStore::entryThatSetAside(const BytePath& aside) const {
    return guarded(catalogue_, [&]() -> EntryId {
        SQLite::Statement ask(
            catalogue_.database(),
            "SELECT entry FROM ledger_actions WHERE aside = ? AND aside <> x'' AND step = 2 "
            "ORDER BY id DESC LIMIT 1");
        bindBytes(ask, 1, aside);
        return ask.executeStep() ? ask.getColumn(0).getInt64() : 0;
    });
}

} // namespace sober
