#pragma once

#include "core/media/decode.h"

#include <array>
#include <optional>
#include <vector>

namespace sober {

/// Where in a recording the search for an earlier encoder's grid looks: one run of samples from each
/// of eight equal parts, the one whose quietest block is the liveliest, clipped blocks left out.
/// Left and right in 16-bit steps; mono stands in both.
struct TraceSegment {
    std::int64_t start = 0; ///< frames from the beginning of the recording
    std::vector<float> left;
    std::vector<float> right;
};

inline constexpr std::size_t traceBlock = 1024;
inline constexpr std::size_t traceBlocks = 10;

/// Picks the segments while a decode goes by; memory does not grow with length.
class TraceSegmentPass final : public SampleSink {
  public:
    /// `statedSeconds` 0 lets all parts but the first grow as long as they must.
    void begin(const SampleFormat& format) override;
    void take(const DecodedBlock& block) override;
    std::vector<TraceSegment> finish();
    /// Where the blocks that were taken began, as a position within their length; nothing where their lengths
    /// differed. A decoder makes one of each frame of its stream, so that this is where these lie.
    std::optional<std::size_t> blocksBegan() const;

  private:
    struct Block {
        std::array<float, traceBlock> left;
        std::array<float, traceBlock> right;
        float liveliness = 0; ///< energy of the second difference; negative where clipped
    };
    struct Best {
        float liveliness = -1;
        TraceSegment segment;
    };
    void endBlock(Block& block);

    SampleFormat format_;
    std::size_t blocksTaken_ = 0;
    std::size_t firstLength_ = 0; ///< of the first block, whose beginning may be left out
    std::size_t usualLength_ = 0; ///< of the second
    std::size_t lastLength_ = 0;
    std::size_t others_ = 0;      ///< blocks since the second that are of another length
    std::int64_t blocksEach_ = 0; ///< of one of the eight parts
    std::int64_t blocksSeen_ = 0;
    std::size_t filled_ = 0;
    std::vector<Block> recent_; ///< a ring
    std::vector<Best> best_;
};

} // namespace sober
