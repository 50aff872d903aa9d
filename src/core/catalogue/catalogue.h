#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"

#include <functional>
#include <memory>
#include <string>
#include <unordered_map>

namespace SQLite {
class Database;
class Statement;
} // namespace SQLite

namespace sober {

/// The one SQLite file that remembers every volume, holding, finding, decision and deed. Opened by
/// any number of readers and one writer at a time. Not shared between threads: each thread opens
/// its own. The stores beside this header speak its tables; nothing else does.
class Catalogue {
  public:
    /// Creates the file (and its folder) where there is none, takes the writer's lock and brings an
    /// older schema up to date. Refuses, file untouched: a newer catalogue (Cause::newer), a file
    /// that is none or is damaged (damaged), one that another writer holds (busy).
    static Result<Catalogue> openForWriting(const BytePath& path);

    /// Reads alongside a writer. Fails with notFound where there is no catalogue.
    static Result<Catalogue> openForReading(const BytePath& path);

    /// A second connection of the program that holds the writer's lock, so that short decisions do not
    /// wait for long work on another thread.
    static Result<Catalogue> openBeside(const Catalogue& writer);

    ~Catalogue();
    Catalogue(Catalogue&&) noexcept;
    Catalogue& operator=(Catalogue&&) noexcept;

    const BytePath& path() const { return path_; }
    bool canWrite() const { return static_cast<bool>(lock_); }

    /// From any thread: makes the query that runs on this catalogue now end with Cause::interrupted.
    void interrupt();

    /// Does all of `work` with this catalogue or, where it yields an Error, nothing of it.
    Outcome together(const std::function<Outcome()>& work) const;

    /// While it lives, everything that is asked of this catalogue is answered as it was at the first
    /// question: and faster, since each answer needs no lock of its own. Nothing is written meanwhile.
    class Snapshot {
      public:
        explicit Snapshot(const Catalogue& catalogue);
        ~Snapshot();
        Snapshot(const Snapshot&) = delete;
        Snapshot& operator=(const Snapshot&) = delete;

      private:
        const Catalogue& catalogue_;
        bool begun_ = false;
    };

    /// For the stores of this folder.
    SQLite::Database& database() const { return *database_; }
    /// For KeptStatement alone.
    std::unordered_map<std::string, std::unique_ptr<SQLite::Statement>>& keptStatements() const {
        return *kept_;
    }

  private:
    Catalogue(BytePath path, FileHandle lock, std::unique_ptr<SQLite::Database> database);

    BytePath path_;
    FileHandle lock_;
    std::unique_ptr<SQLite::Database> database_;
    std::unique_ptr<std::unordered_map<std::string, std::unique_ptr<SQLite::Statement>>>
        kept_; ///< ends before its database
};

} // namespace sober
