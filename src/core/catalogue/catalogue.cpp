#include "core/catalogue/catalogue.h"

#include "core/base/text.h"
#include "core/catalogue/catalogue_copy.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/kept_statement.h"
#include "core/catalogue/schema.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <fmt/format.h>
#include <sys/file.h>
#include <sys/stat.h>

#include <array>
#include <cerrno>
#include <fcntl.h>
#include <sqlite3.h>
#include <unistd.h>

namespace sober {
namespace {

/// The write-ahead log is cut to this after each checkpoint, however long a transaction made it.
constexpr const char* limitedLog = "PRAGMA journal_size_limit = 67108864";

constexpr std::string_view sqliteSignature{"SQLite format 3\0", 16};

std::uint32_t bigEndianAt(std::span<const std::uint8_t> bytes, std::size_t at) {
    return static_cast<std::uint32_t>(bytes[at]) << 24 | static_cast<std::uint32_t>(bytes[at + 1]) << 16 |
           static_cast<std::uint32_t>(bytes[at + 2]) << 8 | bytes[at + 3];
}

Error newerCatalogue(const BytePath& path) {
    return {Cause::newer, path,
            "The catalogue " + displayPath(path) +
                " was written by a newer Sober Archivist. It was left untouched; use that program."};
}

Error noCatalogue(const BytePath& path) {
    return {Cause::damaged, path,
            displayPath(path) +
                " is not a catalogue of Sober Archivist, or is damaged. It was left untouched."};
}

/// What the header of an SQLite file says (its file format, section 1.3).
struct Header {
    std::uint32_t version = 0;     ///< user version, at offset 60
    std::uint32_t application = 0; ///< application id, at 68

    bool isOurs() const { return application == static_cast<std::uint32_t>(catalogueApplicationId); }
};

/// Without SQLite, which would perhaps touch the file, and which takes a file without its log for damaged
/// where the log was being written into it. A blank one of an empty file.
Result<Header> headerOf(const BytePath& path) {
    const auto file = openForReading(path);
    RETURN_IF_FAILED(file);
    std::array<std::uint8_t, 100> header{};
    const auto got = readAt(*file, path, 0, header);
    RETURN_IF_FAILED(got);
    if (*got == 0) {
        return Header{};
    }
    if (*got < header.size() ||
        !std::equal(sqliteSignature.begin(), sqliteSignature.end(), header.begin(),
                    [](char a, std::uint8_t b) { return static_cast<std::uint8_t>(a) == b; })) {
        return noCatalogue(path);
    }
    return Header{bigEndianAt(header, 60), bigEndianAt(header, 68)};
}

Outcome checkHeader(const BytePath& path) {
    const auto header = headerOf(path);
    RETURN_IF_FAILED(header);
    const bool isBlank = header->application == 0 && header->version == 0;
    return !isBlank && !header->isOurs()            ? Outcome(noCatalogue(path))
           : header->version > schemaSteps().size() ? Outcome(newerCatalogue(path))
                                                    : done();
}

/// Opens a database without a lock or any file beside it: for one that nobody writes, or can.
std::unique_ptr<SQLite::Database> openUntouched(const BytePath& path) {
    std::string uri = "file:";
    for (const char c : path) {
        const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
                           c == '/' || c == '.' || c == '-' || c == '_';
        uri += plain ? std::string(1, c) : fmt::format("%{:02x}", static_cast<unsigned char>(c));
    }
    return std::make_unique<SQLite::Database>(
        uri + "?immutable=1", SQLite::OPEN_READONLY | SQLite::OPEN_URI | SQLite::OPEN_NOMUTEX, 5000);
}

/// Whether what was written last is still in a log beside the file.
bool hasLog(const BytePath& path) {
    const auto log = stampAt(path + "-wal");
    return log && log->size > 0;
}

Outcome makeFolders(const BytePath& folder) {
    if (folder.empty() || folder == "/") {
        return done();
    }
    struct stat status {};
    if (stat(folder.c_str(), &status) == 0) {
        return done();
    }
    if (const auto above = makeFolders(BytePath(parentOf(folder))); !above) {
        return above;
    }
    if (mkdir(folder.c_str(), 0700) != 0 && errno != EEXIST) {
        return systemError(errno, "make the folder", folder);
    }
    return done();
}

/// Another program's database may be as blank in its header as a new one: then its tables tell.
Outcome isOwnOrBlank(const BytePath& path) {
    const auto stamp = stampAt(path);
    if (!stamp || stamp->size == 0) {
        return done();
    }
    const auto header = headerOf(path);
    if (!header || header->isOurs()) {
        return header ? done() : Outcome(header.error());
    }
    try {
        const auto database = openUntouched(path);
        const bool isBlank = database->execAndGet("SELECT count(*) FROM sqlite_schema").getInt() == 0;
        return isBlank ? done() : Outcome(noCatalogue(path));
    } catch (const SQLite::Exception& exception) {
        return errorOf(exception, path);
    }
}

/// The writer's lock is a file beside the catalogue, so that it holds whatever SQLite does.
Result<FileHandle> takeWriterLock(const BytePath& cataloguePath) {
    const BytePath path = cataloguePath + ".lock";
    FileHandle lock(open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0600));
    if (!lock) {
        return systemError(errno, "make the lock", path);
    }
    if (flock(lock.get(), LOCK_EX | LOCK_NB) != 0) {
        return Error{Cause::busy, cataloguePath,
                     "The catalogue " + displayPath(cataloguePath) +
                         " is open in another Sober Archivist. Close that one first."};
    }
    return lock;
}

} // namespace

