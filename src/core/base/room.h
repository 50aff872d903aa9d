#pragma once

#include "core/base/result.h"

#include <cstdint>
#include <limits>

namespace sober {

/// What stands for the room of a file system that does not say how much it has: some do not that a process
/// serves, as those of players. It is written to until it refuses.
inline constexpr std::uint64_t unknownRoom = std::numeric_limits<std::int64_t>::max();

/// The room of a file system.
struct Room {
    std::uint64_t free = 0;           ///< bytes that a user may fill, or unknownRoom
    std::uint64_t allocationUnit = 1; ///< bytes
    std::uint64_t clusters = 0;       ///< allocation units in all; 0: it does not say
};

/// Of the one on which a folder lies or, where it is not there, the nearest above it.
Result<Room> roomAt(BytePath folder);

} // namespace sober
