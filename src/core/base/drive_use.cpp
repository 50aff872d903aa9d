#include "core/base/drive_use.h"

#include "core/base/mounts.h"
#include "core/base/text.h"

#include <fmt/format.h>
#include <sys/stat.h>
#include <sys/sysmacros.h>

#include <algorithm>
#include <cerrno>
#include <filesystem>
#include <fstream>
#include <set>

namespace sober {
namespace {

namespace fs = std::filesystem;

std::string numberOf(dev_t device) {
    return fmt::format("{}:{}", major(device), minor(device));
}

std::string lineOf(const fs::path& file) {
    std::ifstream stream(file);
    std::string line;
    std::getline(stream, line);
    return line;
}

std::vector<fs::path> entriesOf(const fs::path& folder) {
    std::error_code failed;
    std::vector<fs::path> entries;
    for (fs::directory_iterator each(folder, failed), end; !failed && each != end; each.increment(failed)) {
        entries.push_back(each->path());
    }
    return entries;
}

/// A device's folder in sysfs; empty where there is none.
fs::path folderOf(const std::string& number) {
    std::error_code failed;
    return fs::canonical("/sys/dev/block/" + number, failed);
}

/// The device itself, its parts, and all that lies on them.
void gather(const fs::path& folder, std::set<std::string>& numbers, bool& isHeld) {
    const auto number = lineOf(folder / "dev");
    if (number.empty() || !numbers.insert(number).second) {
        return;
    }
    for (const auto& holder : entriesOf(folder / "holders")) {
        isHeld = true;
        gather(folderOf(lineOf(holder / "dev")), numbers, isHeld);
    }
    for (const auto& entry : entriesOf(folder)) {
        if (fs::exists(entry / "partition")) {
            gather(entry, numbers, isHeld);
        }
    }
}

/// The whole drives below a device: of a part its drive, of what lies on others theirs.
void gatherDrives(const fs::path& folder, std::set<std::string>& numbers) {
    if (folder.empty()) {
        return;
    }
    const auto slaves = entriesOf(folder / "slaves");
    for (const auto& slave : slaves) {
        gatherDrives(folderOf(lineOf(slave / "dev")), numbers);
    }
    if (slaves.empty()) {
        numbers.insert(lineOf((fs::exists(folder / "partition") ? folder.parent_path() : folder) / "dev"));
    }
}

/// The drives from which the system runs.
std::set<std::string> systemDrives(const std::vector<Mount>& mounts) {
    std::set<std::string> drives;
    for (const auto& mount : mounts) {
        if (mount.point != "/" && mount.point != "/usr" && !isWithin(mount.point, "/boot")) {
            continue;
        }
        struct stat status {};
        const bool isDevice = stat(mount.source.c_str(), &status) == 0 && S_ISBLK(status.st_mode);
        gatherDrives(folderOf(isDevice ? numberOf(status.st_rdev) : mount.device), drives);
    }
    return drives;
}

bool isSwap(const std::set<std::string>& numbers) {
    std::ifstream swaps("/proc/swaps");
    std::string line;
    std::getline(swaps, line); // the names of its columns
    while (std::getline(swaps, line)) {
        struct stat status {};
        const auto path = line.substr(0, line.find_first_of(" \t"));
        if (stat(path.c_str(), &status) == 0 && S_ISBLK(status.st_mode) &&
            numbers.contains(numberOf(status.st_rdev))) {
            return true;
        }
    }
    return false;
}

/// Loops that stand for a file.
std::vector<fs::path> loopsOf(const BytePath& file) {
    std::vector<fs::path> loops;
    for (const auto& device : entriesOf("/sys/block")) {
        if (lineOf(device / "loop" / "backing_file") == file) {
            loops.push_back(device);
        }
    }
    return loops;
}

} // namespace

Result<DriveUse> useOf(const BytePath& path) {
    struct stat status {};
    if (stat(path.c_str(), &status) != 0) {
        return systemError(errno, "look at", path);
    }
    const auto mounts = mountsNow();
    DriveUse use;
    std::set<std::string> numbers;
    if (S_ISBLK(status.st_mode)) {
        const auto folder = folderOf(numberOf(status.st_rdev));
        numbers.insert(folder.empty() ? numberOf(status.st_rdev) : std::string());
        gather(folder, numbers, use.isHeld);
        std::set<std::string> drives;
        gatherDrives(folder, drives);
        const auto systems = systemDrives(mounts);
        use.isSystems = std::ranges::any_of(drives, [&](const auto& each) { return systems.contains(each); });
    } else {
        for (const auto& loop : loopsOf(realPathOf(path).value_or(path))) {
            use.isHeld = true;
            gather(loop, numbers, use.isHeld);
        }
    }
    for (const auto& mount : mounts) {
        if (numbers.contains(mount.device)) {
            use.mountedAt.push_back(mount.point);
        }
    }
    use.isSwap = isSwap(numbers);
    return use;
}

std::string wordsFor(const DriveUse& use) {
    return use.isSystems            ? "the system runs from it"
           : !use.mountedAt.empty() ? "it is mounted at " + displayPath(use.mountedAt.front())
           : use.isSwap             ? "the system swaps to it"
           : use.isHeld             ? "something else lies on it and uses it"
                                    : "";
}

} // namespace sober
