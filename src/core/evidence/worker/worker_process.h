#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/evidence/worker/messages.h"
#include "core/evidence/worker/serving.h"

#include <functional>

namespace sober {

/// What one file may cost before it is given up.
struct WorkerLimits {
    std::uint64_t memory = 2ULL << 30; ///< bytes of address space
    unsigned seconds = 120;            ///< of processor time, for any file
    unsigned secondsPerMegabyte = 2;   ///< and for each 10^6 bytes of it
    unsigned silentSeconds = 0;        ///< without an answer; 0: waits as long as it takes
};

/// The program that answers about files: `sober-evidence`, or what the environment names by SOBER_EVIDENCE,
/// which says the same.
std::string workerNow();

/// A process of this program's own that answers questions about files in a cage (cage.h). It is started when
/// it is needed; what breaks it costs one answer.
class WorkerProcess {
  public:
    /// `program` stands beside this one or in ../libexec/sober-archivist, unless it is absolute.
    explicit WorkerProcess(const WorkerLimits& limits, std::string program = workerNow())
        : limits_(limits), program_(std::move(program)) {}
    ~WorkerProcess() { end(false); }
    WorkerProcess(const WorkerProcess&) = delete;
    WorkerProcess& operator=(const WorkerProcess&) = delete;

    /// Sends a question with open files of `bytes` in all; starts the process where there is none. False
    /// where that cannot be had.
    bool ask(char letter, std::string_view question, std::span<const int> files, std::uint64_t bytes);

    /// What came of a question.
    enum class Came {
        answer,
        cancelled,
        ended,  ///< the process is gone: see `howItEnded`
        silent, ///< it did not answer in time, and was ended
    };
    struct Answer {
        Came came = Came::ended;
        std::string bytes;
    };
    /// Waits for the answer; `onBytes` hears how many more bytes of the files have gone by. A paused run
    /// holds the process where it is; a cancelled one ends it.
    Answer await(RunControl& control, const std::function<void(std::uint64_t)>& onBytes);

    /// Of one that ended: whether somebody else ended it, and what became of it, for a sentence.
    bool wasEndedFromOutside() const;
    std::string howItEnded() const;

    void end(bool byForce);
    const WorkerLimits& limits() const { return limits_; }

  private:
    bool start();
    Came awaitLine(RunControl& control) const;

    WorkerLimits limits_;
    std::string program_;
    pid_t child_ = 0;
    int status_ = 0;
    FileHandle line_;
};

} // namespace sober
