#include "core/evidence/worker/worker_process.h"

#include "core/base/own_program.h"
#include "core/base/paths.h"
#include "core/evidence/worker/serving.h"

#include <fmt/format.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <sys/wait.h>

#include <array>
#include <chrono>
#include <csignal>
#include <cstdlib>
#include <cstring>
#include <poll.h>
#include <spawn.h>
#include <thread>
#include <unistd.h>

namespace sober {

std::string workerNow() {
    const char* other = std::getenv("SOBER_EVIDENCE");
    return other != nullptr && *other != '\0' ? other : std::string(workerProgram);
}

bool WorkerProcess::start() {
    std::array<int, 2> ends{};
    if (socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends.data()) != 0) {
        return false;
    }
    line_ = FileHandle(ends[0]);
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
    const auto program = program_.starts_with('/') ? program_ : ownHelper(program_);
    std::string name(nameOf(program));
    std::array<char*, 2> words{name.data(), nullptr};
    auto variables = environmentOfHelpers();
    std::vector<char*> environment;
    for (auto& each : variables) {
        environment.push_back(each.data());
    }
    environment.push_back(nullptr);
    const int failed =
        posix_spawn(&child_, program.c_str(), &actions, &attributes, words.data(), environment.data());
    posix_spawn_file_actions_destroy(&actions);
    posix_spawnattr_destroy(&attributes);
    if (failed != 0) {
        child_ = 0;
        return false;
    }
    const rlimit memory{limits_.memory, limits_.memory};
    prlimit(child_, RLIMIT_AS, &memory, nullptr);
    return true;
}

bool WorkerProcess::ask(char letter, std::string_view question, std::span<const int> files,
                        std::uint64_t bytes) {
    const auto seconds =
        limits_.seconds + static_cast<std::uint32_t>(bytes / 1'000'000) * limits_.secondsPerMegabyte;
    const auto limit = fmt::format("{:08x}", seconds);
    const auto sent = [&] {
        return (child_ != 0 || start()) &&
               sendMessage(line_.get(), letter, limit + std::string(question), files);
    };
    if (sent()) {
        return true;
    }
    end(true); // one that died between two questions
    return sent();
}

WorkerProcess::Came WorkerProcess::awaitLine(RunControl& control) const {
    using namespace std::chrono;
    pollfd waiting{line_.get(), POLLIN, 0};
    auto patience = steady_clock::now() + seconds(limits_.silentSeconds);
    while (!control.isCancelled()) {
        if (control.isPaused()) {
            kill(child_, SIGSTOP);
            control.proceed();
            kill(child_, SIGCONT);
            patience = steady_clock::now() + seconds(limits_.silentSeconds);
        }
        if (poll(&waiting, 1, 100) > 0) {
            return Came::answer;
        }
        if (limits_.silentSeconds > 0 && steady_clock::now() > patience) {
            return Came::silent;
        }
    }
    return Came::cancelled;
}

WorkerProcess::Answer WorkerProcess::await(RunControl& control,
                                           const std::function<void(std::uint64_t)>& onBytes) {
    while (true) {
        if (const auto came = awaitLine(control); came != Came::answer) {
            end(true);
            return {came, {}};
        }
        auto message = receiveMessage(line_.get());
        if (!message) {
            end(false);
            return {Came::ended, {}};
        }
        if (message->letter != tellBytes) {
            return {Came::answer, std::move(message->bytes)};
        }
        std::uint64_t bytes = 0;
        std::memcpy(&bytes, message->bytes.data(), std::min(sizeof bytes, message->bytes.size()));
        onBytes(bytes);
    }
}

/// By signals that no decoder raises by itself: somebody, or a machine short of memory.
bool WorkerProcess::wasEndedFromOutside() const {
    return WIFSIGNALED(status_) && (WTERMSIG(status_) == SIGKILL || WTERMSIG(status_) == SIGTERM ||
                                    WTERMSIG(status_) == SIGHUP || WTERMSIG(status_) == SIGINT);
}

std::string WorkerProcess::howItEnded() const {
    if (WIFSIGNALED(status_)) {
        return WTERMSIG(status_) == SIGXCPU
                   ? "it took longer than any sound file would"
                   : fmt::format("the decoder broke: {}", strsignal(WTERMSIG(status_)));
    }
    return WIFEXITED(status_) && WEXITSTATUS(status_) == noCage
               ? "this system cannot confine what reads foreign files, and so nothing is read"
               : "the decoder gave up";
}

void WorkerProcess::end(bool byForce) {
    line_.reset();
    if (child_ <= 0) {
        return;
    }
    if (byForce) {
        kill(child_, SIGKILL);
    }
    status_ = 0;
    // One that waits for a dead drive cannot be ended: it is left behind, and goes when the drive answers.
    using namespace std::chrono;
    const auto patience = steady_clock::now() + (byForce ? seconds(5) : seconds(30));
    while (waitpid(child_, &status_, WNOHANG) == 0) {
        if (steady_clock::now() > patience) {
            kill(child_, SIGKILL);
            break;
        }
        std::this_thread::sleep_for(milliseconds(1));
    }
    child_ = 0;
}

} // namespace sober
