#pragma once

#include "core/catalogue/holding_filter.h"
#include "core/catalogue/text_match.h"

#include <SQLiteCpp/SQLiteCpp.h>

#include <vector>

namespace sober {

/// A filter as a condition in SQL. Only for the stores of this folder. In the statement it goes into,
/// `h` is a row of holdings and `e` its row of evidence, joined from the left.
class FilterClause {
  public:
    FilterClause(SQLite::Database& database, const HoldingFilter& filter);

    /// "1" where everything is meant.
    const std::string& sql() const { return sql_; }
    /// It names few holdings beforehand, so that a search had best begin with them.
    bool meansFew() const { return meansFew_; }
    /// That a holding is present. Where few are meant SQLite must not begin with all that are.
    const char* present() const { return meansFew_ ? "+h.state = 0" : "h.state = 0"; }
    /// Binds from `at` on; returns the next free index.
    int bindTo(SQLite::Statement& statement, int at) const;

  private:
    enum class Form {
        number,
        real,
        text,
        bytes,
    };
    struct Bound {
        Form form;
        std::int64_t number;
        std::string text;
        double real = 0;
    };
    void also(const std::string& condition);
    void alsoText(SQLite::Database& database, const std::string& text);
    template <typename T>
    void alsoWithin(const std::string& value, const Span<T>& span);
    std::string sql_;
    bool meansFew_ = false;
    std::optional<TextMatch> text_; ///< the first of what is bound
    std::vector<Bound> values_;
};

/// True where a holding's recording was accepted as it is: by its audio data or its samples.
inline constexpr const char* acceptedSql =
    "(EXISTS(SELECT 1 FROM acceptances a WHERE a.payload = e.payload) OR (e.samples_md5 IS NOT NULL AND "
    "EXISTS(SELECT 1 FROM acceptances a WHERE a.samples_md5 = e.samples_md5)))";

/// True where what was measured contradicts what is claimed, and nobody accepted that.
inline const std::string contradictedSql = std::string("(e.verdict IN (1, 2) AND NOT ") + acceptedSql + ")";

/// True for an entry `r` of a list that leads to its holding `h`, or led to it when that was last there.
inline constexpr const char* leadsSql = "(r.holding = h.id AND (r.state <> 2 OR h.state = 1))";

} // namespace sober
