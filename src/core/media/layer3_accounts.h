#pragma once

#include "core/media/layer3_codes.h"
#include "core/media/mpeg_frame.h"

#include <cstdint>
#include <span>
#include <vector>

namespace sober {

/// Counts, frame after frame, whether the codes of each granule and channel end just where its side
/// information says that they do (ISO/IEC 11172-3 section 2.4.1.7). Encoders either see to that always or
/// hardly ever; where all others come out even, one that does not was changed: most changed bits make another
/// row of codes, of another length.
class Layer3Accounts {
  public:
    /// A frame of Layer III, whole, in its order.
    void take(const MpegFrame& frame, std::span<const std::uint8_t> bytes, double at);
    /// What came before belongs to another stream, or is not there.
    void forget() { before_.clear(); }

    std::uint64_t counted() const { return counted_; } ///< granules of one channel
    std::uint64_t odd() const { return odd_; }
    double firstOdd() const { return firstOdd_; } ///< seconds

  private:
    Layer3Codes codes_;
    std::vector<std::uint8_t> before_; ///< main data that the next frame may begin in
    std::uint64_t counted_ = 0;
    std::uint64_t odd_ = 0;
    double firstOdd_ = 0;
};

} // namespace sober
