#include "core/catalogue/salvage_rows.h"

#include "core/catalogue/guarded.h"
#include "core/media/carve/piece.h"

#include <fmt/format.h>

#include <algorithm>
#include <cstring>

namespace sober {
namespace {

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

std::vector<ByteRange> rangesFrom(const std::string& packed) {
    std::vector<ByteRange> ranges(packed.size() / 16);
    for (std::size_t i = 0; i < ranges.size(); ++i) {
        std::memcpy(&ranges[i].first, packed.data() + 16 * i, 8);
        std::memcpy(&ranges[i].second, packed.data() + 16 * i + 8, 8);
    }
    return ranges;
}

void bindOptional(SQLite::Statement& statement, int index, const std::optional<double>& value) {
    if (value) {
        statement.bind(index, *value);
    } else {
        statement.bind(index);
    }
}

} // namespace

std::string packedRanges(const std::vector<ByteRange>& ranges) {
    std::string packed(ranges.size() * 16, '\0');
    for (std::size_t i = 0; i < ranges.size(); ++i) {
        std::memcpy(packed.data() + 16 * i, &ranges[i].first, 8);
        std::memcpy(packed.data() + 16 * i + 8, &ranges[i].second, 8);
    }
    return packed;
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
    source.passedOver = rangesFrom(bytesOf(row.getColumn(10)));
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

} // namespace sober
