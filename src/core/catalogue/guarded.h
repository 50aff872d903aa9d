#pragma once

#include "core/base/result.h"
#include "core/catalogue/action_kind.h"
#include "core/catalogue/catalogue.h"
#include "core/evidence/checksums.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <span>
#include <type_traits>

namespace sober {

/// What SQLite's refusal means for a person. Never lets SQL text through.
Error errorOf(const SQLite::Exception& exception, const BytePath& cataloguePath);

/// Runs `work` and turns what SQLiteCpp throws into an Error, so that nothing is thrown past the
/// catalogue. `work` may return void, a value or a Result.
template <typename Work>
auto guarded(const Catalogue& catalogue, Work work) {
    using Value = std::invoke_result_t<Work>;
    if constexpr (std::is_void_v<Value>) {
        try {
            work();
            return done();
        } catch (const SQLite::Exception& exception) {
            return Outcome(errorOf(exception, catalogue.path()));
        }
    } else if constexpr (requires(Value value) { value.error(); }) {
        try {
            return work();
        } catch (const SQLite::Exception& exception) {
            return Value(errorOf(exception, catalogue.path()));
        }
    } else {
        try {
            return Result<Value>(work());
        } catch (const SQLite::Exception& exception) {
            return Result<Value>(errorOf(exception, catalogue.path()));
        }
    }
}

/// All or nothing, begun as a writer, so that nobody who writes meanwhile can make it fail half-way. Rolled
/// back unless it was committed. Within another one it is a part of that, which can't be committed any more
/// once a part was given up. (No savepoint: SQLite would keep every page that each statement changes once
/// more.)
class WritingTransaction {
  public:
    explicit WritingTransaction(SQLite::Database& database);
    ~WritingTransaction();
    WritingTransaction(const WritingTransaction&) = delete;
    WritingTransaction& operator=(const WritingTransaction&) = delete;
    void commit();

  private:
    SQLite::Database& database_;
    bool isInner_;
    bool committed_ = false;
    bool givenUp_ = false; ///< of the outermost one: some part of it was
};

/// While it lives, a writer that has the catalogue is waited for as long as it takes: for what was done on a
/// volume and has to be written down.
class Patience {
  public:
    explicit Patience(SQLite::Database& database);
    ~Patience();
    Patience(const Patience&) = delete;
    Patience& operator=(const Patience&) = delete;

  private:
    SQLite::Database& database_;
    int before_; ///< milliseconds
};

/// Binds a path or checksum as bytes; an empty one as an empty blob, not as NULL.
void bindBytes(SQLite::Statement& statement, int index, std::string_view bytes);
void bindBytes(SQLite::Statement& statement, int index, const Checksum128& checksum);
void bindBytes(SQLite::Statement& statement, int index, std::span<const Checksum128> checksums);

/// Binds an id; 0 as NULL.
void bindId(SQLite::Statement& statement, int index, std::int64_t id);

BytePath bytesOf(const SQLite::Column& column);
Checksum128 checksumOf(const SQLite::Column& column);
std::uint64_t countAt(SQLite::Statement& row, int column);
/// A word that stands for no kind is damage.
ActionKind kindOf(const SQLite::Column& column);

/// The names of a table's columns in their order, as a list; without one of them.
std::string columnsOf(SQLite::Database& database, const std::string& table, std::string_view but = {});

/// "?,?,?" for `count` values.
std::string placeholders(std::size_t count);

} // namespace sober
