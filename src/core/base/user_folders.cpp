#include "core/base/user_folders.h"

#include <cstdlib>
#include <pwd.h>
#include <unistd.h>

namespace sober {

BytePath homeFolder() {
    if (const char* home = std::getenv("HOME"); home != nullptr && home[0] == '/') {
        return home;
    }
    const passwd* entry = getpwuid(getuid());
    return entry != nullptr && entry->pw_dir != nullptr ? BytePath(entry->pw_dir) : BytePath("/");
}

BytePath dataHome() {
    if (const char* data = std::getenv("XDG_DATA_HOME"); data != nullptr && data[0] == '/') {
        return data;
    }
    return joinPath(homeFolder(), ".local/share");
}

BytePath defaultCatalogue() {
    return joinPath(dataHome(), "sober-archivist/catalogue.sqlite");
}

} // namespace sober
