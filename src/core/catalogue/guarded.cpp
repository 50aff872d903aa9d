#include "core/catalogue/guarded.h"

#include "core/base/text.h"

#include <sys/statvfs.h>

#include <algorithm>
#include <sqlite3.h>

namespace sober {
namespace {

bool hasNoRoom(const BytePath& folder) {
    constexpr std::uint64_t leastRoom = 64U << 10; // bytes
    struct statvfs space {};
    return statvfs(folder.empty() ? "." : folder.c_str(), &space) == 0 &&
           static_cast<std::uint64_t>(space.f_bavail) * space.f_frsize < leastRoom;
}

/// What SQLite asks before each commit: anything but 0 makes it a rollback.
int isGivenUp(void* flag) {
    return *static_cast<const bool*>(flag) ? 1 : 0;
}

} // namespace

Error errorOf(const SQLite::Exception& exception, const BytePath& cataloguePath) {
    const auto name = displayPath(cataloguePath);
    // SQLite takes a full disk for a broken one where it grows what readers share.
    const bool isFull =
        exception.getErrorCode() == SQLITE_IOERR && hasNoRoom(BytePath(parentOf(cataloguePath)));
    switch (isFull ? SQLITE_FULL : exception.getErrorCode()) {
    case SQLITE_FULL:
        return {Cause::full, cataloguePath,
                "The catalogue " + name +
                    " could not be written: no space is left on its disk. What was recorded before stays."};
    case SQLITE_IOERR:
        return {Cause::unreadable, cataloguePath,
                "The catalogue " + name +
                    " could not be read or written: its disk refused. What was recorded before stays."};
    case SQLITE_CORRUPT:
    case SQLITE_NOTADB:
        return {Cause::damaged, cataloguePath,
                "The catalogue " + name +
                    " is damaged. It was left as it is; put back a copy of it or begin a new one."};
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        return {Cause::busy, cataloguePath, "The catalogue " + name + " is in use by another program."};
    case SQLITE_INTERRUPT:
        return {Cause::interrupted, cataloguePath, "The question to the catalogue was withdrawn."};
    case SQLITE_READONLY:
    case SQLITE_PERM:
        return {Cause::notPermitted, cataloguePath, "The catalogue " + name + " may not be written to."};
    case SQLITE_CANTOPEN:
        return {Cause::notPermitted, cataloguePath,
                "The catalogue " + name + " cannot be opened or made there."};
    default:
        return {Cause::unreadable, cataloguePath,
                "The catalogue " + name + " could not do what was asked (" + exception.getErrorStr() + ")."};
    }
}

WritingTransaction::WritingTransaction(SQLite::Database& database)
    : database_(database), isInner_(sqlite3_get_autocommit(database.getHandle()) == 0) {
    if (!isInner_) {
        database_.exec("BEGIN IMMEDIATE");
        sqlite3_commit_hook(database_.getHandle(), isGivenUp, &givenUp_);
    }
}

WritingTransaction::~WritingTransaction() {
    auto* handle = database_.getHandle();
    // The outermost one's flag; what it writes after this goes back with the rest.
    auto* outermost = static_cast<bool*>(sqlite3_commit_hook(handle, nullptr, nullptr));
    if (isInner_ && outermost != nullptr) {
        *outermost = *outermost || !committed_;
        sqlite3_commit_hook(handle, isGivenUp, outermost);
    } else if (!committed_) {
        // Where SQLite has rolled back already there is nothing left to do.
        sqlite3_exec(handle, "ROLLBACK", nullptr, nullptr, nullptr);
    }
}

void WritingTransaction::commit() {
    if (!isInner_) {
        database_.exec("COMMIT");
    }
    committed_ = true;
}

Patience::Patience(SQLite::Database& database)
    : database_(database), before_(database.execAndGet("PRAGMA busy_timeout").getInt()) {
    constexpr int longest = 120'000; // milliseconds
    sqlite3_busy_timeout(database.getHandle(), longest);
}

Patience::~Patience() {
    sqlite3_busy_timeout(database_.getHandle(), before_);
}

void bindBytes(SQLite::Statement& statement, int index, std::string_view bytes) {
    // A null data pointer would bind NULL.
    statement.bind(index, bytes.empty() ? static_cast<const void*>("") : bytes.data(),
                   static_cast<int>(bytes.size()));
}

void bindBytes(SQLite::Statement& statement, int index, const Checksum128& checksum) {
    statement.bind(index, checksum.bytes.data(), static_cast<int>(checksum.bytes.size()));
}

void bindBytes(SQLite::Statement& statement, int index, std::span<const Checksum128> checksums) {
    bindBytes(statement, index, {reinterpret_cast<const char*>(checksums.data()), checksums.size_bytes()});
}

void bindId(SQLite::Statement& statement, int index, std::int64_t id) {
    if (id != 0) {
        statement.bind(index, id);
    } else {
        statement.bind(index);
    }
}

BytePath bytesOf(const SQLite::Column& column) {
    return {static_cast<const char*>(column.getBlob()), static_cast<std::size_t>(column.getBytes())};
}

std::uint64_t countAt(SQLite::Statement& row, int column) {
    return static_cast<std::uint64_t>(row.getColumn(column).getInt64());
}

Checksum128 checksumOf(const SQLite::Column& column) {
    Checksum128 checksum;
    const auto* data = static_cast<const std::uint8_t*>(column.getBlob());
    std::copy_n(data,
                std::min<std::size_t>(checksum.bytes.size(), static_cast<std::size_t>(column.getBytes())),
                checksum.bytes.begin());
    return checksum;
}

ActionKind kindOf(const SQLite::Column& column) {
    const auto kind = actionKindOf(column.getString());
    if (!kind) {
        throw SQLite::Exception("an action of no known kind", SQLITE_CORRUPT);
    }
    return *kind;
}

std::string columnsOf(SQLite::Database& database, const std::string& table, std::string_view but) {
    SQLite::Statement ask(database, "SELECT name FROM pragma_table_info(?) WHERE name <> ? ORDER BY cid");
    ask.bind(1, table);
    ask.bind(2, std::string(but));
    std::string names;
    while (ask.executeStep()) {
        names += (names.empty() ? "" : ", ") + ask.getColumn(0).getString();
    }
    return names;
}

std::string placeholders(std::size_t count) {
    std::string list;
    for (std::size_t i = 0; i < count; ++i) {
        list += i == 0 ? "?" : ",?";
    }
    return list;
}

} // namespace sober
