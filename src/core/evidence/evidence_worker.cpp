#include "core/evidence/evidence_worker.h"

#include "core/base/text.h"
#include "core/evidence/examination.h"
#include "core/evidence/packed_evidence.h"

#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/wait.h>

#include <array>
#include <chrono>
#include <csignal>
#include <cstring>
#include <poll.h>
#include <spawn.h>
#include <thread>
#include <unistd.h>

extern char** environ;

namespace sober {
namespace {

constexpr const char* workerWord = "evidence-worker";
constexpr std::uint32_t longestMessage = 1U << 30;

/// What the worker tells on the line that is its standard input: a letter and what belongs to it.
enum class Tell : char {
    bytes = 'b',  ///< how many more bytes of the file have gone by
    answer = 'a', ///< the packed record
};

bool writeAll(int descriptor, const void* from, std::size_t length) {
    const auto* at = static_cast<const char*>(from);
    while (length > 0) {
        const auto written = send(descriptor, at, length, MSG_NOSIGNAL);
        if (written < 0 && errno == EINTR) {
            continue;
        }
        if (written <= 0) {
            return false;
        }
        at += written;
        length -= static_cast<std::size_t>(written);
    }
    return true;
}

bool readAll(int descriptor, void* into, std::size_t length) {
    auto* at = static_cast<char*>(into);
    while (length > 0) {
        const auto got = read(descriptor, at, length);
        if (got < 0 && errno == EINTR) {
            continue;
        }
        if (got <= 0) {
            return false;
        }
        at += got;
        length -= static_cast<std::size_t>(got);
    }
    return true;
}

template <typename Value>
bool writeValue(int descriptor, const Value& value) {
    return writeAll(descriptor, &value, sizeof value);
}

/// A path or an answer: its length and its bytes.
bool writeText(int descriptor, std::string_view text) {
    return writeValue(descriptor, static_cast<std::uint32_t>(text.size())) &&
           writeAll(descriptor, text.data(), text.size());
}

std::optional<std::string> readText(int descriptor) {
    std::uint32_t length = 0;
    if (!readAll(descriptor, &length, sizeof length) || length > longestMessage) {
        return std::nullopt;
    }
    std::string text(length, '\0');
    return readAll(descriptor, text.data(), length) ? std::optional(std::move(text)) : std::nullopt;
}

/// From now on so much processor time and no more: the kernel ends the process.
void limitSeconds(std::uint32_t seconds) {
    rusage used{};
    getrusage(RUSAGE_SELF, &used);
    const auto sofar = static_cast<rlim_t>(used.ru_utime.tv_sec + used.ru_stime.tv_sec);
    rlimit limit{};
    getrlimit(RLIMIT_CPU, &limit);
    limit.rlim_cur = sofar + seconds + 1;
    setrlimit(RLIMIT_CPU, &limit);
}

int serve() {
    // The one who asks decides when to stop; an interrupt at the terminal reaches both.
    std::signal(SIGINT, SIG_IGN);
    RunControl control;
    while (true) {
        std::uint32_t seconds = 0;
        const auto path =
            readAll(STDIN_FILENO, &seconds, sizeof seconds) ? readText(STDIN_FILENO) : std::nullopt;
        if (!path) {
            return 0;
        }
        limitSeconds(seconds);
        constexpr std::uint64_t tellEach = 4U << 20;
        std::uint64_t untold = 0;
        const auto record = examineFile(*path, control, [&](std::uint64_t bytes) {
            untold += bytes;
            if (untold >= tellEach) {
                writeValue(STDIN_FILENO, Tell::bytes);
                writeValue(STDIN_FILENO, std::exchange(untold, 0));
            }
        });
        writeValue(STDIN_FILENO, Tell::bytes);
        writeValue(STDIN_FILENO, untold);
        if (!writeValue(STDIN_FILENO, Tell::answer) || !writeText(STDIN_FILENO, packRecord(record))) {
            return 0;
        }
    }
}

/// Signals that no decoder raises by itself: somebody, or a machine short of memory, has ended the process.
bool endedFromOutside(int status) {
    return WIFSIGNALED(status) && (WTERMSIG(status) == SIGKILL || WTERMSIG(status) == SIGTERM ||
                                   WTERMSIG(status) == SIGHUP || WTERMSIG(status) == SIGINT);
}

std::string howItEnded(int status) {
    if (WIFSIGNALED(status)) {
        return WTERMSIG(status) == SIGXCPU
                   ? "it took longer than any sound file would"
                   : fmt::format("the decoder broke: {}", strsignal(WTERMSIG(status)));
    }
    return "the decoder gave up";
}

} // namespace

struct EvidenceWorker::State {
    WorkerLimits limits;
    pid_t child = 0;
    FileHandle line; ///< questions go out, answers come in

