#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/media/byte_source.h"

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace sober {

/// What the samples of a decode are.
struct SampleFormat {
    int sampleRate = 0; ///< Hz
    int channels = 0;
    int bitDepth = 0;         ///< of integer samples from a lossless codec; 0 for lossy and floating point
    double statedSeconds = 0; ///< what the container says or, without one, the bitrate; 0: nothing says it
};

/// One run of decoded frames. `floats` hold one channel after the other, full scale at ±1; `integers` the
/// same frames as the codec made them, interleaved and right-justified, only where `bitDepth` is stated.
struct DecodedBlock {
    std::span<const float> floats;
    std::span<const std::int32_t> integers;
    std::size_t frames = 0;

    std::span<const float> channel(std::size_t index) const { return floats.subspan(index * frames, frames); }
};

/// Hears a decode from beginning to end.
class SampleSink {
  public:
    virtual ~SampleSink() = default;
    virtual void begin(const SampleFormat& format) = 0;
    virtual void take(const DecodedBlock& block) = 0;
    /// The compressed packets of the stream, in order, without tags and container, as they go to the decoder.
    virtual void takePacket(std::span<const std::uint8_t> /*packet*/) {}
};

/// Something wrong or odd that showed while a file was read.
struct DecodeProblem {
    std::string kind; ///< "truncated", "damaged", "length-mismatch", "unreadable"; of a remark another word
    double at = 0;    ///< seconds from the start
    std::string detail;
};

struct DecodeReport {
    SampleFormat format;
    std::int64_t frames = 0;
    /// FLAC's own MD5 of the samples, where the file states one (RFC 9639 section 8.2).
    std::optional<std::array<std::uint8_t, 16>> statedMd5;
    std::vector<DecodeProblem> problems; ///< in order of time; of many alike only the first hundred
    std::vector<DecodeProblem> remarks;  ///< odd, and no audio is lost by it
    double seconds() const {
        return format.sampleRate > 0 ? static_cast<double>(frames) / format.sampleRate : 0;
    }
};

/// Decodes the first audio stream to its end, with the format's own checks switched on, and goes on
/// past what is damaged. Fails only where nothing can be decoded at all or the run is cancelled.
Result<DecodeReport> decodeAudio(ByteSource& source, const BytePath& path, SampleSink& sink,
                                 RunControl& control);

} // namespace sober
