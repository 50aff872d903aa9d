#pragma once

#include "core/base/mounts.h"

namespace sober {

/// Whether a folder of this name below `parent` (absolute) is a trash: of the freedesktop.org specification
/// (".Trash", ".Trash-UID", "Trash" with "files" and "info" in it), or as other systems leave one on cards.
bool isTrashFolder(std::string_view name, const BytePath& parent);

/// Whether a path (absolute) is a trash or lies in one, by whatever links or mounts it is reached.
bool isInTrash(const BytePath& path);
bool isInTrash(const BytePath& path, std::span<const Mount> mounts);

} // namespace sober
