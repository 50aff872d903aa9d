#pragma once

#include "core/base/result.h"
#include "core/base/times.h"

#include <sys/stat.h>

#include <cstdint>
#include <span>
#include <utility>
#include <vector>

namespace sober {

/// Owns a file descriptor.
class FileHandle {
  public:
    FileHandle() = default;
    explicit FileHandle(int descriptor) : descriptor_(descriptor) {}
    FileHandle(FileHandle&& other) noexcept : descriptor_(std::exchange(other.descriptor_, -1)) {}
    FileHandle& operator=(FileHandle&& other) noexcept {
        if (this != &other) {
            reset();
            descriptor_ = std::exchange(other.descriptor_, -1);
        }
        return *this;
    }
    FileHandle(const FileHandle&) = delete;
    FileHandle& operator=(const FileHandle&) = delete;
    ~FileHandle() { reset(); }

    int get() const { return descriptor_; }
    explicit operator bool() const { return descriptor_ >= 0; }
    int release() { return std::exchange(descriptor_, -1); }
    void reset();

  private:
    int descriptor_ = -1;
};

/// Bytes of a file: first, and one past the last.
using ByteRange = std::pair<std::uint64_t, std::uint64_t>;

/// What the file system says of a file without reading it.
struct FileStamp {
    std::uint64_t device = 0;
    std::uint64_t inode = 0;
    std::uint64_t links = 0;
    std::uint64_t size = 0;
    Nanoseconds mtime = 0;
    Nanoseconds ctime = 0;

    bool operator==(const FileStamp&) const = default;

    /// Same file, same content as far as the file system tells; a rename in between is allowed.
    bool sameContentAs(const FileStamp& other) const {
        return device == other.device && inode == other.inode && size == other.size && mtime == other.mtime;
    }
};

FileStamp stampOf(const struct stat& status);

/// Opens a regular file for reading and nothing else: never follows a link in the last name, never
/// waits on a fifo, and leaves the access time alone where the system allows it.
Result<FileHandle> openForReading(const BytePath& path);

/// A drive, or a file in its place.
struct OpenedDrive {
    FileHandle file;
    std::uint64_t size = 0;
    Nanoseconds mtime = 0; ///< 0 of a drive
    bool isDevice = false;
};

/// Opens a regular file or a block device for reading and nothing else; a link in the last name is followed:
/// drives are named by links.
Result<OpenedDrive> openDrive(const BytePath& path);

/// Opens a folder for listing, under the same restraint. `followLink` allows a link as last name.
Result<FileHandle> openFolder(int parent, const char* name, const BytePath& fullPath, bool followLink);

/// The stamp of an open file.
Result<FileStamp> stampOf(const FileHandle& file, const BytePath& path);

/// The stamp of what stands at a path, links not followed. An Error where nothing does.
Result<FileStamp> stampAt(const BytePath& path);

/// True where anything at all, even a dangling link, stands at the path.
bool isTaken(const BytePath& path);

/// True where a folder, or a link to one, stands at the path.
bool isFolder(const BytePath& path);

/// Reads up to `into.size()` bytes at `offset`, short only at the end of the file.
Result<std::size_t> readAt(const FileHandle& file, const BytePath& path, std::uint64_t offset,
                           std::span<std::uint8_t> into);

/// Reads like readAt, past what a drive cannot give (EIO): by sectors of 4,096 bytes, those counting as zeros
/// and added to `unreadable`. Short only at the end of the file.
Result<std::size_t> readPastFaults(const FileHandle& file, const BytePath& path, std::uint64_t offset,
                                   std::span<std::uint8_t> into, std::vector<ByteRange>& unreadable);

/// All of a file, where it has no more than `most` bytes (else Cause::invalid).
Result<std::string> wholeFile(const BytePath& path, std::uint64_t most);

} // namespace sober
