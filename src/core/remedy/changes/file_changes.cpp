#include "core/remedy/changes/file_changes.h"

#include "core/base/file_handle.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/evidence/worker/inside_reader.h"

#include <sys/sendfile.h>
#include <sys/stat.h>
#include <sys/vfs.h>
#include <sys/xattr.h>

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <fcntl.h>
#include <unistd.h>

namespace sober {
namespace {

/// Whether a rename that was reported as failed happened all the same: the file has its new name.
bool hasMoved(const Result<FileStamp>& before, const BytePath& from, const BytePath& to) {
    const auto now = stampAt(to);
    return before && now && presenceOf(from) == Presence::gone && before->device == now->device &&
           before->inode == now->inode;
}

/// What the file system or the user's rights refuse is left out.
void copyAttributes(int from, int to) {
    std::string names(65'536, '\0');
    const auto length = flistxattr(from, names.data(), names.size());
    for (std::size_t at = 0; length > 0 && at < static_cast<std::size_t>(length);
         at += std::strlen(names.data() + at) + 1) {
        std::string value(65'536, '\0');
        const auto size = fgetxattr(from, names.data() + at, value.data(), value.size());
        if (size >= 0) {
            fsetxattr(to, names.data() + at, value.data(), static_cast<std::size_t>(size), 0);
        }
    }
}

Outcome writeAll(const FileHandle& file, const BytePath& path, std::string_view content) {
    std::size_t written = 0;
    while (written < content.size()) {
        const auto got = write(file.get(), content.data() + written, content.size() - written);
        if (got < 0 && errno == EINTR) {
            continue;
        }
        if (got <= 0) {
            return systemError(errno, "write", path);
        }
        written += static_cast<std::size_t>(got);
    }
    return done();
}

/// What is left of so many bytes.
std::vector<ByteRange> partsWithout(std::uint64_t length, std::span<const ByteRange> without) {
    std::vector<ByteRange> parts;
    std::uint64_t next = 0;
    for (const auto& [first, past] : without) {
        if (first > next) {
            parts.emplace_back(next, std::min(first, length));
        }
        next = std::max(next, past);
    }
    if (next < length) {
        parts.emplace_back(next, length);
    }
    return parts;
}

Outcome copyPart(const FileHandle& source, const BytePath& from, const FileHandle& target,
                 const ByteRange& part) {
    auto at = static_cast<off_t>(part.first);
    const auto past = static_cast<off_t>(part.second);
    while (at < past) {
        const auto copied = sendfile(target.get(), source.get(), &at, static_cast<std::size_t>(past - at));
        if (copied < 0 && errno == EINTR) {
            continue;
        }
        if (copied < 0) {
            return systemError(errno, "copy", from);
        }
        if (copied == 0) {
            return Error{Cause::changed, from, displayPath(from) + " became shorter."};
        }
    }
    return done();
}

/// A file that is to become another's copy: open, new, and removed again where it does not come to its end.
struct CopyTarget {
    FileHandle source;
    struct stat status {};
    FileHandle target;
};

Result<CopyTarget> openCopy(const BytePath& from, const BytePath& to, Unflushed& unflushed) {
    auto source = openContent(from);
    RETURN_IF_FAILED(source);
    CopyTarget copy{std::move(*source), {}, {}};
    if (fstat(copy.source.get(), &copy.status) != 0) {
        return systemError(errno, "read", from);
    }
    copy.target = FileHandle(open(to.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC | O_NOFOLLOW, 0600));
    if (!copy.target) {
        return systemError(errno, "write", to);
    }
    unflushed.noteParentOf(to);
    return copy;
}

/// Attributes, owner and mode of the source, as far as they are ours to give and can be kept there.
Outcome endCopy(const CopyTarget& copy, const BytePath& to) {
    copyAttributes(copy.source.get(), copy.target.get());
    if (fchown(copy.target.get(), copy.status.st_uid, copy.status.st_gid) != 0 &&
        fchown(copy.target.get(), static_cast<uid_t>(-1), copy.status.st_gid) != 0) {
        errno = 0;
    }
    // Card file systems know no modes: what cannot be kept there was not there.
    const bool isKept = fchmod(copy.target.get(), copy.status.st_mode & 07777) == 0;
    if (!isKept && errno != EPERM && errno != ENOSYS && errno != ENOTSUP) {
        const auto error = systemError(errno, "set the mode of", to);
        unlink(to.c_str());
        return error;
    }
    return done();
}

/// All bytes of a source into a file, and their checksums.
Result<FileChecksums> pourBytes(ByteSource& source, const BytePath& from, const FileHandle& target,
                                const BytePath& to, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes) {
    constexpr std::size_t pieceLength = 256U << 10;
    const auto size = source.size();
    std::vector<std::uint8_t> piece(std::min<std::uint64_t>(pieceLength, size));
    ChecksumPass checksums(false);
    for (std::uint64_t at = 0; at < size;) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, from, "Stopped before " + displayPath(from) + " was copied."};
        }
        const auto length = static_cast<std::size_t>(std::min<std::uint64_t>(piece.size(), size - at));
        const auto got = source.readAt(at, std::span(piece).first(length));
        if (got < 0) {
            return Error{Cause::unreadable, from, "Could not read " + displayPath(from) + "."};
        }
        if (got == 0) {
            return Error{Cause::changed, from, displayPath(from) + " became shorter."};
        }
        const auto bytes = std::span(piece).first(static_cast<std::size_t>(got));
        checksums.feed(bytes);
        const auto written =
            writeAll(target, to, {reinterpret_cast<const char*>(bytes.data()), bytes.size()});
        RETURN_IF_FAILED(written);
        at += bytes.size();
        onBytes(bytes.size());
    }
    return checksums.finish();
}

} // namespace