    bool start() {
        std::array<int, 2> ends{};
        if (socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends.data()) != 0) {
            return false;
        }
        line = FileHandle(ends[0]);
        const FileHandle theirs(ends[1]);
        posix_spawn_file_actions_t actions;
        posix_spawn_file_actions_init(&actions);
        posix_spawn_file_actions_adddup2(&actions, theirs.get(), STDIN_FILENO);
        // The signals that this process watches on a thread would stay blocked in the worker.
        posix_spawnattr_t attributes;
        posix_spawnattr_init(&attributes);
        sigset_t none;
        sigemptyset(&none);
        posix_spawnattr_setsigmask(&attributes, &none);
        posix_spawnattr_setflags(&attributes, POSIX_SPAWN_SETSIGMASK);
        std::string name = "sober-evidence";
        std::string word = workerWord;
        std::array<char*, 3> words{name.data(), word.data(), nullptr};
        const int failed =
            posix_spawn(&child, "/proc/self/exe", &actions, &attributes, words.data(), environ);
        posix_spawn_file_actions_destroy(&actions);
        posix_spawnattr_destroy(&attributes);
        if (failed != 0) {
            child = 0;
            return false;
        }
        const rlimit memory{limits.memory, limits.memory};
        prlimit(child, RLIMIT_AS, &memory, nullptr);
        return true;
    }

    /// How the process ended; it is gone afterwards.
    int end(bool byForce) {
        line.reset();
        int status = 0;
        if (child > 0) {
            if (byForce) {
                kill(child, SIGKILL);
            }
            // One that waits for a dead drive cannot be ended: it is left behind, and goes when the drive
            // answers.
            using namespace std::chrono;
            const auto patience = steady_clock::now() + (byForce ? seconds(5) : seconds(30));
            while (waitpid(child, &status, WNOHANG) == 0) {
                if (steady_clock::now() > patience) {
                    kill(child, SIGKILL);
                    break;
                }
                std::this_thread::sleep_for(milliseconds(1));
            }
            child = 0;
        }
        return status;
    }

    bool ask(const BytePath& path) {
        const auto stamp = stampAt(path);
        const std::uint64_t size = stamp ? stamp->size : 0;
        const auto seconds =
            limits.seconds + static_cast<std::uint32_t>(size / 1'000'000) * limits.secondsPerMegabyte;
        return writeValue(line.get(), static_cast<std::uint32_t>(seconds)) && writeText(line.get(), path);
    }

    /// Waits for something to read; a paused run holds the process where it is. False once cancelled.
    bool await(RunControl& control) const {
        pollfd waiting{line.get(), POLLIN, 0};
        while (poll(&waiting, 1, 100) <= 0) {
            if (control.isPaused() && !control.isCancelled()) {
                kill(child, SIGSTOP);
                control.proceed();
                kill(child, SIGCONT);
            }
            if (control.isCancelled()) {
                return false;
            }
        }
        return true;
    }
};

EvidenceWorker::EvidenceWorker(const WorkerLimits& limits) : state_(std::make_unique<State>()) {
    state_->limits = limits;
}
EvidenceWorker::~EvidenceWorker() {
    state_->end(false);
}

Result<FileRecord> EvidenceWorker::examine(const BytePath& path, RunControl& control,
                                           const std::function<void(std::uint64_t)>& onBytes) {
    if ((state_->child == 0 && !state_->start()) || !state_->ask(path)) {
        state_->end(true);
        if (!state_->start() || !state_->ask(path)) {
            state_->end(true);
            return Error{Cause::unreadable, path,
                         "No process could be started to examine " + displayPath(path) + "."};
        }
    }
    std::uint64_t told = 0;
    Tell tell{};
    while (true) {
        if (!state_->await(control)) {
            state_->end(true);
            return Error{Cause::interrupted, path, "Stopped while " + displayPath(path) + " was examined."};
        }
        if (!readAll(state_->line.get(), &tell, sizeof tell)) {
            break;
        }
        if (tell == Tell::bytes) {
            std::uint64_t bytes = 0;
            if (!readAll(state_->line.get(), &bytes, sizeof bytes)) {
                break;
            }
            told += bytes;
            onBytes(bytes);
            continue;
        }
        const auto answer = readText(state_->line.get());
        auto record = answer ? unpackRecord(*answer) : std::nullopt;
        if (!record) {
            break;
        }
        return std::move(*record);
    }
    const int status = state_->end(false);
    if (endedFromOutside(status)) {
        return Error{Cause::interrupted, path,
                     displayPath(path) +
                         " was not examined: its process was ended from outside. The next survey "
                         "comes back to it."};
    }
    const auto ending = howItEnded(status);
    auto record = passOverFile(path, control, [&](std::uint64_t bytes) {
        // Bytes that were told of before are not counted twice.
        const auto again = std::min(told, bytes);
        told -= again;
        onBytes(bytes - again);
    });
    if (record) {
        record->problem = displayPath(path) + " could not be examined: " + ending + ".";
    }
    return record;
}

std::optional<int> serveAsEvidenceWorker(int argc, char** argv) {
    if (argc != 2 || std::string_view(argv[1]) != workerWord) {
        return std::nullopt;
    }
    return serve();
}

} // namespace sober
