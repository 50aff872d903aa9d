#include "core/survey/volume_identity.h"

#include "core/base/file_handle.h"
#include "core/base/inner_path.h"
#include "core/base/superblock.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/ledger_store.h"
#include "core/catalogue/volumes.h"

#include <sys/stat.h>
#include <sys/statvfs.h>

#include <algorithm>
#include <array>
#include <cstdlib>
#include <dirent.h>
#include <memory>

namespace sober {
namespace {

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
    return superblockValue(*device, "UUID");
}

/// Whether the file system of this identity is mounted at a place now.
bool isMountedAt(const BytePath& point, const VolumeIdentity& identity, std::span<const Mount> mounts) {
    if (std::ranges::find(mounts, point, &Mount::point) == mounts.end()) {
        return false;
    }
    const auto now = identityOf(point, mounts);
    return identity.filesystem == now.filesystem && identity.filesystemType == now.filesystemType;
}

/// Where several volumes would be at hand at one root, or one file system at several, it is the one that was
/// catalogued first.
void leaveOneAtEachPlace(std::vector<Volume>& volumes) {
    std::ranges::sort(volumes, {}, &Volume::id);
    for (auto& volume : volumes) {
        const auto taken = [&](const Volume& earlier) {
            const bool oneFilesystem = !volume.identity.filesystem.empty() &&
                                       earlier.identity.filesystem == volume.identity.filesystem &&
                                       earlier.identity.within == volume.identity.within;
            return earlier.id < volume.id && earlier.atHand && (earlier.root == volume.root || oneFilesystem);
        };
        volume.atHand = volume.atHand && std::ranges::none_of(volumes, taken);
    }
}

/// The share of a sample of the volume's holdings that stand, with their size, below `root`.
double shareFound(std::span<const Holding> sample, const BytePath& root) {
    std::size_t found = 0;
    for (const auto& holding : sample) {
        const auto inner = innerPathOf(holding.path);
        const auto stamp = stampAt(joinPath(root, inner ? inner->archive : holding.path));
        found += stamp && (inner || stamp->size == holding.size) ? 1 : 0;
    }
    return sample.empty() ? 0 : static_cast<double>(found) / static_cast<double>(sample.size());
}

/// Whether a file stands where an action that was interrupted has put it: all that is known there may have
/// been on its way.
bool holdsWhatWasUnderWay(const Catalogue& catalogue, const BytePath& root) {
    const auto unfinished = LedgerStore(catalogue).unfinished();
    return unfinished && std::ranges::any_of(*unfinished, [&](const LedgerAction& action) {
               const auto& at = action.step == ActionStep::started ? standsAt(action) : action.place;
               const auto there = isWithin(at, root) ? stampAt(at) : Result<FileStamp>(Error{});
               return changesPlace(action) && there && there->size == action.size;
           });
}

} // namespace

std::string filesystemKindAt(const BytePath& path, std::span<const Mount> mounts) {
    const auto mount = mountOf(mounts, path);
    if (!mount) {
        return {};
    }
    const auto kind = mount->type == "fuseblk" ? superblockValue(mount->source, "TYPE") : std::string();
    return kind.empty() ? mount->type : kind;
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
    const auto& was = volume.identity;
    const bool bothKnown = !was.filesystem.empty() && !now.filesystem.empty();
    if (bothKnown && was.filesystem != now.filesystem) {
        return false;
    }
    if (bothKnown && was.within == now.within) {
        return true;
    }
    // The root of a whole file system has the same number on each of its kind: there only the content tells.
    const bool sameFolder = now.rootInode == was.rootInode && now.filesystemType == was.filesystemType;
    if (sameFolder && !now.within.empty()) {
        return true;
    }
    const auto sample = Holdings(catalogue).sample(volume.id, 20);
    return sample && (sample->empty() ? sameFolder
                                      : shareFound(*sample, volume.root) > 0 ||
                                            holdsWhatWasUnderWay(catalogue, volume.root));
}

Result<std::vector<BytePath>> awayWithin(const Catalogue& catalogue, const Volume& volume,
                                         std::span<const Mount> mounts) {
    const auto known = Volumes(catalogue).innerMounts(volume.id);
    RETURN_IF_FAILED(known);
    std::vector<BytePath> away;
    for (const auto& mount : *known) {
        if (!isMountedAt(joinPath(volume.root, mount.path), mount.identity, mounts)) {
            away.push_back(mount.path);
        }
    }
    return away;
}

