#pragma once

#include "core/base/file_handle.h"

namespace sober {

/// A file without a name, open for reading and writing, on the drive where temporary files live ($TMPDIR,
/// else /var/tmp, by the File Hierarchy Standard the place of larger ones). It is gone with the last who
/// holds it, so that nothing is left behind however this ends.
Result<FileHandle> openScratchFile();

} // namespace sober
