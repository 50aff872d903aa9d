#pragma once

#include "core/media/decode.h"

#include <array>
#include <memory>
#include <optional>

namespace sober {

using Md5 = std::array<std::uint8_t, 16>;

/// MD5 of the decoded samples of a lossless integer codec, interleaved, little-endian, each in the
/// whole bytes that its depth needs: as RFC 9639 section 8.2 defines it for FLAC's STREAMINFO.
class SampleChecksumPass final : public SampleSink {
  public:
    SampleChecksumPass();
    ~SampleChecksumPass() override;
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    /// Nothing where the samples are not integers of a stated depth.
    std::optional<Md5> finish();

  private:
    struct State;
    std::unique_ptr<State> state_;
};

} // namespace sober
