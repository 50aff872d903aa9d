#include "core/catalogue/catalogue_copy.h"

#include "core/base/text.h"
#include "core/catalogue/guarded.h"
#include "core/catalogue/schema.h"

#include <SQLiteCpp/Backup.h>
#include <fmt/format.h>

#include <cerrno>
#include <cstdio>
#include <fcntl.h>
#include <sqlite3.h>
#include <unistd.h>

namespace sober {
namespace {

constexpr int pagesTogether = 2048; // of 4 KiB, between two looks whether to go on

/// Copies all of one database into another; false where it was cancelled.
bool copyAll(SQLite::Database& to, SQLite::Database& from, RunControl& control,
             const ProgressSink& onProgress, const char* schema = "main") {
    SQLite::Backup backup(to, "main", from, schema);
    Progress progress;
    while (control.proceed()) {
        const auto state = backup.executeStep(pagesTogether);
        progress.totalBytes = static_cast<std::uint64_t>(backup.getTotalPageCount()) * 4096;
        progress.bytes =
            progress.totalBytes - static_cast<std::uint64_t>(backup.getRemainingPageCount()) * 4096;
        onProgress(progress);
        if (state == SQLITE_DONE) {
            return true;
        }
        if (state != SQLITE_OK) { // another writes just now
            sqlite3_sleep(20);
        }
    }
    return false;
}

Outcome flush(const BytePath& path) {
    const FileHandle file(open(path.c_str(), O_RDONLY | O_CLOEXEC));
    return file && fsync(file.get()) == 0 ? done() : Outcome(systemError(errno, "flush", path));
}

void removePart(const BytePath& part) {
    unlink(part.c_str());
    unlink((part + "-journal").c_str());
}

/// A name beside a file that is free.
BytePath freeBeside(const BytePath& path, const std::string& ending) {
    auto name = path + ending;
    for (int number = 2; isTaken(name); ++number) {
        name = fmt::format("{}{}-{}", path, ending, number);
    }
    return name;
}

/// A copy under its name only once it is whole and on the medium; what stands there is replaced.
Outcome copyTo(const BytePath& to, SQLite::Database& from, const BytePath& fromPath, RunControl& control,
               const ProgressSink& onProgress, const char* schema = "main") {
    const auto part = freeBeside(to, ".part");
    bool whole = false;
    try {
        SQLite::Database copy(part, SQLite::OPEN_READWRITE | SQLite::OPEN_CREATE | SQLite::OPEN_NOMUTEX,
                              5000);
        whole = copyAll(copy, from, control, onProgress, schema);
        if (whole) {
            // It has to be read where nothing may be written beside it.
            copy.exec("PRAGMA journal_mode = DELETE");
        }
    } catch (const SQLite::Exception& exception) {
        removePart(part);
        const auto error = errorOf(exception, part);
        return Error{error.cause, to,
                     fmt::format("{} could not be saved as {}: {}", displayPath(fromPath), displayPath(to),
                                 error.sentence)};
    }
    if (!whole) {
        removePart(part);
        return Error{Cause::interrupted, to, "Saving the catalogue was stopped; nothing was kept of it."};
    }
    if (auto flushed = flush(part); !flushed) {
        removePart(part);
        return flushed;
    }
    if (rename(part.c_str(), to.c_str()) != 0) {
        const auto error = systemError(errno, "give its name to", to);
        removePart(part);
        return error;
    }
    if (auto flushed = flush(BytePath(parentOf(to))); !flushed) {
        return Error{
            flushed.error().cause, to,
            fmt::format("The catalogue was saved as {}, but it is not known whether its folder reached the "
                        "medium: {}",
                        displayPath(to), flushed.error().sentence)};
    }
    return done();
}

/// Whether a file is a whole catalogue of this program's version or an older one.
Outcome isWhole(SQLite::Database& database, const BytePath& path) {
    const auto damaged = [&](const char* what) {
        return Error{Cause::damaged, path,
                     fmt::format("{} {}. The catalogue was left as it is.", displayPath(path), what)};
    };
    if (database.execAndGet("PRAGMA application_id").getInt() != catalogueApplicationId) {
        return damaged("is not a catalogue of Sober Archivist");
    }
    if (static_cast<std::size_t>(database.execAndGet("PRAGMA user_version").getInt()) >
        schemaSteps().size()) {
        return Error{Cause::newer, path,
                     displayPath(path) + " was written by a newer Sober Archivist; use that program."};
    }
    return database.execAndGet("PRAGMA integrity_check").getString() == "ok" ? done() : damaged("is damaged");
}

} // namespace

Outcome saveCatalogue(const Catalogue& catalogue, const BytePath& to, RunControl& control,
                      const ProgressSink& onProgress) {
    if (isTaken(to)) {
        return Error{Cause::alreadyThere, to, displayPath(to) + " is there already; nothing was saved."};
    }
    return copyTo(to, catalogue.database(), catalogue.path(), control, onProgress);
}

Outcome saveDatabase(const Catalogue& catalogue, const char* schema, const BytePath& to, RunControl& control,
                     const ProgressSink& onProgress) {
    return copyTo(to, catalogue.database(), catalogue.path(), control, onProgress, schema);
}

Result<BytePath> bringCatalogueBack(Catalogue& catalogue, const BytePath& from, RunControl& control,
                                    const ProgressSink& onProgress) {
    if (!isTaken(from)) {
        return Error{Cause::notFound, from, "There is no " + displayPath(from) + "."};
    }
    if (realPathOf(from) == realPathOf(catalogue.path())) {
        return Error{Cause::invalid, from, displayPath(from) + " is the catalogue itself."};
    }
    return guarded(catalogue, [&]() -> Result<BytePath> {
        SQLite::Database saved(from, SQLite::OPEN_READONLY | SQLite::OPEN_NOMUTEX, 5000);
        RETURN_IF_FAILED(isWhole(saved, from));
        const auto kept = freeBeside(catalogue.path(), ".before-bringing-back");
        const auto ignore = [](const Progress&) {};
        if (const auto copied = copyTo(kept, catalogue.database(), catalogue.path(), control, ignore);
            !copied) {
            return copied.error();
        }
        if (!copyAll(catalogue.database(), saved, control, onProgress)) {
            return Error{Cause::interrupted, from, "It was stopped; the catalogue is as it was."};
        }
        bringUpToDate(catalogue.database());
        return kept;
    });
}

Outcome saveBeforeUpdate(SQLite::Database& database, const BytePath& path, std::size_t version) {
    RunControl toTheEnd;
    const auto kept = [&](std::size_t of) { return fmt::format("{}.before-{}", path, of); };
    removePart(kept(version) + ".part"); // of an earlier start that was killed
    auto saved = copyTo(kept(version), database, path, toTheEnd, [](const Progress&) {});
    for (std::size_t older = 1; saved && older < version; ++older) {
        unlink(kept(older).c_str());
    }
    return saved;
}

} // namespace sober
