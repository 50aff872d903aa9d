#include "core/survey/walk.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/base/trash_places.h"
#include "core/base/user_folders.h"

#include <algorithm>
#include <cerrno>
#include <dirent.h>
#include <fcntl.h>
#include <fnmatch.h>
#include <memory>
#include <set>
#include <unistd.h>

namespace sober {
namespace {

bool matchesChoices(const SurveyChoices& choices, const BytePath& relative, std::string_view name) {
    if (choices.leaveHidden && name.starts_with('.')) {
        return true;
    }
    const BytePath ownName(name);
    return std::ranges::any_of(choices.leavePatterns, [&](const std::string& pattern) {
        return fnmatch(pattern.c_str(), ownName.c_str(), 0) == 0 ||
               fnmatch(pattern.c_str(), relative.c_str(), 0) == 0;
    });
}

bool isOfSize(const SurveyChoices& choices, std::uint64_t size) {
    return size >= choices.minSize && (choices.maxSize == 0 || size <= choices.maxSize);
}

class Walker {
  public:
    Walker(const BytePath& root, const SurveyChoices& choices, std::span<const BytePath> otherRoots,
           RunControl& control)
        : root_(root), choices_(choices), otherRoots_(otherRoots), control_(control) {
        struct stat status {};
        if (stat(joinPath(dataHome(), "Trash").c_str(), &status) == 0) {
            homeTrash_ = std::pair(status.st_dev, status.st_ino);
        }
    }

    Walk run() {
        auto folder = openFolder(AT_FDCWD, root_.c_str(), root_, true);
        if (!folder) {
            walk_.errors.push_back({root_, folder.error().sentence});
            walk_.unlisted.emplace_back();
        } else {
            enter(std::move(*folder), {}, 1);
            takeLinked();
        }
        return std::move(walk_);
    }

  private:
    bool isHomeTrash(int parent, const char* name) const {
        struct stat status {};
        return homeTrash_ && nameOf(name) == "Trash" && fstatat(parent, name, &status, 0) == 0 &&
               *homeTrash_ == std::pair(status.st_dev, status.st_ino);
    }

    void cannotList(const BytePath& relative, int errorNumber) {
        const auto path = joinPath(root_, relative);
        walk_.errors.push_back({path, systemError(errorNumber, "list the folder", path).sentence});
        walk_.unlisted.push_back(relative);
    }

    void enter(FileHandle folder, const BytePath& relative, int depth) {
        if (choices_.followLinks) {
            struct stat status {};
            if (fstat(folder.get(), &status) != 0 || !entered_.emplace(status.st_dev, status.st_ino).second) {
                return;
            }
        }
        const int descriptor = folder.get();
        const std::unique_ptr<DIR, int (*)(DIR*)> listing(fdopendir(folder.release()), &closedir);
        if (!listing) {
            close(descriptor);
            cannotList(relative, errno);
            return;
        }
        while (control_.proceed()) {
            errno = 0;
            const dirent* entry = readdir(listing.get());
            if (entry == nullptr) {
                if (errno != 0) {
                    cannotList(relative, errno);
                }
                return;
            }
            visit(descriptor, *entry, relative, depth);
        }
    }

    void visit(int parent, const dirent& entry, const BytePath& folder, int depth) {
        const std::string_view name = entry.d_name;
        if (name == "." || name == "..") {
            return;
        }
        const auto kind = entry.d_type;
        if (kind != DT_REG && kind != DT_DIR && kind != DT_UNKNOWN &&
            !(kind == DT_LNK && choices_.followLinks)) {
            return;
        }
        BytePath relative = joinPath(folder, name);
        if (matchesChoices(choices_, relative, name)) {
            return;
        }
        struct stat status {};
        const bool follow = choices_.followLinks;
        if (fstatat(parent, entry.d_name, &status, follow ? 0 : AT_SYMLINK_NOFOLLOW) != 0) {
            if (errno != ENOENT && errno != ELOOP) {
                const auto path = joinPath(root_, relative);
                walk_.errors.push_back({path, systemError(errno, "look at", path).sentence});
                walk_.unlisted.push_back(relative);
            }
            return;
        }
        if (S_ISDIR(status.st_mode)) {
            visitFolder(parent, entry.d_name, relative, depth);
        } else if (S_ISREG(status.st_mode)) {
            takeFile(relative, stampOf(status), kind == DT_LNK);
        }
    }

