#pragma once

#include <sys/types.h>

#include <string>
#include <vector>

namespace sober::test {

struct ProgramRun {
    int code = -1; ///< exit code; -N where signal N ended it
    std::string out;
    std::string err;
};

/// Runs a program to its end, words as they are, no shell.
ProgramRun run(const std::vector<std::string>& words);

/// The headless command on a catalogue.
ProgramRun sober(const std::string& catalogue, std::vector<std::string> words);

/// The same without the rights that root has over other people's files: as "nobody" where the test
/// runs as root.
ProgramRun soberUnprivileged(const std::string& catalogue, std::vector<std::string> words);

/// Worker processes of this test program that are alive, as the kernel lists them.
std::vector<pid_t> children();

/// Takes a mount away, or fails the test. Another process that asks every mounted file system how much room
/// it has holds each for a moment, as a test that runs beside this one does: busy is asked again, for 10 s.
void unmount(const std::string& point);

/// True where tests may mount file systems (root, outside of a locked container).
bool canMount();

} // namespace sober::test
