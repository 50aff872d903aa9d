#include "core/base/file_handle.h"

#include "core/base/text.h"

#include <cerrno>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

Nanoseconds nanosecondsOf(const timespec& time) {
    return static_cast<Nanoseconds>(time.tv_sec) * 1'000'000'000 + time.tv_nsec;
}

/// O_NOATIME is refused for files of other owners; those are read with their access time moving, as
/// by any reader.
int openQuietly(int parent, const char* name, int flags) {
    int descriptor = -1;
    do {
        descriptor = openat(parent, name, flags | O_NOATIME);
    } while (descriptor < 0 && errno == EINTR);
    if (descriptor < 0 && errno == EPERM) {
        do {
            descriptor = openat(parent, name, flags);
        } while (descriptor < 0 && errno == EINTR);
    }
    return descriptor;
}

} // namespace

void FileHandle::reset() {
    if (descriptor_ >= 0) {
        close(descriptor_);
        descriptor_ = -1;
    }
}

FileStamp stampOf(const struct stat& status) {
    return FileStamp{static_cast<std::uint64_t>(status.st_dev),
                     static_cast<std::uint64_t>(status.st_ino),
                     static_cast<std::uint64_t>(status.st_nlink),
                     static_cast<std::uint64_t>(status.st_size),
                     nanosecondsOf(status.st_mtim),
                     nanosecondsOf(status.st_ctim)};
}

Result<FileHandle> openForReading(const BytePath& path) {
    FileHandle file(openQuietly(AT_FDCWD, path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW | O_NONBLOCK));
    if (!file) {
        return systemError(errno, "open", path);
    }
    struct stat status {};
    if (fstat(file.get(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    if (!S_ISREG(status.st_mode)) {
        return Error{Cause::wrongKind, path, displayPath(path) + " is not a regular file."};
    }
    return file;
}

Result<OpenedDrive> openDrive(const BytePath& path) {
    OpenedDrive image;
    image.file = FileHandle(openQuietly(AT_FDCWD, path.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK));
    if (!image.file) {
        return systemError(errno, "open", path);
    }
    struct stat status {};
    if (fstat(image.file.get(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    if (!S_ISREG(status.st_mode) && !S_ISBLK(status.st_mode)) {
        return Error{Cause::wrongKind, path, displayPath(path) + " is neither an image nor a drive."};
    }
    image.isDevice = S_ISBLK(status.st_mode);
    const auto end = lseek(image.file.get(), 0, SEEK_END);
    if (end < 0) {
        return systemError(errno, "look at", path);
    }
    image.size = static_cast<std::uint64_t>(end);
    image.mtime = image.isDevice ? 0 : nanosecondsOf(status.st_mtim);
    return image;
}

Result<FileHandle> openFolder(int parent, const char* name, const BytePath& fullPath, bool followLink) {
    FileHandle folder(
        openQuietly(parent, name, O_RDONLY | O_CLOEXEC | O_DIRECTORY | (followLink ? 0 : O_NOFOLLOW)));
    if (!folder) {
        return systemError(errno, "open the folder", fullPath);
    }
    return folder;
}

Result<FileStamp> stampOf(const FileHandle& file, const BytePath& path) {
    struct stat status {};
    if (fstat(file.get(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    return stampOf(status);
}

Result<FileStamp> stampAt(const BytePath& path) {
    struct stat status {};
    if (lstat(path.c_str(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    return stampOf(status);
}

bool isTaken(const BytePath& path) {
    struct stat status {};
    return lstat(path.c_str(), &status) == 0 || errno != ENOENT;
}

bool isFolder(const BytePath& path) {
    struct stat status {};
    return stat(path.c_str(), &status) == 0 && S_ISDIR(status.st_mode);
}

Result<std::size_t> readAt(const FileHandle& file, const BytePath& path, std::uint64_t offset,
                           std::span<std::uint8_t> into) {
    std::size_t have = 0;
    while (have < into.size()) {
        const auto got =
            pread(file.get(), into.data() + have, into.size() - have, static_cast<off_t>(offset + have));
        if (got < 0) {
            if (errno == EINTR) {
                continue;
            }
            return systemError(errno, "read", path);
        }
        if (got == 0) {
            break;
        }
        have += static_cast<std::size_t>(got);
    }
    return have;
}

Result<std::size_t> readPastFaults(const FileHandle& file, const BytePath& path, std::uint64_t offset,
                                   std::span<std::uint8_t> into, std::vector<ByteRange>& unreadable) {
    constexpr std::size_t sector = 4096; // bytes that are given up together
    std::size_t have = 0;
    std::size_t ask = into.size();
    while (have < into.size()) {
        const std::uint64_t place = offset + have;
        const auto got = pread(file.get(), into.data() + have, std::min(ask, into.size() - have),
                               static_cast<off_t>(place));
        if (got > 0) {
            have += static_cast<std::size_t>(got);
            ask = into.size();
        } else if (got == 0) {
            break;
        } else if (errno == EIO) {
            const auto length = std::min<std::size_t>(sector - place % sector, into.size() - have);
            if (ask != length) {
                ask = length; // once more, and no more than this sector
                continue;
            }
            std::fill_n(into.data() + have, length, std::uint8_t{0});
            if (!unreadable.empty() && unreadable.back().second == place) {
                unreadable.back().second = place + length;
            } else {
                unreadable.emplace_back(place, place + length);
            }
            have += length;
            ask = into.size();
        } else if (errno != EINTR) {
            return systemError(errno, "read", path);
        }
    }
    return have;
}

Result<std::string> wholeFile(const BytePath& path, std::uint64_t most) {
    const auto file = openForReading(path);
    const auto stamp = file ? stampOf(*file, path) : Result<FileStamp>(file.error());
    RETURN_IF_FAILED(stamp);
    if (stamp->size > most) {
        return Error{Cause::invalid, path, displayPath(path) + " is too large for what it should be."};
    }
    std::string bytes(stamp->size, '\0');
    const auto got = readAt(*file, path, 0, {reinterpret_cast<std::uint8_t*>(bytes.data()), bytes.size()});
    RETURN_IF_FAILED(got);
    bytes.resize(*got);
    return bytes;
}

} // namespace sober