    /// What a link leads to is a file of its own only where it is not met itself.
    void takeFile(BytePath& relative, const FileStamp& stamp, bool byLink) {
        const bool isArchive = choices_.lookInside && isArchiveName(relative); // of any size
        if (!isOfSize(choices_, stamp.size) && !isArchive) {
            return;
        }
        if (!byLink) {
            walk_.files.push_back({std::move(relative), stamp});
            return;
        }
        linked_.push_back({std::move(relative), stamp});
    }

    /// A file that is met without links, or was met by another link, is not met again.
    void takeLinked() {
        std::set<std::pair<std::uint64_t, std::uint64_t>> met;
        if (!linked_.empty()) {
            for (const auto& file : walk_.files) {
                met.emplace(file.stamp.device, file.stamp.inode);
            }
        }
        for (auto& file : linked_) {
            const auto real = realPathOf(joinPath(root_, file.path));
            if (real && !isInTrash(*real) && met.emplace(file.stamp.device, file.stamp.inode).second) {
                walk_.files.push_back(std::move(file));
            }
        }
    }

    void visitFolder(int parent, const char* name, const BytePath& relative, int depth) {
        const auto absolute = joinPath(root_, relative);
        if (isTrashFolder(name, BytePath(parentOf(absolute))) || isHomeTrash(parent, name) ||
            std::ranges::find(otherRoots_, absolute) != otherRoots_.end() ||
            (choices_.maxDepth > 0 && depth >= choices_.maxDepth)) {
            return;
        }
        if (choices_.followLinks && isInTrash(absolute)) {
            return; // by a link
        }
        auto folder = openFolder(parent, name, absolute, choices_.followLinks);
        if (!folder) {
            if (folder.error().cause != Cause::notFound) {
                walk_.errors.push_back({absolute, folder.error().sentence});
                walk_.unlisted.push_back(relative);
            }
            return;
        }
        enter(std::move(*folder), relative, depth + 1);
    }

    const BytePath& root_;
    const SurveyChoices& choices_;
    std::span<const BytePath> otherRoots_;
    RunControl& control_;
    std::optional<std::pair<dev_t, ino_t>> homeTrash_; ///< wherever a linked home has it
    Walk walk_;
    std::vector<WalkedFile> linked_;
    std::set<std::pair<dev_t, ino_t>> entered_;
};

bool isPlaceLeftOut(const SurveyChoices& choices, const BytePath& root, const BytePath& path) {
    if (choices.maxDepth > 0 && depthOf(path) >= choices.maxDepth) {
        return true;
    }
    for (BytePath part = path; !part.empty(); part = BytePath(parentOf(part))) {
        struct stat status {};
        const bool isLink = lstat(joinPath(root, part).c_str(), &status) == 0 && S_ISLNK(status.st_mode);
        if (matchesChoices(choices, part, nameOf(part)) || (isLink && !choices.followLinks)) {
            return true;
        }
    }
    return false;
}

} // namespace

bool takesIn(const SurveyChoices& choices, const BytePath& path, std::uint64_t size) {
    return isOfSize(choices, size) && !matchesChoices(choices, path, nameOf(path));
}

bool isLeftOut(const SurveyChoices& choices, const BytePath& root, const BytePath& path, std::uint64_t size) {
    const auto inner = innerPathOf(path);
    if (inner) {
        return !choices.lookInside || !takesIn(choices, path, size) ||
               isPlaceLeftOut(choices, root, inner->archive);
    }
    return !isOfSize(choices, size) || isPlaceLeftOut(choices, root, path);
}

Walk walkVolume(const BytePath& root, const SurveyChoices& choices, std::span<const BytePath> otherRoots,
                RunControl& control) {
    return Walker(root, choices, otherRoots, control).run();
}

} // namespace sober
