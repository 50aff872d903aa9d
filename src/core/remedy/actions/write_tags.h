#pragma once

#include "core/media/tag_fields.h"

namespace sober {

/// Writes fields and a picture into a file, in place: only ever into a copy that was made for it. All
/// other fields stay as they are. Cause::invalid where the format cannot hold one of them.
Outcome writeTagFields(const BytePath& path, const TagChange& change);

} // namespace sober
