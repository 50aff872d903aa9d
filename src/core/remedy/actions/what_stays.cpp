#include "core/remedy/actions/what_stays.h"

#include "core/base/text.h"
#include "core/base/trash_places.h"
#include "core/evidence/compare_content.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

constexpr Nanoseconds second = 1'000'000'000;

/// Two numbers of a file that file systems in between pass on: a real copy was made at another instant. Where
/// times are whole seconds, or the change is the writing, they tell nothing by themselves.
bool looksLikeOneFile(const FileStamp& one, const FileStamp& other) {
    if (one.size != other.size || one.mtime != other.mtime || one.ctime != other.ctime) {
        return false;
    }
    return one.inode == other.inode || (one.ctime % second != 0 && one.ctime != one.mtime);
}

bool isMountPoint(const BytePath& path, std::span<const Mount> mounts) {
    const auto real = realPathOf(path).value_or(path);
    return std::ranges::find(mounts, real, &Mount::point) != mounts.end();
}

} // namespace

std::optional<std::string> whyNoCopy(const BytePath& stays, const FileStamp& staysStamp, const BytePath& goes,
                                     const FileStamp& goesStamp, std::span<const Mount> mounts) {
    const auto other = [&] { return displayPath(stays) + " is the same file by another way, no copy."; };
    if (realPathOf(stays) == realPathOf(goes) || isSameEntry(stays, goes)) {
        return other();
    }
    if (staysStamp.device == goesStamp.device) {
        const bool oneInode = staysStamp.inode == goesStamp.inode;
        if (oneInode && (goesStamp.links < 2 || isMountPoint(stays, mounts) || isMountPoint(goes, mounts))) {
            return other();
        }
    } else if (looksLikeOneFile(staysStamp, goesStamp)) {
        return other();
    }
    if (isInTrash(stays, mounts)) {
        return displayPath(stays) + " lies in the trash: it was thrown away, and is no copy that stays.";
    }
    return std::nullopt;
}

std::optional<std::string> whyNotThere(const Staying& staying) {
    const auto& path = staying.path;
    const auto file = openForReading(path);
    const auto stamp = file ? stampOf(*file, path) : Result<FileStamp>(file.error());
    std::array<std::uint8_t, 1> byte{};
    const auto read =
        stamp && stamp->size > 0 ? readAt(*file, path, stamp->size - 1, byte) : Result<std::size_t>(0);
    if (!stamp || !read) {
        return fmt::format("{} was to stay and is not there any more.", displayPath(path));
    }
    return stamp->sameContentAs(staying.stamp)
               ? std::nullopt
               : std::optional(displayPath(path) + " was to stay and is not what was compared any more.");
}

} // namespace sober
