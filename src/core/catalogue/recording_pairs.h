#pragma once

#include "core/catalogue/catalogue.h"
#include "core/evidence/checksums.h"
#include "core/evidence/compare_decodes.h"

#include <optional>
#include <span>
#include <vector>

namespace sober {

/// Two contents, told by the checksums of their audio data, that were held against each other.
struct RecordingPair {
    Checksum128 first;
    Checksum128 second;
    double bitErrors = 0.5; ///< share of differing fingerprint bits where they overlap
    double offset = 0;      ///< seconds, as in DecodeComparison
    /// Nothing where one of both was away or does not decode: then the fingerprints alone speak.
    std::optional<DecodeComparison> comparison;
};

/// What was found by holding recordings against each other; it outlives moves, renames and new tags.
class RecordingPairs {
  public:
    explicit RecordingPairs(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::vector<RecordingPair>> all() const;
    /// The pair of two contents, in the order they are asked for.
    Result<std::optional<RecordingPair>> of(const Checksum128& first, const Checksum128& second) const;
    /// Adds pairs or writes them anew, and makes the findings stale.
    Outcome put(std::span<const RecordingPair> pairs) const;

  private:
    const Catalogue& catalogue_;
};

/// The same pair seen from the other side.
RecordingPair turned(const RecordingPair& pair);

} // namespace sober
