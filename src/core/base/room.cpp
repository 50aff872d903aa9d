#include "core/base/room.h"

#include <sys/statvfs.h>

#include <algorithm>
#include <cerrno>

namespace sober {

Result<Room> roomAt(BytePath folder) {
    struct statvfs space {};
    while (statvfs(folder.c_str(), &space) != 0) {
        if (errno != ENOENT || folder.size() <= 1) {
            return systemError(errno, "look for room in", folder);
        }
        folder = BytePath(parentOf(folder));
    }
    const bool says = space.f_blocks > 0;
    return Room{says ? static_cast<std::uint64_t>(space.f_bavail) * space.f_frsize : unknownRoom,
                std::max<std::uint64_t>(space.f_frsize, 1), static_cast<std::uint64_t>(space.f_blocks)};
}

} // namespace sober
