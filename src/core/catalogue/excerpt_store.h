#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"
#include "core/media/excerpt.h"

namespace SQLite {
class Database;
}

namespace sober {

/// Where the excerpts of a catalogue are: a file of their own beside it, so that it stays as small as it is.
BytePath excerptsPath(const BytePath& catalogue);

struct ExcerptFigures {
    std::uint64_t kept = 0;
    std::uint64_t bytes = 0;   ///< of the file
    std::uint64_t without = 0; ///< examined holdings that are present and have none
};

/// The excerpts of what was examined, by the checksum of its audio: copies share one, what moved or was
/// tagged anew keeps it. Where the file was written by a newer program, all but `open` act as if it were not
/// there.
class ExcerptStore {
  public:
    explicit ExcerptStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// Makes the file where there is none; before the transaction that writes into it. Cause::newer,
    /// Cause::damaged where it cannot be used.
    Outcome open() const;
    Result<std::optional<Excerpt>> of(HoldingId holding) const;
    Result<ExcerptFigures> figures() const;
    /// Takes over what another catalogue keeps of recordings that are known here and have none; yields how
    /// many.
    Result<std::uint64_t> takeFrom(const Catalogue& other) const;
    /// Writes all that is kept into a file of its own; none where nothing is kept.
    Outcome saveAs(const BytePath& to, RunControl& control, const ProgressSink& onProgress) const;
    /// Lets go of those of which no holding is known any more.
    Outcome tidy() const;

  private:
    bool isThere() const;
    const Catalogue& catalogue_;
};

/// Within the writer's transaction.
void writeExcerpt(SQLite::Database& database, const Checksum128& payload, const Excerpt& excerpt);

} // namespace sober
