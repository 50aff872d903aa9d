#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"
#include "core/evidence/evidence.h"

#include <functional>
#include <span>
#include <unordered_set>

namespace SQLite {
class Database;
}

namespace sober {

/// One examined holding in the picture of claims and evidence.
struct ClaimPoint {
    HoldingId holding = 0;
    VerdictClass verdict = VerdictClass::undetermined;
    bool accepted = false;
    bool lossless = false;
    int bitDepth = 0;
    int sampleRate = 0;       ///< Hz
    std::int64_t bitrate = 0; ///< bit/s, as stated
    float cutoff = 0;         ///< Hz, as measured; 0 where it was not
    float confidence = 0;
};

/// Why a recording is kept as it is.
struct Acceptance {
    std::string reason;
    Nanoseconds accepted = 0;
};

/// What an audit needs to compare holdings that may be the same recording.
struct ComparableHolding {
    HoldingId holding = 0;
    VolumeId volume = 0;
    std::string title;   ///< as tagged, else the name of the file without its ending
    bool tagged = false; ///< the title is from the tags
    std::string artist;
    std::string codec;
    bool lossless = false;
    std::int64_t bitrate = 0;
    double duration = 0;
    bool underLimit = false;
    VerdictClass verdict = VerdictClass::undetermined;
    bool sound = true;
    Checksum128 content; ///< of the whole file
    std::uint64_t size = 0;
    Checksum128 payload;
    std::optional<Md5> samples;
    bool silent = false;
    bool isInside = false; ///< an archive
};

/// The better copies of one holding, the best first.
struct BetterCopies {
    HoldingId holding = 0;
    std::vector<HoldingId> better;
};

/// What was measured of holdings, and what the custodian has said of it.
class EvidenceStore {
  public:
    explicit EvidenceStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// Everything that was measured of a holding; nothing where it was not examined.
    Result<std::optional<Evidence>> of(HoldingId holding) const;
    /// The verdict on a holding and whether it decodes whole; nothing where it was not examined.
    struct Judged {
        VerdictClass verdict = VerdictClass::undetermined;
        bool sound = true;
    };
    Result<std::optional<Judged>> judged(HoldingId holding) const;
    /// Present, examined holdings that a filter means: the worst first.
    Result<std::vector<ClaimPoint>> points(const HoldingFilter& filter) const;
    /// Present holdings that a filter means, examined or not, by volume and path.
    Result<std::vector<HoldingId>> meant(const HoldingFilter& filter) const;
    Result<std::uint64_t> count(const HoldingFilter& filter) const;
    /// Codecs of present, examined holdings, by name.
    Result<std::vector<std::string>> codecs() const;

    /// Examined holdings that do not decode whole; those whose evidence contradicts their claim.
    Result<std::unordered_set<HoldingId>> unsound() const;
    Result<std::unordered_set<HoldingId>> contradicted() const;
    /// Present holdings that were recorded so and are not sound, or of which something odd was remarked, the
    /// unsound first, then by volume and path.
    Result<std::vector<HoldingId>> flawed() const;
    Result<std::vector<std::pair<VolumeId, std::uint64_t>>> examinedByVolume() const;

    Outcome eachComparable(const std::function<void(const ComparableHolding&)>& visit) const;
    /// The present, examined members of each copy set in turn; those of which only the tags look alike are no
    /// set.
    Outcome eachSet(const std::function<void(const std::vector<ComparableHolding>&)>& visit) const;
    /// Of many, in their order, as packFingerprint made them; empty where there is none.
    Result<std::vector<std::string>> packedFingerprints(std::span<const HoldingId> holdings) const;
    Outcome replaceBetterCopies(std::span<const BetterCopies> found) const;
    /// The best of a holding's better copies, where one is known and present.
    Result<std::optional<HoldingId>> betterThan(HoldingId holding) const;

    Result<std::optional<Acceptance>> acceptanceOf(HoldingId holding) const;
    /// Remembers it by the recording's audio data and samples, so that it holds for every copy,
    /// wherever it moves. Cause::invalid where the holding was not examined.
    Outcome accept(HoldingId holding, const std::string& reason) const;
    Outcome withdrawAcceptance(HoldingId holding) const;

    /// Bits a second below which a holding of this codec counts as low.
    Result<std::vector<std::pair<std::string, std::int64_t>>> bitrateLimits() const;
    /// Whether a holding is lossy and below the bitrate set for its codec.
    Result<bool> isUnderLimit(HoldingId holding) const;
    Outcome setBitrateLimit(const std::string& codec, std::int64_t bitrate) const;

  private:
    const Catalogue& catalogue_;
};

/// For the writers of this folder, within their transaction.
void writeEvidence(SQLite::Database& database, HoldingId holding, const Evidence& evidence);
void forgetEvidence(SQLite::Database& database, HoldingId holding);

} // namespace sober
