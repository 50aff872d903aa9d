#include "core/base/presence.h"

#include "core/base/inner_path.h"

#include <sys/stat.h>

#include <cerrno>

namespace sober {

Presence presenceOf(const BytePath& path) {
    struct stat status {};
    if (lstat(path.c_str(), &status) == 0) {
        return Presence::there;
    }
    if (const auto inner = innerPathOf(path)) {
        return presenceOf(inner->archive);
    }
    return errno == ENOENT || errno == ENOTDIR ? Presence::gone : Presence::unknown;
}

} // namespace sober
