#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"
#include "core/evidence/drift.h"

#include <functional>
#include <span>
#include <unordered_map>

namespace SQLite {
class Database;
}

namespace sober {

using CheckId = std::int64_t;

enum class CheckScope {
    whole = 0,
    due = 1,    ///< what was not read for longer than the volume's period
    sample = 2, ///< some, chosen by chance
};

/// One verification of one volume.
struct FixityCheck {
    CheckId id = 0;
    VolumeId volume = 0;
    Nanoseconds began = 0;
    Nanoseconds ended = 0; ///< 0: was not ended
    CheckScope scope = CheckScope::whole;
    bool strong = false;       ///< by SHA-256 too
    std::uint64_t planned = 0; ///< holdings
    std::uint64_t checked = 0;
    std::uint64_t bytes = 0;
    std::uint64_t drifted = 0;
    std::uint64_t unreadable = 0; ///< holdings of which some could not be read
};

/// A holding whose content is no longer what was recorded, with what was recorded.
struct Drift {
    HoldingId holding = 0;
    DriftKind kind = DriftKind::audioAltered;
    Nanoseconds found = 0;
    FixityFacts recorded;         ///< the baseline
    std::optional<Sha256> sha256; ///< of the baseline, where it is known
    Nanoseconds accepted = 0;     ///< 0: not accepted
    std::string reason;           ///< why it was

    /// False where the baseline is a list that another tool made: its SHA-256 at most is known.
    bool isFullyKnown() const { return recorded.content != Checksum128{}; }
    bool isBaseline(const FileChecksums& checksums) const {
        return isFullyKnown() ? checksums.file == recorded.content : sha256 && checksums.sha256 == sha256;
    }
};

/// Baselines, checks and drift. What was first recorded of a holding is its baseline; when its content
/// becomes another, the baseline is kept beside it until the custodian accepts the change or the content is
/// back.
class FixityStore {
  public:
    explicit FixityStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// A present or missing holding as it was recorded; of a volume they come by path.
    struct Recorded {
        HoldingId id = 0;
        BytePath path;
        HoldingState state = HoldingState::present;
        std::uint64_t size = 0;
        Nanoseconds mtime = 0;
        Nanoseconds verified = 0; ///< or recorded, whichever is later
        bool drifted = false;     ///< not accepted so far
    };
    Outcome eachRecordedOn(VolumeId volume, const std::function<void(const Recorded&)>& visit) const;
    Result<std::vector<Recorded>> recorded(std::span<const HoldingId> ids) const;
    /// How many holdings of a volume are present, and how many of those were last read before a time.
    struct Standing {
        std::uint64_t holdings = 0;
        std::uint64_t readBefore = 0;
    };
    Result<Standing> standingOf(VolumeId volume, Nanoseconds before) const;
    Result<std::vector<Checksum128>> blocksOf(HoldingId holding) const;
    /// Everything that is known of a holding now, as facts to compare with.
    Result<std::optional<FixityFacts>> factsOf(HoldingId holding) const;

    Result<CheckId> beginCheck(const FixityCheck& check) const;
    /// Counts, and the end where `ended` is set.
    Outcome updateCheck(const FixityCheck& check) const;
    /// Newest first.
    Result<std::vector<FixityCheck>> checks() const;
    /// These were read now and are what was recorded.
    Outcome markVerified(std::span<const HoldingId> holdings, Nanoseconds time) const;
    Outcome noteUnreadable(HoldingId holding,
                           std::span<const std::pair<std::uint64_t, std::uint64_t>> ranges) const;
    Result<std::vector<std::pair<std::uint64_t, std::uint64_t>>> unreadableOf(HoldingId holding) const;

    /// Of present holdings, not accepted, the latest found first.
    Result<std::vector<Drift>> open() const;
    Result<std::optional<Drift>> of(HoldingId holding) const;
    /// Drifted holdings, accepted or not, of which this was the baseline.
    Result<std::vector<HoldingId>> driftedFrom(const Checksum128& baseline) const;
    /// A file on no volume, a backup or a bag say, that was read and had this content.
    Outcome noteOutside(const BytePath& path, const Checksum128& content) const;
    /// Absolute paths, as they were noted.
    Result<std::vector<BytePath>> outsideCopiesOf(const Checksum128& content) const;
    /// What is looked for elsewhere: the baselines of what has drifted and what is recorded of the missing,
    /// by size.
    Result<std::unordered_map<std::uint64_t, std::vector<Checksum128>>> lost() const;
    /// A list says that its content should be another. Where drift is open already, that stays.
    Outcome noteListedOtherwise(HoldingId holding, const std::optional<Sha256>& listed, DriftKind kind) const;
    /// Present holdings, on any volume, that carry the baseline.
    Result<std::vector<Holding>> carriersOf(const Drift& drift) const;
    /// The content as it is now becomes the baseline. Cause::invalid where nothing has drifted.
    Outcome accept(HoldingId holding, const std::string& reason) const;
    Outcome withdrawAcceptance(HoldingId holding) const;

    /// Days after which a holding of the volume is due to be read again.
    Result<int> periodOf(VolumeId volume) const;
    Outcome setPeriod(VolumeId volume, int days) const;

  private:
    const Catalogue& catalogue_;
};

/// For the writers of this folder, within their transaction and before the holding is rewritten: keeps the
/// baseline and says how the content differs from it, or forgets it where the content is the baseline again.
/// Of content that is known to differ, what was measured since may say better in which way.
void keepBaseline(SQLite::Database& database, HoldingId holding, const FileRecord& now);
/// Makes what was seen elsewhere, before a holding was first seen here, its baseline; where it has one that
/// stays, accepted or not.
void giveBaseline(SQLite::Database& database, HoldingId holding, const FileRecord& before);

} // namespace sober
