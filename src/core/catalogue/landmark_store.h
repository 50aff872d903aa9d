#pragma once

#include "core/catalogue/catalogue.h"
#include "core/evidence/checksums.h"
#include "core/evidence/landmarks.h"

namespace sober {

/// A content whose landmarks are kept.
struct LandmarkOwner {
    std::uint32_t number = 0; ///< never given twice
    Checksum128 payload;
};

/// Two contents whose fingerprints agree well enough to be compared, whenever that is.
struct MetPair {
    std::uint32_t first = 0; ///< numbers of owners
    std::uint32_t second = 0;
    int offset = 0; ///< words, as in FingerprintCandidate
    double bitErrors = 0.5;
};

/// The landmarks of all contents that were ever matched, so that only what is new is held against them. They
/// are kept as runs, each in the order of its keys and in buckets of some hundred; runs of like size are
/// joined as they gather, so that there are few.
class LandmarkStore {
  public:
    explicit LandmarkStore(const Catalogue& catalogue) : catalogue_(catalogue) {}

    Result<std::vector<LandmarkOwner>> owners() const;
    Result<std::uint32_t> nextNumber() const;
    /// What is kept under these keys, which are sorted and single. Numbers whose owner is forgotten may be
    /// among them.
    Result<std::vector<Landmark>> withKeys(std::span<const std::uint32_t> keys) const;
    /// Pairs whose contents both have their owner.
    Result<std::vector<MetPair>> met() const;

    /// All of it or nothing. Landmarks are in their order.
    Outcome add(std::span<const LandmarkOwner> owners, std::span<const Landmark> landmarks,
                std::span<const MetPair> met) const;
    /// Their landmarks go when runs are joined.
    Outcome forget(std::span<const std::uint32_t> numbers) const;

  private:
    const Catalogue& catalogue_;
};

} // namespace sober
