#pragma once

#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

namespace sober {

/// What was once catalogued at a place where it is no more.
struct FormerHolding {
    HoldingId id = 0;
    Checksum128 content;
    std::uint64_t size = 0;
    double seconds = 0;
    std::string title;
    std::string artist;
    std::string album;
};

/// A present holding that may carry the same recording as one that is gone.
struct Relative {
    HoldingId id = 0;
    bool sameAudio = false; ///< the same audio data or samples; else they were compared: see RecordingPairs
    Checksum128 ownPayload;
    Checksum128 otherPayload;
};

/// What the catalogue remembers of places: holdings that are missing, retired or elsewhere now.
class FormerPlaces {
  public:
    explicit FormerPlaces(const Catalogue& catalogue) : catalogue_(catalogue) {}

    /// What stood at each of these absolute paths, in their order.
    Result<std::vector<std::vector<FormerHolding>>> at(std::span<const BytePath> places) const;
    /// Those holdings, as they are known.
    Result<std::vector<FormerHolding>> byIds(std::span<const HoldingId> ids) const;
    /// Present holdings with the same audio data or the same samples as this one has or had, and those whose
    /// audio data were once compared with its own.
    Result<std::vector<Relative>> relativesOf(HoldingId holding) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
