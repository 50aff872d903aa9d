#pragma once

#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/wait.h>

#include <array>
#include <csignal>
#include <fcntl.h>
#include <spawn.h>
#include <unistd.h>

namespace sober::test {

/// A stand-in service on a folder, while this lives.
class RunningService {
  public:
    RunningService(std::string program, const std::string& folder) {
        std::array<int, 2> ends{};
        REQUIRE(pipe2(ends.data(), O_CLOEXEC) == 0);
        posix_spawn_file_actions_t actions;
        posix_spawn_file_actions_init(&actions);
        posix_spawn_file_actions_adddup2(&actions, ends[1], 1);
        std::string where = folder;
        std::array<char*, 3> words{program.data(), where.data(), nullptr};
        REQUIRE(posix_spawn(&process_, program.c_str(), &actions, nullptr, words.data(), environ) == 0);
        posix_spawn_file_actions_destroy(&actions);
        close(ends[1]);
        for (char byte = 0; read(ends[0], &byte, 1) == 1 && byte != '\n';) {
            address_ += byte;
        }
        close(ends[0]);
        REQUIRE(address_.starts_with("http://127.0.0.1:"));
    }
    ~RunningService() {
        kill(process_, SIGKILL);
        waitpid(process_, nullptr, 0);
    }
    RunningService(const RunningService&) = delete;
    RunningService& operator=(const RunningService&) = delete;

    const std::string& address() const { return address_; }

  private:
    pid_t process_ = 0;
    std::string address_;
};

/// The stand-in offer shelf.
struct RunningShelf : RunningService {
    explicit RunningShelf(const std::string& folder) : RunningService(OFFER_SHELF, folder) {}
};

} // namespace sober::test
