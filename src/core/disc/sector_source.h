#pragma once

#include "core/base/result.h"
#include "core/disc/disc_contents.h"

#include <cstdint>
#include <vector>

namespace sober {

using DiscSamples = std::vector<std::int16_t>; ///< left and right in turn

/// What gives the samples of a disc, right or wrong.
class SectorSource {
  public:
    virtual ~SectorSource() = default;

    /// So many sectors from one on. Cause::unreadable where one of them cannot be read; anything else says
    /// that the disc is not there any more.
    virtual Result<DiscSamples> read(int first, int count) = 0;
    /// The same by a reader that follows jitter within what one call gives (libcdio-paranoia), and takes its
    /// time.
    virtual Result<DiscSamples> readWithCare(int first, int count) { return read(first, count); }
};

} // namespace sober
