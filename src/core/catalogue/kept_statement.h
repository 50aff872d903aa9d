#pragma once

#include "core/catalogue/catalogue.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <memory>
#include <string>
#include <unordered_map>

namespace sober {

/// What a catalogue has prepared and nobody asks at the moment, by its text.
using KeptStatements = std::unordered_map<std::string, std::unique_ptr<SQLite::Statement>>;

/// A question that is asked for one holding after another: prepared once for each catalogue, and lent to one
/// asker at a time. Its text has no values in it. Throws what SQLiteCpp does, as within guarded().
class KeptStatement {
  public:
    KeptStatement(const Catalogue& catalogue, std::string sql);
    ~KeptStatement();
    KeptStatement(const KeptStatement&) = delete;
    KeptStatement& operator=(const KeptStatement&) = delete;

    SQLite::Statement& operator*() const { return *statement_; }
    SQLite::Statement* operator->() const { return statement_.get(); }

  private:
    KeptStatements& kept_;
    std::string sql_;
    std::unique_ptr<SQLite::Statement> statement_;
};

} // namespace sober
