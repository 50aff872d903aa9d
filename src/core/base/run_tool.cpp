#include "core/base/run_tool.h"

#include <sys/wait.h>

#include <cerrno>
#include <fcntl.h>
#include <spawn.h>
#include <unistd.h>

extern char** environ;

namespace sober {

Result<int> runTool(const std::vector<std::string>& words) {
    std::vector<std::string> own = words;
    std::vector<char*> pointers;
    for (auto& word : own) {
        pointers.push_back(word.data());
    }
    pointers.push_back(nullptr);
    posix_spawn_file_actions_t actions;
    posix_spawn_file_actions_init(&actions);
    posix_spawn_file_actions_addopen(&actions, STDOUT_FILENO, "/dev/null", O_WRONLY, 0);
    posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, "/dev/null", O_WRONLY, 0);
    pid_t child = 0;
    const int failed = posix_spawnp(&child, pointers.front(), &actions, nullptr, pointers.data(), environ);
    posix_spawn_file_actions_destroy(&actions);
    if (failed != 0) {
        return systemError(failed, "start", words.front());
    }
    int status = 0;
    while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
    }
    if (!WIFEXITED(status)) {
        return Error{Cause::interrupted, words.front(), words.front() + " was killed."};
    }
    return WEXITSTATUS(status);
}

} // namespace sober
