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

namespace {

/// A folder of the Base Directory specification.
BytePath baseFolder(const char* variable, std::string_view otherwise) {
    if (const char* given = std::getenv(variable); given != nullptr && given[0] == '/') {
        return given;
    }
    return joinPath(homeFolder(), otherwise);
}

} // namespace

BytePath dataHome() {
    return baseFolder("XDG_DATA_HOME", ".local/share");
}

BytePath configHome() {
    return baseFolder("XDG_CONFIG_HOME", ".config");
}

BytePath defaultCatalogue() {
    return joinPath(dataHome(), "sober-archivist/catalogue.sqlite");
}

} // namespace sober