Outcome moveEntry(const BytePath& from, const BytePath& to, Unflushed& unflushed) {
    const auto before = stampAt(from);
    int failure = renameat2(AT_FDCWD, from.c_str(), AT_FDCWD, to.c_str(), RENAME_NOREPLACE) == 0 ? 0 : errno;
    if (failure == EINVAL || failure == ENOSYS) {
        // A file system without the flag: the check and the rename are two steps there.
        failure = isTaken(to) ? EEXIST : std::rename(from.c_str(), to.c_str()) == 0 ? 0 : errno;
    }
    if (failure != 0 && !hasMoved(before, from, to)) {
        return systemError(failure, "move", failure == EEXIST ? to : from);
    }
    unflushed.noteParentOf(to);
    unflushed.noteParentOf(from);
    return done();
}

Result<bool> exchangeEntries(const BytePath& made, const BytePath& place, Unflushed& unflushed) {
    const auto before = stampAt(made);
    if (renameat2(AT_FDCWD, made.c_str(), AT_FDCWD, place.c_str(), RENAME_EXCHANGE) != 0) {
        const int failure = errno;
        const auto now = stampAt(place);
        if (failure == EINVAL || failure == ENOSYS) {
            return false;
        }
        if (!before || !now || before->inode != now->inode) {
            return systemError(failure, "replace", place);
        }
    }
    unflushed.noteParentOf(place);
    return true;
}

Outcome replaceEntry(const BytePath& from, const BytePath& to, Unflushed& unflushed) {
    const auto before = stampAt(from);
    if (std::rename(from.c_str(), to.c_str()) != 0) {
        const int failure = errno;
        if (!hasMoved(before, from, to)) {
            return systemError(failure, "replace", to);
        }
    }
    unflushed.noteParentOf(to);
    return done();
}

Outcome writeNewFile(const BytePath& path, std::string_view content, Unflushed& unflushed) {
    const FileHandle file(open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC | O_NOFOLLOW, 0600));
    if (!file) {
        return systemError(errno, "write", path);
    }
    unflushed.noteParentOf(path);
    if (const auto written = writeAll(file, path, content); !written) {
        unlink(path.c_str());
        return written;
    }
    return done();
}

Outcome appendTo(const BytePath& path, std::string_view content) {
    const FileHandle file(open(path.c_str(), O_WRONLY | O_APPEND | O_CLOEXEC | O_NOFOLLOW));
    return file ? writeAll(file, path, content) : Outcome(systemError(errno, "write", path));
}

Result<FileHandle> openForChanging(const BytePath& path) {
    FileHandle file(open(path.c_str(), O_RDWR | O_CLOEXEC | O_NOFOLLOW));
    return file ? Result(std::move(file)) : Result<FileHandle>(systemError(errno, "write", path));
}

Outcome copyToNew(const BytePath& from, const BytePath& to, Unflushed& unflushed,
                  std::span<const ByteRange> without) {
    const auto copy = openCopy(from, to, unflushed);
    RETURN_IF_FAILED(copy);
    for (const auto& part : partsWithout(static_cast<std::uint64_t>(copy->status.st_size), without)) {
        if (const auto copied = copyPart(copy->source, from, copy->target, part); !copied) {
            unlink(to.c_str());
            return copied;
        }
    }
    return endCopy(*copy, to);
}

