#include "support/temp_folder.h"

#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <unistd.h>

namespace sober::test {

namespace fs = std::filesystem;

namespace {

/// Memory where there is enough of it: the tests flush a hundred thousand times what nobody will read again.
fs::path scratch() {
    constexpr std::uintmax_t enough = 1ULL << 30;
    const fs::path memory = "/dev/shm";
    std::error_code trouble;
    const auto space = fs::space(memory, trouble);
    return !trouble && space.available >= enough && access(memory.c_str(), W_OK) == 0
               ? memory
               : fs::temp_directory_path();
}

} // namespace

TempFolder::TempFolder(On on) {
    const auto above = on == On::disk ? fs::temp_directory_path() : scratch();
    std::string pattern = (above / "sober-test-XXXXXX").string();
    path_ = mkdtemp(pattern.data());
    path_ = realPathOf(path_).value_or(path_);
}

TempFolder::~TempFolder() {
    std::error_code ignored;
    for (const auto& entry :
         fs::recursive_directory_iterator(path_, fs::directory_options::skip_permission_denied, ignored)) {
        if (entry.is_directory(ignored) && !entry.is_symlink(ignored)) {
            fs::permissions(entry.path(), fs::perms::owner_all, fs::perm_options::add, ignored);
        }
    }
    fs::remove_all(path_, ignored);
}

void copyFolder(const BytePath& from, const BytePath& to) {
    fs::create_directories(to);
    for (const auto& entry : fs::directory_iterator(to)) {
        fs::remove_all(entry);
    }
    const auto copied = run({"cp", "-a", from + "/.", to});
    INFO(copied.err);
    REQUIRE(copied.code == 0);
}

void writeFile(const BytePath& path, const std::string& content) {
    fs::create_directories(fs::path(path).parent_path());
    std::ofstream(path, std::ios::binary | std::ios::trunc) << content;
}

std::string readFile(const BytePath& path) {
    std::ifstream file(path, std::ios::binary);
    std::ostringstream content;
    content << file.rdbuf();
    return content.str();
}

std::map<BytePath, std::string> contentsBelow(const BytePath& folder) {
    std::map<BytePath, std::string> contents;
    if (fs::exists(folder)) {
        for (const auto& entry : fs::recursive_directory_iterator(folder)) {
            if (entry.is_regular_file() && !entry.is_symlink()) {
                contents[entry.path().native()] = readFile(entry.path().native());
            }
        }
    }
    return contents;
}

std::map<std::string, int> contentCounts(const std::vector<BytePath>& folders) {
    std::map<std::string, int> counts;
    for (const auto& folder : folders) {
        for (const auto& [path, content] : contentsBelow(folder)) {
            ++counts[content];
        }
    }
    return counts;
}

} // namespace sober::test
