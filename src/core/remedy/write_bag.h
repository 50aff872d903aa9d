#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"

#include <span>

namespace sober {

struct WrittenBag {
    std::uint64_t files = 0;
    std::uint64_t bytes = 0;
};

/// Copies every file below a folder into a new bag (RFC 8493, version 1.0, SHA-256) at `to`. A copy counts
/// once it was flushed, read back from the medium and has the checksum of what it was copied from. What makes
/// the folder a bag is written last, so that one that was stopped or failed is none. Refuses where `to` is
/// taken or lies on a catalogued volume, and names that are not UTF-8, which a bag cannot hold.
Result<WrittenBag> writeBag(const Catalogue& catalogue, const BytePath& folder, const BytePath& to,
                            RunControl& control, const ProgressSink& onProgress);

} // namespace sober
