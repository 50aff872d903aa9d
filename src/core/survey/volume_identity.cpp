#include "core/survey/volume_identity.h"

#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <blkid/blkid.h>
#include <sys/stat.h>
#include <sys/statvfs.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <dirent.h>
#include <fstream>
#include <memory>
#include <sstream>

namespace sober {
namespace {

/// mountinfo writes space, tab, newline and backslash as three octal digits.
BytePath withoutOctal(std::string_view text) {
    BytePath out;
    for (std::size_t i = 0; i < text.size(); ++i) {
        const auto digit = [&](std::size_t at) { return text[at] >= '0' && text[at] <= '7'; };
        if (text[i] == '\\' && i + 3 < text.size() && digit(i + 1) && digit(i + 2) && digit(i + 3)) {
            out.push_back(
                static_cast<char>((text[i + 1] - '0') * 64 + (text[i + 2] - '0') * 8 + text[i + 3] - '0'));
            i += 3;
        } else {
            out.push_back(text[i]);
        }
    }
    return out;
}

std::string uuidFromLinks(const BytePath& device) {
    const BytePath folder = "/dev/disk/by-uuid";
    const std::unique_ptr<DIR, int (*)(DIR*)> listing(opendir(folder.c_str()), &closedir);
    if (!listing) {
        return {};
    }
    while (const dirent* entry = readdir(listing.get())) {
        if (realPathOf(joinPath(folder, entry->d_name)) == device) {
            return entry->d_name;
        }
    }
    return {};
}

std::string uuidOf(const Mount& mount) {
    const auto device = mount.source.starts_with("/dev/") ? realPathOf(mount.source) : std::nullopt;
    if (!device) {
        return {};
    }
    if (auto uuid = uuidFromLinks(*device); !uuid.empty()) {
        return uuid;
    }
    const std::unique_ptr<blkid_struct_probe, void (*)(blkid_probe)> probe(
        blkid_new_probe_from_filename(device->c_str()), [](blkid_probe opened) {
            if (opened != nullptr) {
                blkid_free_probe(opened);
            }
        });
    const char* uuid = nullptr;
    if (probe && blkid_do_safeprobe(probe.get()) == 0 &&
        blkid_probe_lookup_value(probe.get(), "UUID", &uuid, nullptr) == 0 && uuid != nullptr) {
        return uuid;
    }
    return {};
}

bool isFolder(const BytePath& path) {
    struct stat status {};
    return stat(path.c_str(), &status) == 0 && S_ISDIR(status.st_mode);
}

/// The share of a sample of the volume's holdings that stand, with their size, below `root`.
double shareFound(std::span<const Holding> sample, const BytePath& root) {
    std::size_t found = 0;
    for (const auto& holding : sample) {
        const auto stamp = stampAt(joinPath(root, holding.path));
        found += stamp && stamp->size == holding.size ? 1 : 0;
    }
    return sample.empty() ? 0 : static_cast<double>(found) / static_cast<double>(sample.size());
}

} // namespace

std::vector<Mount> parseMountInfo(std::string_view text) {
    std::vector<Mount> mounts;
    std::istringstream lines{std::string(text)};
    for (std::string line; std::getline(lines, line);) {
        std::istringstream fields(line);
        std::vector<std::string> before;
        std::string field;
        while (fields >> field && field != "-") {
            before.push_back(field);
        }
        std::string type;
        std::string source;
        if (before.size() >= 6 && fields >> type >> source) {
            mounts.push_back({withoutOctal(before[4]), withoutOctal(before[3]), type, withoutOctal(source)});
        }
    }
    return mounts;
}

std::vector<Mount> mountsNow() {
    std::ifstream file("/proc/self/mountinfo");
    std::ostringstream text;
    text << file.rdbuf();
    return parseMountInfo(text.str());
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

VolumeIdentity identityOf(const BytePath& root, std::span<const Mount> mounts) {
    VolumeIdentity identity;
    if (const auto stamp = stampAt(root)) {
        identity.rootInode = stamp->inode;
    }
    if (const auto mount = mountOf(mounts, root)) {
        identity.filesystemType = mount->type;
        identity.filesystem = uuidOf(*mount);
        const auto below = relativeTo(root, mount->point).value_or(BytePath());
        identity.within = mount->rootWithin == "/" ? below : joinPath(mount->rootWithin.substr(1), below);
    }
    return identity;
}

bool hasLastingInodes(const std::string& filesystemType) {
    constexpr std::array<std::string_view, 6> madeUp{"vfat", "msdos", "exfat", "fuseblk", "fuse", "cifs"};
    return std::ranges::find(madeUp, filesystemType) == madeUp.end() && !filesystemType.starts_with("fuse.");
}

bool isAtHand(const Catalogue& catalogue, const Volume& volume, std::span<const Mount> mounts) {
    if (!isFolder(volume.root)) {
        return false;
    }
    const auto now = identityOf(volume.root, mounts);
    if (!volume.identity.filesystem.empty() && !now.filesystem.empty()) {
        return volume.identity.filesystem == now.filesystem;
    }
    if (now.rootInode == volume.identity.rootInode && now.filesystemType == volume.identity.filesystemType) {
        return true;
    }
    const auto sample = Holdings(catalogue).sample(volume.id, 20);
    return sample && (sample->empty() || shareFound(*sample, volume.root) > 0);
}

Result<std::optional<Volume>> recogniseVolume(const Catalogue& catalogue, const BytePath& root,
                                              std::span<const Mount> mounts) {
    constexpr int sampleSize = 100;
    constexpr double enoughFound = 0.8;
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto here = identityOf(root, mounts);
    for (const auto& volume : *volumes) {
        if (volume.root == root || isAtHand(catalogue, volume, mounts)) {
            continue;
        }
        if (!here.filesystem.empty() && !volume.identity.filesystem.empty()) {
            if (here.filesystem == volume.identity.filesystem && here.within == volume.identity.within) {
                return std::optional(volume);
            }
            if (here.filesystem != volume.identity.filesystem) {
                continue;
            }
        }
        const auto sample = Holdings(catalogue).sample(volume.id, sampleSize);
        if (!sample) {
            return sample.error();
        }
        if (shareFound(*sample, root) >= enoughFound) {
            return std::optional(volume);
        }
    }
    return std::optional<Volume>();
}

void measureSpace(Volume& volume) {
    struct statvfs space {};
    if (statvfs(volume.root.c_str(), &space) == 0) {
        volume.capacity = static_cast<std::uint64_t>(space.f_blocks) * space.f_frsize;
        volume.available = static_cast<std::uint64_t>(space.f_bavail) * space.f_frsize;
    }
}

Result<bool> lookForVolumes(const Catalogue& catalogue) {
    const auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    const auto mounts = mountsNow();
    bool changed = false;
    for (auto volume : *volumes) {
        const Volume before = volume;
        volume.atHand = isAtHand(catalogue, volume, mounts);
        if (volume.atHand) {
            measureSpace(volume);
        }
        changed = changed || volume.atHand != before.atHand;
        if (catalogue.canWrite() && (volume.atHand != before.atHand || volume.capacity != before.capacity ||
                                     volume.available != before.available)) {
            if (const auto written = Volumes(catalogue).update(volume); !written) {
                return written.error();
            }
        }
    }
    return changed;
}

} // namespace sober
