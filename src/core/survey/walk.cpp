#include "core/survey/walk.h"

#include "core/base/text.h"
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

bool isTrashFolder(std::string_view name) {
    return name == ".Trash" || name.starts_with(".Trash-");
}

class Walker {
  public:
    Walker(const BytePath& root, const SurveyChoices& choices, std::span<const BytePath> otherRoots,
           RunControl& control)
        : root_(root),
          choices_(choices),
          otherRoots_(otherRoots),
          control_(control),
          homeTrash_(joinPath(dataHome(), "Trash")) {}

    Walk run() {
        auto folder = openFolder(AT_FDCWD, root_.c_str(), root_, true);
        if (!folder) {
            walk_.errors.push_back({root_, folder.error().sentence});
            walk_.unlisted.emplace_back();
        } else {
            enter(std::move(*folder), {}, 1);
        }
        return std::move(walk_);
    }

  private:
    bool leftOut(const BytePath& relative, std::string_view name) const {
        if (choices_.leaveHidden && name.starts_with('.')) {
            return true;
        }
        const BytePath ownName(name);
        return std::ranges::any_of(choices_.leavePatterns, [&](const std::string& pattern) {
            return fnmatch(pattern.c_str(), ownName.c_str(), 0) == 0 ||
                   fnmatch(pattern.c_str(), relative.c_str(), 0) == 0;
        });
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
        if (leftOut(relative, name)) {
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
            const auto stamp = stampOf(status);
            if (stamp.size >= choices_.minSize && (choices_.maxSize == 0 || stamp.size <= choices_.maxSize)) {
                walk_.files.push_back({std::move(relative), stamp});
            }
        }
    }

    void visitFolder(int parent, const char* name, const BytePath& relative, int depth) {
        const auto absolute = joinPath(root_, relative);
        if (isTrashFolder(name) || absolute == homeTrash_ ||
            std::ranges::find(otherRoots_, absolute) != otherRoots_.end() ||
            (choices_.maxDepth > 0 && depth >= choices_.maxDepth)) {
            return;
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
    BytePath homeTrash_;
    Walk walk_;
    std::set<std::pair<dev_t, ino_t>> entered_;
};

} // namespace

Walk walkVolume(const BytePath& root, const SurveyChoices& choices, std::span<const BytePath> otherRoots,
                RunControl& control) {
    return Walker(root, choices, otherRoots, control).run();
}

} // namespace sober
