#pragma once

#include "core/media/tag_fields.h"

namespace sober {

/// Writes a change into the tags of a file that is open for writing; whoever opened it so decided that it is
/// to be changed.
Outcome writeTagFields(const FileHandle& writable, const BytePath& path, const TagChange& change);

} // namespace sober
