#pragma once

#include "core/catalogue/ledger_records.h"

#include <SQLiteCpp/SQLiteCpp.h>

namespace sober {

/// Writes actions down one after another, by a statement that is prepared once. What is here throws as SQLite
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
    SQLite::Statement& bound(std::optional<SQLite::Statement>& statement, const std::string& sql,
                             const Values&... values);
    template <typename... Values>
    void run(std::optional<SQLite::Statement>& statement, const std::string& sql, const Values&... values);
    /// Holdings that are gone and of which this is true give their place up.
    template <typename... Values>
    void yield(const std::string& which, std::optional<SQLite::Statement>& asked,
               std::optional<SQLite::Statement>& update, const Values&... values);

    SQLite::Database& database_;
    std::optional<SQLite::Statement> mark_;
    std::optional<SQLite::Statement> heldBack_;
    std::optional<SQLite::Statement> yield_;
    std::optional<SQLite::Statement> state_;
    std::optional<SQLite::Statement> remember_;
    std::optional<SQLite::Statement> missedThere_;
    std::optional<SQLite::Statement> yieldPlace_;
    std::optional<SQLite::Statement> place_;
    std::optional<SQLite::Statement> volume_;
    std::optional<SQLite::Statement> writeOff_;
    std::optional<SQLite::Statement> missed_;
    std::optional<SQLite::Statement> offDocket_;
    std::optional<SQLite::Statement> placeOffDocket_;
};

/// What a list was before an action. Nothing where it is not kept, or what is kept cannot be read.
std::optional<std::string> keptList(SQLite::Database& database, std::int64_t action);

/// Keeps what a list was before an action: the whole of it the first time in an entry, from then on what
/// differs from that. Carried out in batches, a long list is changed often.
void keepList(SQLite::Database& database, const LedgerAction& action, std::string_view content);

} // namespace sober
