#pragma once

#include "core/base/file_handle.h"
#include "core/base/run_control.h"
#include "core/evidence/checksums.h"

#include <deque>
#include <optional>
#include <string>

namespace sober {

/// What reading a file again has found.
struct FixityReading {
    FileStamp stamp;
    std::vector<Checksum128> blocks; ///< unreadable bytes count as zeros
    std::optional<Sha256> sha256;
    std::vector<ByteRange> unreadable; ///< what could not be read
};

struct ReadingChoices {
    bool strong = false;             ///< SHA-256 too
    bool fromMedium = true;          ///< past what memory holds of the file, where the system allows it
    std::uint64_t mostPerSecond = 0; ///< bytes; 0: as fast as it goes
};

/// Reads many files in their order with one reader and takes their checksums beside it on the other
/// processors. Goes on past what a drive cannot read. `take` hears of each file in order, one at a time on
/// any thread; an Error where it could not be opened or changed while it was read. Holds a few MiB at a time.
void readForFixity(std::span<const BytePath> paths, const ReadingChoices& choices, RunControl& control,
                   const std::function<void(std::uint64_t)>& onBytes,
                   const std::function<void(std::size_t, Result<FixityReading>)>& take);

} // namespace sober
