#include "core/base/scratch_file.h"

#include <sys/mman.h>

#include <cerrno>
#include <cstdlib>
#include <fcntl.h>

namespace sober {

Result<FileHandle> openScratchFile() {
    const auto* const told = std::getenv("TMPDIR"); // NOLINT(concurrency-mt-unsafe): nobody sets it
    const BytePath folder = told != nullptr && *told == '/' ? told : "/var/tmp";
    FileHandle file(open(folder.c_str(), O_TMPFILE | O_RDWR | O_CLOEXEC, 0600));
    if (!file && (errno == EOPNOTSUPP || errno == EISDIR || errno == ENOENT || errno == EACCES)) {
        file = FileHandle(memfd_create("sober-scratch", MFD_CLOEXEC)); // a file system that knows none
    }
    return file ? Result(std::move(file))
                : Result<FileHandle>(systemError(errno, "make a temporary file in", folder));
}

} // namespace sober
