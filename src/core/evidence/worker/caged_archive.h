#pragma once

#include "core/evidence/worker/worker_process.h"
#include "core/media/archive_reader.h"

#include <memory>

namespace sober {

/// An archive as it is gone through from its beginning, unpacked in a process of its own (archive_reader.h).
/// Where the process dies of it, it ends there with a sentence. Not shared between threads.
class CagedArchive {
  public:
    static Result<CagedArchive> open(const BytePath& path);

    Result<std::optional<ArchivedFile>> next();
    /// The bytes of the file that came last, in a file without a name, with the archive's mode and the
    /// file's own time of change. A cancelled run: Cause::interrupted.
    Result<FileHandle> unpack(RunControl& control);

  private:
    CagedArchive(BytePath path, FileHandle file, std::unique_ptr<WorkerProcess> process);
    Result<std::string> ask(char letter, std::span<const int> files, RunControl& control);

    BytePath path_;
    FileHandle file_;
    std::unique_ptr<WorkerProcess> process_;
    ArchivedFile current_;
};

/// Opens what stands at a path for reading, wherever it lies: a file (openForReading), or, inside an archive
/// (inner_path.h), its bytes unpacked. Cause::notFound where the archive holds no such file.
Result<FileHandle> openContent(const BytePath& path);
Result<FileHandle> openContent(const BytePath& path, RunControl& control);

} // namespace sober