Result<std::vector<BytePath>> noteInnerMounts(const Catalogue& catalogue, const Volume& volume,
                                              std::span<const BytePath> otherRoots,
                                              std::span<const Mount> mounts) {
    const Volumes store(catalogue);
    const auto known = store.innerMounts(volume.id);
    auto away = awayWithin(catalogue, volume, mounts);
    if (!known || !away) {
        return known ? away.error() : known.error();
    }
    std::vector<Volumes::InnerMount> inner;
    for (const auto& mount : *known) {
        if (std::ranges::find(*away, mount.path) != away->end()) {
            inner.push_back({mount.path, mount.identity, true});
        }
    }
    for (const auto& mount : mounts) {
        const auto path = relativeTo(mount.point, volume.root);
        const bool isOther = std::ranges::any_of(
            otherRoots, [&](const BytePath& other) { return isWithin(mount.point, other); });
        if (path && !path->empty() && !isOther &&
            std::ranges::find(inner, *path, &Volumes::InnerMount::path) == inner.end()) {
            inner.push_back({*path, identityOf(mount.point, mounts), false});
        }
    }
    const bool same =
        inner.size() == known->size() && std::ranges::all_of(inner, [&](const Volumes::InnerMount& mount) {
            return std::ranges::any_of(*known, [&](const Volumes::InnerMount& before) {
                return before.path == mount.path && before.away == mount.away &&
                       before.identity.filesystem == mount.identity.filesystem;
            });
        });
    RETURN_IF_FAILED(same ? done() : store.setInnerMounts(volume.id, inner));
    return away;
}

const Volume* sameByAnotherWay(std::span<const Volume> volumes, const BytePath& root,
                               std::span<const Mount> mounts) {
    const auto nested = [](const BytePath& one, const BytePath& other) {
        return isWithin(one, other) || isWithin(other, one);
    };
    const auto here = innerPlaceOf(mounts, root);
    const auto identity = identityOf(root, mounts);
    for (const auto& volume : volumes) {
        if (!volume.atHand || nested(root, volume.root)) {
            continue;
        }
        const auto there = innerPlaceOf(mounts, volume.root);
        const bool oneMounted =
            here && there && here->device == there->device && nested(here->path, there->path);
        const auto other = identityOf(volume.root, mounts);
        const bool oneFilesystem = !identity.filesystem.empty() && identity.filesystem == other.filesystem &&
                                   nested(joinPath("/", identity.within), joinPath("/", other.within));
        if (oneMounted || oneFilesystem) {
            return &volume;
        }
    }
    return nullptr;
}

Result<std::optional<Volume>> recogniseVolume(const Catalogue& catalogue, const BytePath& root,
                                              std::span<const Mount> mounts) {
    constexpr int sampleSize = 100;
    constexpr double enoughFound = 0.8;
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
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
        RETURN_IF_FAILED(sample);
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
    RETURN_IF_FAILED(volumes);
    const auto mounts = mountsNow();
    bool changed = false;
    auto now = *volumes;
    for (auto& volume : now) {
        volume.atHand = isAtHand(catalogue, volume, mounts);
    }
    leaveOneAtEachPlace(now);
    for (auto& volume : now) {
        const Volume before = *std::ranges::find(*volumes, volume.id, &Volume::id);
        if (volume.atHand) {
            measureSpace(volume);
        }
        changed = changed || volume.atHand != before.atHand;
        if (volume.atHand && catalogue.canWrite()) {
            std::vector<BytePath> others;
            for (const auto& other : now) {
                if (other.id != volume.id) {
                    others.push_back(other.root);
                }
            }
            const auto away = noteInnerMounts(catalogue, volume, others, mounts);
            RETURN_IF_FAILED(away);
            changed = changed || *away != before.awayWithin;
        }
        if (catalogue.canWrite() && (volume.atHand != before.atHand || volume.capacity != before.capacity ||
                                     volume.available != before.available)) {
            RETURN_IF_FAILED(Volumes(catalogue).update(volume));
        }
    }
    return changed;
}

} // namespace sober
