#pragma once

#include "core/catalogue/holding_filter.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <vector>

namespace sober {

/// A filter as a condition in SQL. Only for the stores of this folder. In the statement it goes into,
/// `h` is a row of holdings and `e` its row of evidence, joined from the left.
class FilterClause {
  public:
    explicit FilterClause(const HoldingFilter& filter);

    /// "1" where everything is meant.
    const std::string& sql() const { return sql_; }
    /// Binds from `at` on; returns the next free index.
    int bindTo(SQLite::Statement& statement, int at) const;

  private:
    enum class Form {
        number,
        text,
        bytes,
    };
    struct Bound {
        Form form;
        std::int64_t number;
        std::string text;
    };
    void also(const std::string& condition);
    std::string sql_;
    std::vector<Bound> values_;
};

/// True where a holding's recording was accepted as it is: by its audio data or its samples.
inline constexpr const char* acceptedSql =
    "(EXISTS(SELECT 1 FROM acceptances a WHERE a.payload = e.payload) OR (e.samples_md5 IS NOT NULL AND "
    "EXISTS(SELECT 1 FROM acceptances a WHERE a.samples_md5 = e.samples_md5)))";

} // namespace sober
