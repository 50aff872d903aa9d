#pragma once

#include "core/catalogue/catalogue.h"

#include <cstdint>
#include <string>
#include <vector>

namespace SQLite {
class Statement;
} // namespace SQLite

namespace sober {

/// What somebody typed to find holdings by, as conditions in SQL: words that all have to be part of a
/// holding's path, title, artist, album or date, or of the name of a list that leads to it; letter case and
/// accents aside. What stands between double quotes is one word with its spaces. Only for the stores of this
/// folder.
class TextMatch {
  public:
    TextMatch(SQLite::Database& database, const std::string& text);

    bool isEmpty() const { return words_.empty(); }
    /// For `search_index MATCH ?`: what every holding that is meant has in its text. "" where nothing is
    /// known beforehand: words of one or two letters, or that a list's name holds too.
    const std::string& expression() const { return expression_; }
    /// Whether a row `t` of search_texts with its row `h` of holdings is meant, to be bound with `bindTo`.
    const std::string& sql() const { return sql_; }
    /// Binds what `sql` asks for from `at` on; returns the next free index.
    int bindTo(SQLite::Statement& statement, int at) const;

  private:
    std::vector<std::string> words_;
    std::string expression_;
    std::string sql_;
};

} // namespace sober
