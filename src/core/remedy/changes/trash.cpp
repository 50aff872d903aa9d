#include "core/remedy/changes/trash.h"

#include "core/base/file_handle.h"
#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/base/user_folders.h"
#include "core/remedy/changes/file_changes.h"
#include "core/survey/volume_identity.h"

#include <fmt/format.h>
#include <sys/stat.h>

#include <cerrno>
#include <unistd.h>

namespace sober {
namespace {

constexpr std::size_t longestName = 255; // NAME_MAX of Linux file systems
constexpr std::string_view noteEnding = ".trashinfo";

/// A real folder of this user; file systems without owners say of all what they were mounted with.
Outcome isOwn(const BytePath& path, bool hasOwners) {
    struct stat status {};
    if (lstat(path.c_str(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    if (!S_ISDIR(status.st_mode)) {
        return Error{Cause::wrongKind, path, displayPath(path) + " is a link or a file."};
    }
    return !hasOwners || status.st_uid == getuid()
               ? done()
               : Outcome(Error{Cause::notPermitted, path, displayPath(path) + " belongs to another user."});
}

Outcome prepare(const BytePath& folder, bool hasOwners, Unflushed& unflushed) {
    for (const auto* part : {"files", "info"}) {
        // A link is not followed: what it leads to may be anybody's.
        if (const auto own = isTaken(folder) ? isOwn(folder, hasOwners) : done(); !own) {
            return own;
        }
        const auto path = joinPath(folder, part);
        if (const auto made = isTaken(path) ? done() : makeFolder(path, 0700, unflushed); !made) {
            return made;
        }
        if (const auto own = isOwn(path, hasOwners); !own) {
            return own;
        }
    }
    return done();
}

Error cannotMake(const BytePath& folder, const Error& why) {
    return {why.cause, folder,
            "There is no trash to retire into: " + why.sentence + " The file stays where it is."};
}

Result<std::uint64_t> deviceOf(const BytePath& path) {
    struct stat status {};
    if (stat(path.c_str(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    return static_cast<std::uint64_t>(status.st_dev);
}

/// The nearest folder upwards that exists.
BytePath nearestExisting(BytePath path) {
    while (!isTaken(path) && path != "/" && !path.empty()) {
        path = BytePath(parentOf(path));
    }
    return path;
}

/// The highest folder above `path` that a rename reaches: the mount point, or the top of a part of its file
/// system that counts as one of its own.
BytePath topFolder(const BytePath& path, std::uint64_t device, const BytePath& mountPoint) {
    BytePath top(parentOf(path));
    while (top != "/" && top != mountPoint) {
        const BytePath above(parentOf(top));
        const auto aboveDevice = deviceOf(above);
        if (!aboveDevice || *aboveDevice != device) {
            break;
        }
        top = above;
    }
    return top;
}

/// The specification: .Trash must be a real folder with the sticky bit.
bool isProperSharedTrash(const BytePath& path) {
    struct stat status {};
    return lstat(path.c_str(), &status) == 0 && S_ISDIR(status.st_mode) && (status.st_mode & S_ISVTX) != 0;
}

/// Characters that RFC 2396 lets stand, and the slash.
bool standsUnencoded(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
           std::string_view("-_.!~*'()/").find(c) != std::string_view::npos;
}

std::string percentEncoded(std::string_view path) {
    std::string out;
    for (const char c : path) {
        if (standsUnencoded(c)) {
            out.push_back(c);
        } else {
            out += fmt::format("%{:02X}", static_cast<unsigned char>(c));
        }
    }
    return out;
}

/// At most `room` bytes of a name, its ending kept, no UTF-8 character cut in two.
std::string shortened(std::string_view name, std::size_t room) {
    if (name.size() <= room) {
        return std::string(name);
    }
    const auto ending = name.substr(stemOf(name).size());
    const auto kept = ending.size() < 20 ? ending : std::string_view{};
    auto stem = name.substr(0, room - kept.size());
    const bool wasUtf8 = isUtf8(name);
    while (wasUtf8 && !stem.empty() && !isUtf8(stem)) {
        stem.remove_suffix(1);
    }
    return fmt::format("{}{}", stem, kept);
}

/// What a note says of the place.
std::string noteBegin(const Trash& trash, const BytePath& original) {
    const auto path = trash.top.empty() ? original : relativeTo(original, trash.top).value_or(original);
    return fmt::format("[Trash Info]\nPath={}\n", percentEncoded(path));
}

} // namespace

Result<Trash> trashFor(const BytePath& path, Unflushed& unflushed) {
    const auto device = deviceOf(BytePath(parentOf(path)));
    RETURN_IF_FAILED(device);
    const BytePath home = joinPath(dataHome(), "Trash");
    const auto homeDevice = deviceOf(nearestExisting(home));
    if (!homeDevice) {
        return cannotMake(home, homeDevice.error());
    }
    // A folder that is bound elsewhere is on the same device, and yet no rename leads out of it.
    const auto mounts = mountsNow();
    const BytePath real =
        joinPath(realPathOf(parentOf(path)).value_or(BytePath(parentOf(path))), nameOf(path));
    const auto mount = mountOf(mounts, real);
    const auto homeMount = mountOf(mounts, realPathOf(nearestExisting(home)).value_or(home));
    const bool hasOwners = !mount || hasLastingInodes(mount->type);
    if (*homeDevice == *device && (!mount || !homeMount || mount->id == homeMount->id)) {
        if (const auto made = prepare(home, hasOwners, unflushed); !made) {
            return cannotMake(home, made.error());
        }
        return Trash{home, {}};
    }
    const BytePath top = topFolder(real, *device, mount ? mount->point : "/");
    const auto user = std::to_string(getuid());
    const BytePath shared = joinPath(top, ".Trash");
    if (isProperSharedTrash(shared)) {
        const BytePath own = joinPath(shared, user);
        if (prepare(own, hasOwners, unflushed)) {
            return Trash{own, top};
        }
    }
    const BytePath own = joinPath(top, ".Trash-" + user);
    if (const auto made = prepare(own, hasOwners, unflushed); !made) {
        return cannotMake(own, made.error());
    }
    return Trash{own, top};
}

Trash trashHolding(const BytePath& note) {
    Trash trash{BytePath(parentOf(parentOf(note))), {}};
    if (trash.folder != joinPath(dataHome(), "Trash")) {
        const auto above = parentOf(trash.folder);
        trash.top = BytePath(nameOf(above) == ".Trash" ? parentOf(above) : above);
    }
    return trash;
}

TrashSlot freeSlot(const Trash& trash, std::string_view name, const std::set<BytePath>& chosen) {
    for (unsigned number = 0;; ++number) {
        const std::string suffix = number == 0 ? std::string() : fmt::format("_{}", number);
        const std::string fitting = shortened(name, longestName - noteEnding.size() - suffix.size());
        const auto stem = stemOf(fitting);
        const std::string taken =
            fmt::format("{}{}{}", stem, suffix, std::string_view(fitting).substr(stem.size()));
        TrashSlot slot{joinPath(joinPath(trash.folder, "files"), taken),
                       joinPath(joinPath(trash.folder, "info"), taken + std::string(noteEnding))};
        if (!chosen.contains(slot.note) && !isTaken(slot.file) && !isTaken(slot.note)) {
            return slot;
        }
    }
}

std::string noteText(const Trash& trash, const BytePath& original, Nanoseconds time) {
    return noteBegin(trash, original) + fmt::format("DeletionDate={}\n", localIso(time));
}

Result<bool> isNoteAbout(const BytePath& note, const BytePath& original) {
    constexpr std::uint64_t longestNote = 64U << 10; // bytes
    const auto text = wholeFile(note, longestNote);
    RETURN_IF_FAILED(text);
    const auto begin = noteBegin(trashHolding(note), original);
    // One whose writing was cut short as well.
    return text->starts_with(begin) || begin.starts_with(*text);
}

} // namespace sober