Result<FileChecksums> copyChecksummed(const BytePath& from, const BytePath& to, Unflushed& unflushed,
                                      RunControl& control,
                                      const std::function<void(std::uint64_t)>& onBytes) {
    const auto copy = openCopy(from, to, unflushed);
    RETURN_IF_FAILED(copy);
    OpenFileSource source(copy->source, from, static_cast<std::uint64_t>(copy->status.st_size));
    auto checksums = pourBytes(source, from, copy->target, to, control, onBytes);
    if (!checksums) {
        unlink(to.c_str());
        return checksums;
    }
    RETURN_IF_FAILED(endCopy(*copy, to));
    const std::array<timespec, 2> times{timespec{0, UTIME_OMIT}, copy->status.st_mtim};
    futimens(copy->target.get(), times.data());
    return checksums;
}

Result<FileChecksums> writeBytes(ByteSource& bytes, const BytePath& named, const BytePath& to,
                                 Unflushed& unflushed, RunControl& control,
                                 const std::function<void(std::uint64_t)>& onBytes) {
    const FileHandle target(open(to.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC | O_NOFOLLOW, 0666));
    if (!target) {
        return systemError(errno, "write", to);
    }
    unflushed.noteParentOf(to);
    auto checksums = pourBytes(bytes, named, target, to, control, onBytes);
    if (!checksums) {
        unlink(to.c_str());
    }
    return checksums;
}

Outcome flushFile(const BytePath& path) {
    const FileHandle file(open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
    if (!file) {
        return systemError(errno, "flush", path);
    }
    if (fsync(file.get()) != 0) {
        return systemError(errno, "flush", path);
    }
    posix_fadvise(file.get(), 0, 0, POSIX_FADV_DONTNEED);
    return done();
}

Outcome flushFiles(std::span<const BytePath> paths) {
    constexpr std::size_t few = 16;
    constexpr auto inUserSpace = 0x65735546; // FUSE_SUPER_MAGIC, statfs(2): syncfs does nothing there
    if (paths.size() > few) {
        const FileHandle file(open(paths.front().c_str(), O_RDONLY | O_CLOEXEC | O_NOFOLLOW));
        struct statfs system {};
        if (file && fstatfs(file.get(), &system) == 0 && system.f_type != inUserSpace) {
            return syncfs(file.get()) == 0 ? done() : Outcome(systemError(errno, "flush", paths.front()));
        }
    }
    for (const auto& path : paths) {
        if (const auto flushed = flushFile(path); !flushed) {
            return flushed;
        }
    }
    return done();
}

/// Some file systems cannot flush a folder (EINVAL); a folder that may be entered and not listed cannot be
/// opened for it.
Outcome flushFolder(const BytePath& folder) {
    const FileHandle handle(open(folder.empty() ? "/" : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC));
    if (!handle || (fsync(handle.get()) != 0 && errno != EINVAL && errno != EROFS)) {
        return systemError(errno, "flush the folder", folder);
    }
    return done();
}

Outcome removeFile(const BytePath& path, Unflushed& unflushed) {
    if (unlink(path.c_str()) != 0) {
        const int failure = errno;
        return presenceOf(path) == Presence::gone ? done() : Outcome(systemError(failure, "remove", path));
    }
    unflushed.noteParentOf(path);
    return done();
}

Outcome makeFolder(const BytePath& path, unsigned mode, Unflushed& unflushed) {
    struct stat status {};
    if (stat(path.c_str(), &status) == 0) {
        return S_ISDIR(status.st_mode) ? done() : Outcome(systemError(ENOTDIR, "make the folder", path));
    }
    const BytePath above(parentOf(path));
    if (!above.empty() && above != path) {
        if (const auto made = makeFolder(above, mode, unflushed); !made) {
            return made;
        }
    }
    if (mkdir(path.c_str(), mode) != 0 && errno != EEXIST) {
        const int failure = errno;
        if (!isFolder(path)) {
            return systemError(failure, "make the folder", path);
        }
    }
    unflushed.noteParentOf(path);
    return done();
}

bool removeEmptyFolder(const BytePath& path, Unflushed& unflushed) {
    if (rmdir(path.c_str()) != 0) {
        return false;
    }
    unflushed.noteParentOf(path);
    return true;
}

} // namespace sober
