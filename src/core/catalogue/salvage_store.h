#pragma once

#include "core/base/byte_ranges.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

#include <functional>
#include <map>
#include <span>

namespace sober {

using SalvageSourceId = std::int64_t;
using FindId = std::int64_t;

/// How a find was met.
enum class FoundHow {
    trash = 0,
    entry = 1,  ///< a file system still names it
    carved = 2, ///< by its format's rules
    blocks = 3, ///< put together from blocks that the catalogue remembers
};
std::string_view word(FoundHow how);

/// By what a find was recognised, the surest first.
enum class RecognisedBy {
    nothing = 0,
    bytes = 1,
    payload = 2,
    samples = 3,
    blocks = 4,
    fingerprint = 5,
    tags = 6,
};
std::string_view word(RecognisedBy by);

enum class SalvageState {
    scanning = 0,  ///< begun, and not at the end of the image
    examining = 1, ///< all is scanned; not every find was examined
    done = 2,
};

/// An image that was scanned, or the trash folders of all that is at hand.
struct SalvageSource {
    SalvageSourceId id = 0;
    BytePath path; ///< absolute; "" stands for the trash
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;
    unsigned kinds = 0;      ///< that were looked for (PieceKinds)
    bool everywhere = false; ///< where files stand that a file system gives out, too
    std::uint64_t reached = 0;
    SalvageState state = SalvageState::scanning;
    Nanoseconds began = 0;
    std::string fileSystems;                ///< "fat32", for a person
    std::vector<ByteRange> passedOver = {}; ///< stretches on which what looks for audio broke

    bool isTrash() const { return path.empty(); }
};

/// Audio that salvage met.
struct Find {
    FindId id = 0;
    SalvageSourceId source = 0;
    FoundHow how = FoundHow::carved;
    std::string format;             ///< a PieceKind's word
    std::vector<ByteRange> extents; ///< of the image; none of what lies in a trash
    std::uint64_t bytes = 0;
    double seconds = 0;
    BytePath name; ///< "" where it has none any more
    BytePath from; ///< where it was: absolute, of what lies in a trash; within its file system in an image
    BytePath file; ///< absolute, in a trash: where it lies now; "" in an image
    Nanoseconds deleted = 0; ///< 0: not known
    bool begins = true;
    bool ends = false;
    bool overwritten = false; ///< some of it belongs to another file now
    std::optional<bool> sound;
    std::optional<double> complete; ///< share of it that is there, where that can be told
    std::optional<Checksum128> checksum;
    Tags tags;
    std::string fingerprint; ///< packed
    HoldingId holding = 0;   ///< that it is recognised as
    RecognisedBy recognised = RecognisedBy::nothing;
    double agreement = 0; ///< of fingerprints: 1 less the share of differing bits
    FindId kin = 0;       ///< the first of those that sound like it, itself among them
    bool examined = false;
    BytePath taken;               ///< absolute: where it was taken to; "" while it was not
    std::vector<BytePath> others; ///< absolute: files that lend what is lost in the image (HelpedSource)
    std::string piece; ///< of what breaks off or begins in its middle: what its format counts, packed

    std::uint64_t firstByte() const { return extents.empty() ? 0 : extents.front().first; }
    /// All of it is there, as far as its examination can tell.
    bool isWhole() const;
    /// Its own name, or one that tells its place and format.
    BytePath nameOrPlace() const;
};

/// Where the bytes of a find lie, as the docket keeps it.
struct FindBytes : PlacedBytes {
    Checksum128 checksum; ///< of all of it, as it was examined
    FindId find = 0;

    std::uint64_t size() const { return lengthOf(extents); }
};
std::string packFindBytes(const FindBytes& bytes);
/// Nothing where the bytes are no such thing.
std::optional<FindBytes> unpackFindBytes(std::string_view packed);

/// What salvage met, as it is kept in the catalogue.
class SalvageStore {
  public:
    explicit SalvageStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// Newest first, the trash left out.
    Result<std::vector<SalvageSource>> images() const;
    Result<std::optional<SalvageSource>> sourceOf(const BytePath& path) const;
    Result<SalvageSource> source(SalvageSourceId id) const;
    /// Begins a source anew: what was found of it before is forgotten.
    Result<SalvageSourceId> begin(const SalvageSource& source) const;
    Outcome forget(SalvageSourceId id) const;

    /// Takes in what a stretch yielded, and how far the scan has come: all or nothing. Ids are set.
    Outcome advance(const SalvageSource& source, std::span<Find> found,
                    std::span<const std::pair<std::uint64_t, std::uint64_t>> starts = {}) const;
    /// Writes all of a find but its place.
    Outcome update(std::span<const Find> finds) const;
    Outcome remove(std::span<const FindId> finds) const;
    /// Those of a source, by their place.
    Result<std::vector<Find>> finds(SalvageSourceId source) const;
    Result<std::vector<Find>> taken() const;
    /// Finds of what is missing that were not taken.
    Result<std::uint64_t> waitingForHome() const;
    Result<std::vector<Find>> byIds(std::span<const FindId> ids) const;
    /// Where beginnings of remembered parts were met: place and checksum.
    Result<std::vector<std::pair<std::uint64_t, std::uint64_t>>> starts(SalvageSourceId source) const;

    /// What is remembered of the parts of missing holdings.
    struct Remembered {
        HoldingId holding = 0;
        std::uint64_t size = 0;
        Checksum128 checksum;
        std::vector<PartChecksum> parts;
    };
    /// Files of these lengths that may lend (absolute): present holdings, then what lies in the trash.
    Result<std::multimap<std::uint64_t, BytePath>> filesOfSizes(std::span<const std::uint64_t> sizes) const;
    Outcome eachMissing(const std::function<void(Remembered&&)>& visit) const;

    /// Holdings that carry something, in any state, missing ones first, then present ones.
    Result<std::vector<HoldingId>> withBytes(const Checksum128& checksum) const;
    Result<std::vector<HoldingId>> withPayload(const Checksum128& payload) const;
    Result<std::vector<HoldingId>> withSamples(std::span<const std::uint8_t> md5) const;
    /// All that are missing or present and have a title and an artist.
    struct Titled {
        HoldingId holding = 0;
        double seconds = 0;
        std::string title;
        std::string artist;
    };
    Outcome eachTitled(const std::function<void(Titled&&)>& visit) const;
    /// All that are missing or present and have a fingerprint, packed.
    Outcome eachFingerprint(const std::function<void(HoldingId, std::string_view)>& visit) const;
    /// The newest entry of the ledger that put a file aside there (absolute); 0 where none did.
    Result<EntryId> entryThatSetAside(const BytePath& aside) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
