#pragma once

#include "core/evidence/landmarks.h"

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

namespace sober {

/// Two fingerprints that share landmarks: worth comparing.
struct FingerprintCandidate {
    std::uint32_t first = 0; ///< numbers as given to `add`, first < second
    std::uint32_t second = 0;
    int offset = 0;              ///< words: the second's word w lies beside the first's word w + offset
    std::uint32_t landmarks = 0; ///< that agree on the offset
};

/// An inverted index over fingerprints: pairs are met through the landmarks that they share, so that no pair
/// is compared without a reason.
class FingerprintIndex {
  public:
    /// Adds recordings that are numbered from `first` on.
    void add(std::uint32_t first, std::span<const Fingerprint> recordings);
    void add(std::span<const Landmark> landmarks);
    /// All candidates that share two landmarks at least, by number, of which one is numbered `from` or
    /// higher. Takes the index apart. Where very many share a landmark each is held against its neighbours
    /// only, so that the work grows with the number of fingerprints.
    std::vector<FingerprintCandidate> candidates(std::uint32_t from = 0);

  private:
    std::vector<Landmark> landmarks_;
};

/// How two fingerprints agree near an offset (as in FingerprintCandidate): the share of differing bits over
/// all words that lie beside each other. Nothing where those are fewer than three seconds or than
/// six tenths of the shorter.
std::optional<FingerprintMatch> agreementNear(const Fingerprint& first, const Fingerprint& second,
                                              int offset);

} // namespace sober
