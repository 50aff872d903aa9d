#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/evidence/checksums.h"

namespace sober {

/// Two files held against each other, byte for byte, each read once.
struct ContentComparison {
    bool equal = false;
    Checksum128 checksum; ///< of the first file, only where `equal`
    FileStamp first;
    FileStamp second;
};

/// Fails where either file cannot be read to its end or changes meanwhile.
Result<ContentComparison> compareContent(const BytePath& first, const BytePath& second, RunControl& control,
                                         const std::function<void(std::uint64_t)>& onBytes);

/// True where both paths are one entry of one folder (reached by a link or a second mount), so that
/// removing one would remove the other.
bool isSameEntry(const BytePath& first, const BytePath& second);

} // namespace sober
