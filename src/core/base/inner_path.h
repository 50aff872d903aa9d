#pragma once

#include "core/base/paths.h"

namespace sober {

/// The place of a file that lies inside an archive. As one path: the archive's, "!/", the path inside.
struct InnerPath {
    BytePath archive;
    BytePath inside; ///< "" stands for all that the archive holds
};

/// Whether a file of this name is looked into as an archive: by its ending, letter case aside. The endings
/// are those that the formats' own tools write (common practice, no source).
bool isArchiveName(std::string_view path);

/// Those of them that are images of drives (".img", ".dd"; common practice, no source).
bool isImageName(std::string_view path);

/// Told by the path alone, so that it holds of what is away too: what stands before the first "!/" is named
/// like an archive. Nothing for every other path.
std::optional<InnerPath> innerPathOf(std::string_view path);

inline bool isInsideArchive(std::string_view path) {
    return innerPathOf(path).has_value();
}

BytePath innerPath(std::string_view archive, std::string_view inside);

} // namespace sober
