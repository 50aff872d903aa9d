#pragma once

#include "core/base/file_handle.h"
#include "core/base/run_control.h"

namespace sober {

/// The bytes of a file that belong neither to its audio nor to a tag, where its format can tell them.
Result<std::vector<ByteRange>> junkIn(const FileHandle& file, const BytePath& path, RunControl& control);

} // namespace sober
