#pragma once

#include "core/base/file_handle.h"
#include "core/base/times.h"

#include <memory>

struct archive;

namespace sober {

/// One file that an archive holds.
struct ArchivedFile {
    BytePath path;            ///< as it stands in the archive, without a slash at its beginning
    std::uint64_t size = 0;   ///< as stated, bytes; 0 where it is not
    Nanoseconds mtime = 0;    ///< 0: not stated
    std::uint64_t packed = 0; ///< bytes of the archive that have been gone through so far
};

/// Goes through an archive from its beginning, by libarchive: zip, tar (as it is, or compressed by gzip,
/// bzip2, xz or Zstandard), 7z, RAR, ISO 9660. For the cage: its bytes are foreign. What would unpack to more
/// than `mostGrown` times the archive's size and `alwaysAllowed` bytes is given up as made to do harm, and so
/// is one of more than `mostFiles`. An archive in an archive is a file like any other.
class ArchiveReader {
  public:
    static constexpr std::uint64_t alwaysAllowed = 256U << 20;
    static constexpr std::uint64_t mostGrown = 200;
    static constexpr std::uint64_t mostFiles = 1'000'000;

    /// Cause::unreadable where it is none of these.
    static Result<ArchiveReader> open(FileHandle file, const BytePath& path);

    /// The next regular file; nothing after the last. Cause::damaged where the archive breaks off here.
    Result<std::optional<ArchivedFile>> next();
    /// Writes the file that came last into `target`, which is empty. Cause::notAudio, with nothing written,
    /// where its beginning is that of no audio; Cause::damaged where it is not whole, is longer than
    /// it states, or is locked by a password.
    Outcome unpackInto(const FileHandle& target);

  private:
    using Handle = std::unique_ptr<archive, int (*)(archive*)>;
    ArchiveReader(FileHandle file, BytePath path, std::uint64_t size, Handle handle);
    Result<std::size_t> read(std::span<std::uint8_t> into);
    Error broken(const BytePath& at) const;

    FileHandle file_;
    BytePath path_;
    std::uint64_t size_;
    Handle handle_;
    BytePath current_;         ///< the path of the file that came last
    std::uint64_t stated_ = 0; ///< its size, 0 where that is not stated
    bool isLocked_ = false;
    std::uint64_t files_ = 0;
    std::uint64_t unpacked_ = 0; ///< bytes of all files so far
};

} // namespace sober
