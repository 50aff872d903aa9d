#pragma once

#include "core/evidence/file_pass.h"

#include <memory>

namespace sober {

/// What one file may cost before it is given up.
struct WorkerLimits {
    std::uint64_t memory = 2ULL << 30; ///< bytes of address space
    unsigned seconds = 120;            ///< of processor time, for any file
    unsigned secondsPerMegabyte = 2;   ///< and for each 10^6 bytes of it
};

/// A process of its own that examines files, one after another. What breaks or never ends inside a
/// decoder costs that file and a new process. Not shared between threads.
class EvidenceWorker {
  public:
    explicit EvidenceWorker(const WorkerLimits& limits = {});
    ~EvidenceWorker();

    /// As examineFile. Where the process dies of the file, the record comes from its bytes alone and
    /// its problem says so.
    Result<FileRecord> examine(const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes);

  private:
    struct State;
    std::unique_ptr<State> state_;
};

/// The worker is the same program, started again with one word. Every program that examines files asks
/// this first thing in main and returns what it yields.
std::optional<int> serveAsEvidenceWorker(int argc, char** argv);

} // namespace sober
