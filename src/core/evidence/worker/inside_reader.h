#pragma once

#include "core/base/run_control.h"
#include "core/media/archive_reader.h"

#include <memory>

namespace sober {

/// What holds files within one file, gone through from its beginning: an archive (caged_archive.h) or the
/// image of a drive (caged_image.h). Everything foreign is done in the cage. Not shared between threads.
class InsideReader {
  public:
    virtual ~InsideReader() = default;

    /// The next file; nothing after the last.
    virtual Result<std::optional<ArchivedFile>> next() = 0;
    /// The bytes of the file that came last, in a file without a name, with the mode of what holds it and the
    /// file's own time of change. Cause::notAudio where its beginning shows that it is none; a cancelled run:
    /// Cause::interrupted.
    virtual Result<FileHandle> unpack(RunControl& control) = 0;
};

/// By its name (isArchiveName). Cause::unreadable where it is no such thing.
Result<std::unique_ptr<InsideReader>> openInside(const BytePath& path);

/// Opens what stands at a path for reading, wherever it lies: a file (openForReading), or, inside an archive
/// (inner_path.h), its bytes unpacked. Cause::notFound where the archive holds no such file.
Result<FileHandle> openContent(const BytePath& path);
Result<FileHandle> openContent(const BytePath& path, RunControl& control);

} // namespace sober
