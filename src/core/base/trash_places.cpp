#include "core/base/trash_places.h"

#include "core/base/file_handle.h"

#include <functional>

namespace sober {
namespace {

/// `hold` hears of each folder's name on the way and of what lies above it.
bool anyOnTheWay(const BytePath& path, const std::function<bool(std::string_view, const BytePath&)>& holds) {
    for (BytePath here = path; here.size() > 1; here = BytePath(parentOf(here))) {
        if (holds(nameOf(here), BytePath(parentOf(here)))) {
            return true;
        }
    }
    return false;
}

/// By names alone: what of a file system is not mounted cannot be looked at.
bool isNamedLikeTrash(std::string_view name) {
    return name == ".Trash" || name.starts_with(".Trash-") || name == ".Trashes" || name == "$RECYCLE.BIN";
}

} // namespace

bool isTrashFolder(std::string_view name, const BytePath& parent) {
    if (isNamedLikeTrash(name)) {
        return true;
    }
    const auto path = joinPath(parent, name);
    return name == "Trash" && isFolder(joinPath(path, "files")) && isFolder(joinPath(path, "info"));
}

bool isInTrash(const BytePath& path) {
    return isInTrash(path, mountsNow());
}

bool isInTrash(const BytePath& path, std::span<const Mount> mounts) {
    const auto real = realPathOf(path).value_or(path);
    if (anyOnTheWay(real, isTrashFolder)) {
        return true;
    }
    const auto inner = innerPlaceOf(mounts, real);
    return inner && anyOnTheWay(inner->path, [&](std::string_view name, const BytePath& above) {
               return isNamedLikeTrash(name) || (name == "files" && nameOf(above) == "Trash");
           });
}

} // namespace sober
