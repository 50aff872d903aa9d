#pragma once

#include "core/evidence/worker/inside_reader.h"
#include "core/evidence/worker/worker_process.h"

#include <memory>

namespace sober {

/// An archive as it is gone through from its beginning, unpacked in a process of its own (archive_reader.h).
/// Where the process dies of it, it ends there with a sentence. Not shared between threads.
class CagedArchive final : public InsideReader {
  public:
    static Result<std::unique_ptr<InsideReader>> open(const BytePath& path);

    Result<std::optional<ArchivedFile>> next() override;
    Result<FileHandle> unpack(RunControl& control) override;

  private:
    CagedArchive(BytePath path, FileHandle file, std::unique_ptr<WorkerProcess> process);
    Result<std::string> ask(char letter, std::span<const int> files, RunControl& control);

    BytePath path_;
    FileHandle file_;
    std::unique_ptr<WorkerProcess> process_;
    ArchivedFile current_;
};

} // namespace sober
