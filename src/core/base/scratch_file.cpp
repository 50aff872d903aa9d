#include "core/base/scratch_file.h"

#include "core/base/room.h"
#include "core/base/text.h"

#include <sys/mman.h>
#include <sys/stat.h>

#include <array>
#include <cerrno>
#include <cstdlib>
#include <fcntl.h>
#include <unistd.h>

namespace sober {

Result<FileHandle> openScratchFile(std::uint64_t bytes) {
    constexpr std::uint64_t spare = 256U << 20;
    const auto* const told = std::getenv("TMPDIR"); // NOLINT(concurrency-mt-unsafe): nobody sets it
    const BytePath folder = told != nullptr && *told == '/' ? told : "/var/tmp";
    if (const auto room = roomAt(folder); room && room->free < bytes + spare) {
        return systemError(ENOSPC, "unpack " + humanBytes(bytes) + " into", folder);
    }
    FileHandle file(open(folder.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, 0600));
    if (!file && (errno == EOPNOTSUPP || errno == EISDIR || errno == ENOENT || errno == EACCES)) {
        file = FileHandle(memfd_create("sober-scratch", MFD_CLOEXEC)); // a file system that knows none
    }
    return file ? Result(std::move(file))
                : Result<FileHandle>(systemError(errno, "make a temporary file in", folder));
}

Outcome writeScratch(const FileHandle& scratch, std::uint64_t at, std::span<const std::uint8_t> bytes) {
    while (!bytes.empty()) {
        const auto written = pwrite(scratch.get(), bytes.data(), bytes.size(), static_cast<off_t>(at));
        if (written < 0 && errno == EINTR) {
            continue;
        }
        if (written <= 0) {
            return systemError(errno, "write", "a temporary file");
        }
        at += static_cast<std::uint64_t>(written);
        bytes = bytes.subspan(static_cast<std::size_t>(written));
    }
    return done();
}

void stampScratch(const FileHandle& scratch, const FileHandle& like, Nanoseconds changed) {
    struct stat status {};
    if (fstat(like.get(), &status) == 0) {
        fchmod(scratch.get(), status.st_mode & 0666);
    }
    if (changed > 0) {
        const timespec time{changed / 1'000'000'000, changed % 1'000'000'000};
        const std::array<timespec, 2> times{time, time};
        futimens(scratch.get(), times.data());
    }
}

} // namespace sober
