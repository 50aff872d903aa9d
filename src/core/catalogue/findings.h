#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"
#include "core/catalogue/holding_writer.h"
#include "core/catalogue/records.h"

#include <functional>
#include <span>

namespace sober {

using SetId = std::int64_t;

/// How two holdings are the same, the strongest first.
enum class Sameness {
    bytes = 0,
    payload,     ///< the same audio data under other tags or in another container
    samples,     ///< the same samples in another lossless codec
    lossyCopy,   ///< the same recording through a lossy encoder or at another rate
    otherMaster, ///< the same recording at another level, equalised, in mono, transferred anew
    part,        ///< the same recording, shorter or longer
    tagsOnly,    ///< only the tags look alike: no copy
};

/// The present holdings that carry one recording, as the audit found them. "Files" counts hard links
/// to one file once; `reclaimable` is what keeping one file of the set would free, in bytes, other masters
/// and parts left out.
struct CopySet {
    SetId id = 0;
    /// Tells the set from others for as long as no content joins or leaves it: where all its bytes are the
    /// same their checksum, else the checksum of all contents' checksums.
    Checksum128 content;
    Sameness sameness = Sameness::bytes; ///< the weakest link that holds it together
    std::uint64_t size = 0;              ///< bytes of the largest member
    std::uint64_t members = 0;
    std::uint64_t files = 0;
    std::uint64_t volumes = 0;
    std::uint64_t reclaimable = 0;
    bool doubt = false; ///< holds a member that is damaged or not what it claims to be

    auto operator<=>(const CopySet&) const = default;
};

/// A set with the members that the audit gave it.
struct FoundSet {
    CopySet set;
    std::vector<HoldingId> members;
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
    mostDoubt,    ///< those that hold something damaged or false first
    weakestFirst, ///< those whose link is weakest first: the riskiest to decide in bulk
};

/// Which sets a list shows.
struct SetFilter {
    std::string text;               ///< what a member is found by, as in HoldingFilter; "" for all
    std::optional<VolumeId> volume; ///< with at least one member there
    bool undecidedOnly = false;
    /// Sets held together by one kind of link; nothing for all but those of which only the tags look alike.
    std::optional<Sameness> sameness;
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

    auto operator<=>(const FolderFigures&) const = default;
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
    /// Replaces all findings at once, with what `follow` makes of the new sets; they are fresh afterwards.
    /// Only what differs is written, and a set that stays keeps its id,
    /// also where a member of it has other bytes now.
    Outcome replace(std::span<const FoundSet> sets, std::span<const VolumeFigures> volumes,
                    std::span<const FolderFigures> folders, const std::function<Outcome()>& follow) const;

    Result<std::vector<SetId>> setOrder(SetOrder order, const SetFilter& filter) const;
    /// The first of them; sooner, where many are meant.
    Result<std::vector<SetId>> firstSets(SetOrder order, const SetFilter& filter, int most) const;
    Result<std::vector<CopySet>> sets(std::span<const SetId> ids) const;
    /// The copy set that a holding belongs to.
    Result<std::optional<CopySet>> setOf(HoldingId holding) const;
    /// Members of a set that are present, by volume and path.
    Result<std::vector<HoldingId>> membersOf(SetId set) const;
    Result<SetTotals> setTotals() const;
    Result<std::vector<VolumeFigures>> volumeFigures() const;
    /// Folders of one depth in one volume, by path; with `within` only that folder and those below.
    Result<std::vector<FolderFigures>> folderFigures(VolumeId volume, int depth,
                                                     const BytePath& within = {}) const;
    /// Duration of present holdings by volume, in seconds.
    Result<std::vector<std::pair<VolumeId, double>>> durations() const;

    Result<std::vector<SurveyError>> surveyErrors() const;
    Result<std::vector<SurveyChange>> surveyChanges() const;

    Result<SetDecision> decisionOn(const CopySet& set) const;
    Outcome decide(const Checksum128& content, std::optional<HoldingId> keeper, bool leftAlone) const;
    Outcome forgetDecision(const Checksum128& content) const;

  private:
    Result<std::vector<SetId>> setsIn(SetOrder order, const SetFilter& filter, std::optional<int> most) const;
    const Catalogue& catalogue_;
};

} // namespace sober
