#include "support/run_program.h"

#include "support/temp_folder.h"

#include <sys/mount.h>
#include <sys/stat.h>
#include <sys/wait.h>

#include <chrono>
#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <spawn.h>
#include <stdexcept>
#include <thread>
#include <unistd.h>

extern char** environ;

namespace sober::test {

ProgramRun run(const std::vector<std::string>& words) {
    const TempFolder scratch;
    const BytePath out = scratch / "out";
    const BytePath err = scratch / "err";
    std::vector<char*> arguments;
    for (const auto& word : words) {
        arguments.push_back(const_cast<char*>(word.c_str()));
    }
    arguments.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, STDIN_FILENO, "/dev/null", O_RDONLY, 0);
    posix_spawn_file_actions_addopen(&actions, STDOUT_FILENO, out.c_str(), O_WRONLY | O_CREAT, 0600);
    posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, err.c_str(), O_WRONLY | O_CREAT, 0600);
    pid_t child = 0;
    ProgramRun result;
    if (posix_spawnp(&child, arguments[0], &actions, nullptr, arguments.data(), environ) == 0) {
        int status = 0;
        waitpid(child, &status, 0);
        result.code = WIFEXITED(status) ? WEXITSTATUS(status) : -WTERMSIG(status);
    }
    posix_spawn_file_actions_destroy(&actions);
    result.out = readFile(out);
    result.err = readFile(err);
    return result;
}

ProgramRun sober(const std::string& catalogue, std::vector<std::string> words) {
    words.insert(words.begin(), {SOBER_PROGRAM, "--catalogue", catalogue, "--quiet"});
    return run(words);
}

ProgramRun soberUnprivileged(const std::string& catalogue, std::vector<std::string> words) {
    words.insert(words.begin(), {SOBER_PROGRAM, "--catalogue", catalogue, "--quiet"});
    if (geteuid() == 0) {
        words.insert(words.begin(), {"setpriv", "--reuid=65534", "--regid=65534", "--clear-groups"});
    }
    return run(words);
}

std::vector<pid_t> children() {
    std::vector<pid_t> found;
    for (const auto& task : std::filesystem::directory_iterator("/proc/self/task")) {
        std::ifstream list(task.path() / "children");
        for (pid_t child = 0; list >> child;) {
            found.push_back(child);
        }
    }
    return found;
}

void unmount(const std::string& point) {
    for (int again = 0;; ++again) {
        const auto ran = run({"umount", point});
        if (ran.code == 0) {
            return;
        }
        if (again == 100 || ran.err.find("busy") == std::string::npos) {
            throw std::runtime_error(ran.err);
        }
        std::this_thread::sleep_for(std::chrono::milliseconds(100));
    }
}

bool canMount() {
    if (geteuid() != 0) {
        return false;
    }
    const TempFolder point;
    if (mount("none", point.path().c_str(), "tmpfs", 0, "size=64k") != 0) {
        return false;
    }
    umount(point.path().c_str());
    return true;
}

} // namespace sober::test
