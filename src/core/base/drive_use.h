#pragma once

#include "core/base/result.h"

#include <string>
#include <vector>

namespace sober {

/// What uses a drive, or a file in its place, now.
struct DriveUse {
    std::vector<BytePath> mountedAt; ///< it or a part of it
    bool isSwap = false;
    bool isHeld = false;    ///< something lies on it: a group of volumes, an encryption, a loop
    bool isSystems = false; ///< the system runs from it

    bool isFree() const { return mountedAt.empty() && !isSwap && !isHeld && !isSystems; }
};

/// By /proc and /sys. Cause::notFound where nothing is there.
Result<DriveUse> useOf(const BytePath& path);
/// "it is mounted at /media/card" and so on; "" of one that is free.
std::string wordsFor(const DriveUse& use);

} // namespace sober
