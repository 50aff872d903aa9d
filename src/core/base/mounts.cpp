#include "core/base/mounts.h"

#include <libmount/libmount.h>
#include <sys/sysmacros.h>

#include <cstdio>
#include <fcntl.h>
#include <memory>
#include <poll.h>

namespace sober {
namespace {

constexpr const char* mountsFile = "/proc/self/mountinfo";

struct ReleaseTable {
    void operator()(libmnt_table* table) const { mnt_unref_table(table); }
};
struct ReleaseIterator {
    void operator()(libmnt_iter* iterator) const { mnt_free_iter(iterator); }
};
struct CloseFile {
    void operator()(std::FILE* file) const { std::fclose(file); }
};
using File = std::unique_ptr<std::FILE, CloseFile>;

std::string textOr(const char* text, const char* otherwise) {
    return text != nullptr ? text : otherwise;
}

int leaveOut(libmnt_table* /*table*/, const char* /*file*/, int /*line*/) {
    return 1;
}

std::vector<Mount> mountsFrom(std::FILE* file) {
    const std::unique_ptr<libmnt_table, ReleaseTable> table(mnt_new_table());
    const std::unique_ptr<libmnt_iter, ReleaseIterator> next(mnt_new_iter(MNT_ITER_FORWARD));
    std::vector<Mount> mounts;
    if (!table || !next || mnt_table_set_parser_errcb(table.get(), leaveOut) != 0 ||
        mnt_table_parse_stream(table.get(), file, "mountinfo") != 0) {
        return mounts;
    }
    libmnt_fs* each = nullptr;
    while (mnt_table_next_fs(table.get(), next.get(), &each) == 0) {
        const auto device = mnt_fs_get_devno(each);
        mounts.push_back({textOr(mnt_fs_get_target(each), ""), textOr(mnt_fs_get_root(each), "/"),
                          textOr(mnt_fs_get_fstype(each), ""), textOr(mnt_fs_get_srcpath(each), "none"),
                          std::to_string(major(device)) + ":" + std::to_string(minor(device)),
                          static_cast<std::uint64_t>(mnt_fs_get_id(each))});
    }
    return mounts;
}

/// Whether the mounts changed since this file was opened or last asked.
bool tellsOfChange(const FileHandle& file) {
    pollfd asked{file.get(), POLLPRI, 0};
    return poll(&asked, 1, 0) != 0;
}

} // namespace

std::vector<Mount> parseMountInfo(std::string_view text) {
    std::string copy(text);
    const File file(copy.empty() ? nullptr : fmemopen(copy.data(), copy.size(), "r"));
    return file ? mountsFrom(file.get()) : std::vector<Mount>{};
}

std::vector<Mount> mountsNow() {
    const File file(std::fopen(mountsFile, "re"));
    return file ? mountsFrom(file.get()) : std::vector<Mount>{};
}

std::span<const Mount> MountWatch::now() {
    if (!file_) {
        file_ = FileHandle(open(mountsFile, O_RDONLY | O_CLOEXEC));
    }
    // Asked before they are read: what changes in between is told the next time. There is always some mount:
    // where none could be read, that was a failure of the moment.
    if (!file_ || tellsOfChange(file_) || mounts_.empty()) {
        mounts_ = mountsNow();
    }
    return mounts_;
}

std::optional<Mount> mountOf(std::span<const Mount> mounts, const BytePath& path) {
    const Mount* best = nullptr;
    for (const auto& mount : mounts) {
        // Of mounts on one point the last one listed covers the others.
        if (isWithin(path, mount.point) && (best == nullptr || mount.point.size() >= best->point.size())) {
            best = &mount;
        }
    }
    return best != nullptr ? std::optional(*best) : std::nullopt;
}

std::optional<InnerPlace> innerPlaceOf(std::span<const Mount> mounts, const BytePath& path) {
    const auto mount = mountOf(mounts, path);
    if (!mount) {
        return std::nullopt;
    }
    const auto below = relativeTo(path, mount->point).value_or(BytePath());
    return InnerPlace{mount->device, joinPath(mount->rootWithin, below)};
}

} // namespace sober
