#pragma once

#include "core/catalogue/ledger_records.h"

#include <SQLiteCpp/SQLiteCpp.h>

namespace sober {

/// Writes actions down one after another, by a statement that is prepared once. Both classes throw as SQLite
/// does, within the transaction of who calls.
class LedgerStarting {
  public:
    explicit LedgerStarting(SQLite::Database& database);
    /// Its id is set.
    void start(LedgerAction& action);

  private:
    SQLite::Database& database_;
    SQLite::Statement write_;
};

/// Says how actions ended; the statements that this takes are prepared once for many actions.
class LedgerSettling {
  public:
    explicit LedgerSettling(SQLite::Database& database) : database_(database) {}

    void settle(const Settlement& each);
    void mark(const LedgerAction& action, ActionStep step, const std::string& sentence);

  private:
    void setState(HoldingId holding, HoldingState state);
    void move(HoldingId holding, VolumeId volume, const BytePath& path);
    template <typename... Values>
    void run(std::optional<SQLite::Statement>& statement, const char* sql, const Values&... values);

    SQLite::Database& database_;
    std::optional<SQLite::Statement> mark_;
    std::optional<SQLite::Statement> yield_;
    std::optional<SQLite::Statement> state_;
    std::optional<SQLite::Statement> remember_;
    std::optional<SQLite::Statement> yieldPlace_;
    std::optional<SQLite::Statement> place_;
    std::optional<SQLite::Statement> writeOff_;
    std::optional<SQLite::Statement> missed_;
    std::optional<SQLite::Statement> offDocket_;
    std::optional<SQLite::Statement> placeOffDocket_;
};

} // namespace sober
