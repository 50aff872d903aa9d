#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/records.h"

#include <span>

namespace sober {

using SetId = std::int64_t;

/// The present holdings that carry one content, as the audit found them. "Files" counts hard links
/// to one file once; `reclaimable` is what keeping one file of the set would free, in bytes.
struct CopySet {
    SetId id = 0;
    Checksum128 checksum;
    std::uint64_t size = 0;
    std::uint64_t members = 0;
    std::uint64_t files = 0;
    std::uint64_t volumes = 0;
    std::uint64_t reclaimable = 0;
};

/// What the custodian has said of a set so far.
struct SetDecision {
    std::optional<HoldingId> keeper;
    bool leftAlone = false;
    std::uint64_t onDocket = 0; ///< members that the docket retires
};

enum class SetOrder {
    mostBytes,
    mostMembers,
};

/// Which sets a list shows.
struct SetFilter {
    std::string text;               ///< part of a member's path, title, artist or album; "" for all
    std::optional<VolumeId> volume; ///< with at least one member there
    bool undecidedOnly = false;
    std::optional<HoldingFilter> list; ///< with at least one member that a standing list means
};

struct SetTotals {
    std::uint64_t sets = 0;
    std::uint64_t reclaimable = 0; ///< bytes
};

struct VolumeFigures {
    VolumeId volume = 0;
    std::uint64_t holdings = 0; ///< present
    std::uint64_t bytes = 0;
    double duration = 0;
    std::uint64_t heldOnce = 0;
    std::uint64_t inSets = 0;
    std::uint64_t missing = 0;
    std::uint64_t troubled = 0; ///< could not be opened as audio, or do not decode whole
    std::uint64_t examined = 0; ///< at full effort, or cannot be opened at all
    std::uint64_t claims = 0;   ///< evidence contradicts what the file claims; accepted ones left out
};

struct FolderFigures {
    VolumeId volume = 0;
    BytePath path; ///< relative, "" for the root itself
    int depth = 0; ///< 1: folders directly in the root (files deeper are counted there too), 2: those below
    std::uint64_t holdings = 0;
    std::uint64_t bytes = 0;
    std::uint64_t inSets = 0;
    std::uint64_t missing = 0;
    std::uint64_t troubled = 0;
    std::uint64_t claims = 0;
};

struct SurveyChange {
    VolumeId volume = 0;
    HoldingId holding = 0;
    std::string kind; ///< "added", "changed", "moved", "missing", "returned"
    BytePath pathBefore;
};

/// What the rules of audit/ have made of the catalogue, and what the last survey of each volume met.
class Findings {
  public:
    explicit Findings(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// True where the catalogue has changed since the findings were made.
    Result<bool> areStale() const;
    Outcome markStale() const;
    /// Replaces all findings at once; they are fresh afterwards.
    Outcome replace(std::span<const CopySet> sets, std::span<const VolumeFigures> volumes,
                    std::span<const FolderFigures> folders) const;

    Result<std::vector<SetId>> setOrder(SetOrder order, const SetFilter& filter) const;
    Result<std::vector<CopySet>> sets(std::span<const SetId> ids) const;
    Result<std::optional<CopySet>> setOf(const Checksum128& checksum) const;
    Result<SetTotals> setTotals() const;
    Result<std::vector<VolumeFigures>> volumeFigures() const;
    /// Folders of one depth in one volume, by path; with `within` only that folder and those below.
    Result<std::vector<FolderFigures>> folderFigures(VolumeId volume, int depth,
                                                     const BytePath& within = {}) const;
    /// Duration of present holdings by volume, in seconds.
    Result<std::vector<std::pair<VolumeId, double>>> durations() const;

    Result<std::vector<SurveyError>> surveyErrors() const;
    Result<std::vector<SurveyChange>> surveyChanges() const;

    Result<SetDecision> decisionOn(const Checksum128& checksum) const;
    Outcome decide(const Checksum128& checksum, std::optional<HoldingId> keeper, bool leftAlone) const;
    Outcome forgetDecision(const Checksum128& checksum) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
