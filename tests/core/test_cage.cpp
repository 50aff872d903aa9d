// What reads foreign files can open nothing, reach nothing and start nothing (seccomp(2)).
#include "core/evidence/worker/cage.h"
#include "core/evidence/worker/evidence_worker.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/mman.h>
#include <sys/socket.h>
#include <sys/stat.h>
#include <sys/wait.h>

#include <cerrno>
#include <csignal>
#include <fcntl.h>
#include <functional>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Does something in a process of its own after it went into the cage: 0 where it could, else the error
/// number.
int inCage(const std::function<bool()>& act) {
    const auto child = fork();
    if (child == 0) {
        if (!enterCage()) {
            _exit(255);
        }
        errno = 0;
        _exit(act() ? 0 : errno);
    }
    int status = 0;
    waitpid(child, &status, 0);
    return WIFEXITED(status) ? WEXITSTATUS(status) : -1;
}

struct Row {
    std::string what;
    std::function<bool()> act;
};

} // namespace

TEST_CASE("in the cage nothing can be opened, reached or started") {
    const TempFolder folder;
    writeFile(folder / "there", "content");
    const auto parent = getpid();
    const std::vector<Row> rows{
        {"open a file", [&] { return open((folder / "there").c_str(), O_RDONLY) >= 0; }},
        {"make a file", [&] { return open((folder / "new").c_str(), O_WRONLY | O_CREAT, 0600) >= 0; }},
        {"look at a path",
         [&] {
             struct stat status {};
             return stat((folder / "there").c_str(), &status) == 0;
         }},
        {"remove a file", [&] { return unlink((folder / "there").c_str()) == 0; }},
        {"rename a file", [&] { return rename((folder / "there").c_str(), (folder / "x").c_str()) == 0; }},
        {"make a folder", [&] { return mkdir((folder / "d").c_str(), 0700) == 0; }},
        {"make a socket", [] { return socket(AF_INET, SOCK_STREAM, 0) >= 0; }},
        {"make a local socket", [] { return socket(AF_UNIX, SOCK_STREAM, 0) >= 0; }},
        {"start a program",
         [] {
             char* const words[] = {const_cast<char*>("/bin/true"), nullptr};
             return execv("/bin/true", words) == 0;
         }},
        {"make a process", [] { return fork() >= 0; }},
        {"signal another", [&] { return kill(parent, 0) == 0; }},
        {"change the mode of what is open", [] { return fchmod(STDOUT_FILENO, 0777) == 0; }},
    };
    const auto& row = rows[GENERATE_COPY(range(std::size_t{0}, rows.size()))];
    CAPTURE(row.what);
    CHECK(inCage(row.act) == EPERM);
    CHECK(readFile(folder / "there") == "content");
}

TEST_CASE("in the cage what is open can be read and written, and memory be had") {
    const TempFolder folder;
    writeFile(folder / "there", "content");
    const int file = open((folder / "there").c_str(), O_RDWR);
    REQUIRE(file >= 0);
    CHECK(inCage([&] {
              char bytes[7] = {};
              auto* const memory =
                  mmap(nullptr, 1 << 20, PROT_READ | PROT_WRITE, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
              return pread(file, bytes, 7, 0) == 7 && write(file, "CON", 3) == 3 && memory != MAP_FAILED &&
                     ftruncate(file, 7) == 0;
          }) == 0);
    close(file);
    CHECK(readFile(folder / "there") == "CONtent");
}

TEST_CASE("a picture that a file carries is made small in the cage, whatever its kind") {
    const TempFolder folder;
    const std::string kind = GENERATE("png", "jpg", "bmp", "gif");
    ffmpeg({"-f", "lavfi", "-i", "color=c=0x1D5C63:s=640x480", "-frames:v", "1", folder / ("p." + kind)});
    EvidenceWorker worker;
    const auto small = worker.picture(readFile(folder / ("p." + kind)), 64);
    REQUIRE(small.ok());
    CHECK(small->width == 64);
    CHECK(small->height == 48);
    REQUIRE(small->pixels.size() == 64U * 48 * 4);
    CHECK(static_cast<unsigned char>(small->pixels[1]) == Approx(0x5C).margin(8));
    CHECK_FALSE(worker.picture("\x89PNG and nothing else", 64).ok());
    CHECK_FALSE(worker.picture("", 64).ok());
    CHECK(worker.picture(readFile(folder / ("p." + kind)), 64).ok());
}
