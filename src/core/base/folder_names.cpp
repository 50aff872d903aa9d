#include "core/base/folder_names.h"

#include "core/base/file_handle.h"

#include <algorithm>
#include <cerrno>
#include <dirent.h>
#include <fcntl.h>
#include <memory>

namespace sober {
namespace {

struct CloseListing {
    void operator()(DIR* listing) const { closedir(listing); }
};

} // namespace

Result<std::vector<std::string>> namesIn(const BytePath& folder) {
    auto opened = openFolder(AT_FDCWD, folder.c_str(), folder, false);
    RETURN_IF_FAILED(opened);
    const std::unique_ptr<DIR, CloseListing> listing(fdopendir(opened->get()));
    if (!listing) {
        return systemError(errno, "list", folder);
    }
    opened->release();
    std::vector<std::string> names;
    while (const auto* const entry = readdir(listing.get())) {
        const std::string_view name(entry->d_name);
        if (name != "." && name != "..") {
            names.emplace_back(name);
        }
    }
    std::ranges::sort(names);
    return names;
}

} // namespace sober