Catalogue::Catalogue(BytePath path, FileHandle lock, std::unique_ptr<SQLite::Database> database)
    : path_(std::move(path)),
      lock_(std::move(lock)),
      database_(std::move(database)),
      kept_(std::make_unique<KeptStatements>()) {}
Catalogue::~Catalogue() = default;
Catalogue::Catalogue(Catalogue&&) noexcept = default;
Catalogue& Catalogue::operator=(Catalogue&& other) noexcept {
    kept_ = std::move(other.kept_); // first: the statements of before end before their database
    database_ = std::move(other.database_);
    lock_ = std::move(other.lock_);
    path_ = std::move(other.path_);
    return *this;
}

Result<Catalogue> Catalogue::openForWriting(const BytePath& path) {
    if (path.empty()) {
        return Error{Cause::invalid, path, "A catalogue needs the name of a file."};
    }
    RETURN_IF_FAILED(makeFolders(BytePath(parentOf(path))));
    if (isTaken(path)) {
        RETURN_IF_FAILED(checkHeader(path));
    }
    auto lock = takeWriterLock(path);
    RETURN_IF_FAILED(lock);
    RETURN_IF_FAILED(isOwnOrBlank(path));
    try {
        auto database = std::make_unique<SQLite::Database>(
            path, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE | SQLite::OPEN_NOMUTEX, 5000);
        database->exec("PRAGMA journal_mode = WAL");
        database->exec("PRAGMA synchronous = FULL");
        database->exec("PRAGMA cache_size = -16384");
        database->exec(limitedLog);
        const auto version = static_cast<std::size_t>(database->execAndGet("PRAGMA user_version").getInt());
        if (version > 0 && version < schemaSteps().size()) {
            RETURN_IF_FAILED(saveBeforeUpdate(*database, path, version));
        }
        bringUpToDate(*database);
        database->exec("PRAGMA foreign_keys = ON");
        return Catalogue(path, std::move(*lock), std::move(database));
    } catch (const SQLite::Exception& exception) {
        return errorOf(exception, path);
    }
}

Result<Catalogue> Catalogue::openForReading(const BytePath& path) {
    if (!isTaken(path)) {
        return Error{Cause::notFound, path,
                     "There is no catalogue at " + displayPath(path) + " yet. Survey a folder first."};
    }
    RETURN_IF_FAILED(checkHeader(path));
    const auto look = [&](std::unique_ptr<SQLite::Database> database) -> Result<Catalogue> {
        database->exec("PRAGMA cache_size = -16384");
        const auto version = static_cast<std::size_t>(database->execAndGet("PRAGMA user_version").getInt());
        if (version > schemaSteps().size()) {
            return newerCatalogue(path);
        }
        // A schema of before: what this program asks of it would not be there.
        if (version < schemaSteps().size()) {
            return Error{
                Cause::notPermitted, path,
                "The catalogue " + displayPath(path) +
                    " was written by an older Sober Archivist and may not be written to here; open it "
                    "once where it may."};
        }
        return Catalogue(path, FileHandle(), std::move(database));
    };
    try {
        return look(
            std::make_unique<SQLite::Database>(path, SQLite::OPEN_READONLY | SQLite::OPEN_NOMUTEX, 5000));
    } catch (const SQLite::Exception& exception) {
        // A folder that may not be written to has no room for what readers share; without a log nothing is
        // shared.
        const bool noRoom =
            exception.getErrorCode() == SQLITE_CANTOPEN || exception.getErrorCode() == SQLITE_READONLY;
        if (!noRoom || hasLog(path)) {
            return errorOf(exception, path);
        }
    }
    try {
        return look(openUntouched(path));
    } catch (const SQLite::Exception& exception) {
        return errorOf(exception, path);
    }
}

Result<Catalogue> Catalogue::openBeside(const Catalogue& writer) {
    constexpr int patience = 60'000; // milliseconds: as long as the longest transaction of the long work
    FileHandle lock(fcntl(writer.lock_.get(), F_DUPFD_CLOEXEC, 0));
    if (!lock) {
        return systemError(errno, "share the lock of", writer.path_);
    }
    try {
        auto database = std::make_unique<SQLite::Database>(
            writer.path_, SQLite::OPEN_READWRITE | SQLite::OPEN_NOMUTEX, patience);
        database->exec("PRAGMA synchronous = FULL");
        database->exec(limitedLog);
        database->exec("PRAGMA foreign_keys = ON");
        return Catalogue(writer.path_, std::move(lock), std::move(database));
    } catch (const SQLite::Exception& exception) {
        return errorOf(exception, writer.path_);
    }
}

Outcome Catalogue::together(const std::function<Outcome()>& work) const {
    return guarded(*this, [&] {
        WritingTransaction transaction(*database_);
        auto outcome = work();
        if (outcome) {
            transaction.commit();
        }
        return outcome;
    });
}

Catalogue::Snapshot::Snapshot(const Catalogue& catalogue) : catalogue_(catalogue) {
    auto* handle = catalogue_.database_->getHandle();
    begun_ = sqlite3_get_autocommit(handle) != 0 &&
             sqlite3_exec(handle, "BEGIN", nullptr, nullptr, nullptr) == SQLITE_OK;
}

Catalogue::Snapshot::~Snapshot() {
    auto* handle = catalogue_.database_->getHandle();
    if (begun_ && sqlite3_exec(handle, "COMMIT", nullptr, nullptr, nullptr) != SQLITE_OK) {
        sqlite3_exec(handle, "ROLLBACK", nullptr, nullptr, nullptr);
    }
}

void Catalogue::interrupt() {
    sqlite3_interrupt(database_->getHandle());
}

} // namespace sober
