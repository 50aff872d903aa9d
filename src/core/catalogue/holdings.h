#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/holding_filter.h"
#include "core/catalogue/records.h"

#include <functional>
#include <span>

namespace sober {

/// What the audit needs of each holding, in as few bytes as that takes.
struct HoldingOutline {
    HoldingId id;
    VolumeId volume;
    BytePath path;
    HoldingState state;
    std::uint64_t size;
    bool troubled;
};

/// What a present holding says of itself, for finding it under another name.
struct PresentHolding {
    HoldingId id;
    VolumeId volume;
    BytePath path; ///< relative to the volume's root
    std::uint64_t size;
    double seconds;
    std::string title;
    std::string artist;
    std::string album;
    Checksum128 checksum;
};

/// One holding of those whose content more than one present holding carries.
struct Duplicated {
    HoldingId id;
    VolumeId volume;
    Checksum128 checksum;
    std::uint64_t size;
    std::uint64_t inode;
    std::uint64_t links;
};

/// A missing holding's remembered folder and, where present holdings have the same content, the
/// place of one of them.
struct MissingFolder {
    VolumeId volume;
    BytePath folder;
    std::optional<VolumeId> foundVolume;
    BytePath foundFolder;
    std::uint64_t count;
};

/// Reads about holdings. Writing is for HoldingWriter (survey) and the ledger (remedy).
class Holdings {
  public:
    explicit Holdings(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// Those with these ids, in the order of `ids`; ids that do not exist are left out.
    Result<std::vector<Holding>> byIds(std::span<const HoldingId> ids) const;
    /// The holding at a place, retired ones left out.
    Result<std::optional<Holding>> at(VolumeId volume, const BytePath& path) const;
    /// Present holdings with this content, by volume and path.
    Result<std::vector<Holding>> carrying(const Checksum128& checksum) const;
    /// The same by SHA-256, of those of which it is known.
    Result<std::vector<Holding>> carrying(const Sha256& digest) const;
    /// Present and missing ones that last so long by what they claim, in seconds; by volume and path.
    Result<std::vector<Holding>> lasting(double least, double most) const;
    /// Missing holdings by volume and path: those that `text` means (as in HoldingFilter), and a standing
    /// list.
    Result<std::vector<HoldingId>> missing(const std::string& text = {},
                                           const std::optional<HoldingFilter>& list = {}) const;
    /// Where the missing were and where their content is now, most first.
    Result<std::vector<MissingFolder>> missingFolders() const;
    /// Every codec that a holding claims, by name.
    Result<std::vector<std::string>> codecs() const;
    /// Up to `limit` present holdings of a volume, spread over its ids.
    Result<std::vector<Holding>> sample(VolumeId volume, int limit) const;

    /// Every present or missing holding by volume and path.
    Outcome eachOutline(const std::function<void(const HoldingOutline&)>& visit) const;
    /// Every present holding.
    Outcome eachPresent(const std::function<void(PresentHolding&&)>& visit) const;
    /// Artist, genre and place of every present holding that names its artist.
    Outcome eachFiled(const std::function<void(const std::string& artist, const std::string& genre,
                                               VolumeId volume, const BytePath& path)>& visit) const;
    /// Every present holding whose content is present more than once, grouped by checksum.
    Outcome eachDuplicated(const std::function<void(const Duplicated&)>& visit) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
