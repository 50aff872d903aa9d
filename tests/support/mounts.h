#pragma once

#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <string>
#include <vector>

namespace sober::test {

/// Mounts of a test, taken away when it ends, the last one first.
class TestMounts {
  public:
    TestMounts() = default;
    TestMounts(const TestMounts&) = delete;
    TestMounts& operator=(const TestMounts&) = delete;
    ~TestMounts() {
        for (auto point = points_.rbegin(); point != points_.rend(); ++point) {
            run({"umount", "-l", *point});
        }
        for (const auto& device : loops_) {
            run({"losetup", "-d", device});
        }
    }

    /// `mount` with these words; the last is the place, which is made.
    void mount(std::vector<std::string> words) {
        const auto point = words.back();
        if (!std::filesystem::exists(point)) {
            std::filesystem::create_directories(point);
        }
        words.insert(words.begin(), "mount");
        const auto mounted = run(words);
        INFO(mounted.err);
        REQUIRE(mounted.code == 0);
        points_.push_back(point);
    }
    /// A folder seen through a file system in user space; false where that is not to be had.
    bool view(const std::string& folder, const std::string& point) {
        std::filesystem::create_directories(point);
        if (run({"bindfs", folder, point}).code != 0) {
            return false;
        }
        points_.push_back(point);
        return true;
    }
    void unmount(const std::string& point) {
        test::unmount(point);
        std::erase(points_, point);
    }
    /// A loop device of its own on a file.
    std::string loop(const std::string& file) {
        const auto made = run({"losetup", "-f", "--show", file});
        REQUIRE(made.code == 0);
        loops_.push_back(made.out.substr(0, made.out.find('\n')));
        return loops_.back();
    }
    static void makeExt4(const std::string& image) {
        REQUIRE(run({"truncate", "-s", "8M", image}).code == 0);
        REQUIRE(run({"mkfs.ext4", "-q", image}).code == 0);
    }

  private:
    std::vector<std::string> points_;
    std::vector<std::string> loops_;
};

} // namespace sober::test
