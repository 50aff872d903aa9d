#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/salvage_store.h"
#include "core/media/carve/byte_parts.h"

namespace sober {

/// Bytes of an image as they are, and what they are.
struct ByteLook {
    std::uint64_t at = 0;
    std::uint64_t size = 0; ///< of the image
    std::string bytes;      ///< fewer than asked for at its end
    /// The parts of finds that lie there, in bytes of the image, in order; what a file system gives out to
    /// files that were not looked at has none.
    std::vector<BytePart> parts;
};
Result<ByteLook> lookAtBytes(const Catalogue& catalogue, const BytePath& image, std::uint64_t at,
                             std::size_t length, RunControl& control);

/// Where bytes stand in an image, from a place on; nothing where they do not.
Result<std::optional<std::uint64_t>> searchBytes(const BytePath& image, std::string_view wanted,
                                                 std::uint64_t from, RunControl& control,
                                                 const ProgressSink& onProgress);

} // namespace sober
