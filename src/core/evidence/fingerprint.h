#pragma once

#include "core/media/decode.h"

#include <memory>
#include <optional>
#include <string>
#include <vector>

namespace sober {

/// What a recording sounds like, whatever it is coded as: words of 32 bits, about eight a second, made
/// by Chromaprint from 11,025 Hz mono.
using Fingerprint = std::vector<std::uint32_t>;

inline constexpr double fingerprintWordSeconds = 1365.0 / 11'025; ///< hop of Chromaprint's frames

/// Share of differing bits below which what is heard of one recording is heard in another too. Passages of lossy
/// copies cut at any place were measured at 0.15 at most, equalised and mono ones at 0.12, the best place of a passage in
/// another recording at 0.3 and more, noise in other noise at 0.25.
inline constexpr double heardBitErrors = 0.2;

/// Takes the fingerprint while a decode goes by.
class FingerprintPass final : public SampleSink {
  public:
    FingerprintPass();
    ~FingerprintPass() override;
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Empty where the recording is shorter than a few seconds.
    Fingerprint finish();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

/// Chromaprint's own compressed form, a third of the size.
std::string packFingerprint(const Fingerprint& words);
/// Nothing where the bytes are no such form.
std::optional<Fingerprint> unpackFingerprint(std::string_view packed);

/// How two fingerprints lie best on each other.
struct FingerprintMatch {
    double bitErrors = 0.5;  ///< share of differing bits where they overlap; 0.5 is chance
    int offset = 0;          ///< words by which the second begins later than the first
    std::size_t overlap = 0; ///< words
    double usual = 0.5;      ///< the median of all that were tried: noise lies on noise alike wherever it does
};

/// The best alignment within ±`reach` words; at least half of the shorter has to overlap.
FingerprintMatch matchFingerprints(const Fingerprint& first, const Fingerprint& second, int reach);

} // namespace sober
