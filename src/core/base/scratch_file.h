#pragma once

#include "core/base/file_handle.h"

namespace sober {

/// A file without a name, open for reading and writing, on the drive where temporary files live ($TMPDIR,
/// else /var/tmp, by the File Hierarchy Standard the place of larger ones). It is gone with the last who
/// holds it, so that nothing is left behind however this ends. Cause::full where so many bytes would leave
/// others no room there.
Result<FileHandle> openScratchFile(std::uint64_t bytes);

Outcome writeScratch(const FileHandle& scratch, std::uint64_t at, std::span<const std::uint8_t> bytes);

/// Gives it the mode of another file, and a time of change (0: it has none), for who copies it.
void stampScratch(const FileHandle& scratch, const FileHandle& like, Nanoseconds changed);

} // namespace sober
