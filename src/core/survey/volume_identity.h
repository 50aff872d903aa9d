#pragma once

#include "core/base/mounts.h"
#include "core/base/result.h"
#include "core/catalogue/catalogue.h"
#include "core/catalogue/records.h"

namespace sober {

/// What tells the volume at `root` from others. The UUID comes from the device's own superblock (by
/// libblkid) or from /dev/disk/by-uuid; without either the content has to tell.
VolumeIdentity identityOf(const BytePath& root, std::span<const Mount> mounts);

/// The kind of file system on which a path (absolute, links resolved) lies: "exfat", also where a process in
/// user space serves it.
std::string filesystemKindAt(const BytePath& path, std::span<const Mount> mounts);

/// Inode numbers and change times of FAT, exFAT and file systems in user space are made up anew at
/// each mount, so they tell nothing about a change.
bool hasLastingInodes(const std::string& filesystemType);

/// Whether the volume as catalogued can be read at its root now: the folder is there, on the same
/// file system, and is not merely the empty mount point.
bool isAtHand(const Catalogue& catalogue, const Volume& volume, std::span<const Mount> mounts);

/// Folders (relative) at which other file systems were mounted that are not there now.
Result<std::vector<BytePath>> awayWithin(const Catalogue& catalogue, const Volume& volume,
                                         std::span<const Mount> mounts);

/// Takes down which file systems are mounted below a volume's root now, other volumes left out, and which of
/// those that were are away; yields the latter's folders.
Result<std::vector<BytePath>> noteInnerMounts(const Catalogue& catalogue, const Volume& volume,
                                              std::span<const BytePath> otherRoots,
                                              std::span<const Mount> mounts);

/// The volume at hand that `root` is, or lies within or around, by another way: a second mount, a bound
/// folder, one image twice. Nothing where it stands apart.
const Volume* sameByAnotherWay(std::span<const Volume> volumes, const BytePath& root,
                               std::span<const Mount> mounts);

/// The catalogued volume that has come to be at `root` (a drive mounted elsewhere, a folder renamed),
/// told by its file system's UUID or, without one, by what is on it. Volumes at hand elsewhere are
/// not taken for it.
Result<std::optional<Volume>> recogniseVolume(const Catalogue& catalogue, const BytePath& root,
                                              std::span<const Mount> mounts);

/// Takes down how large the volume's file system is and how much of it is free.
void measureSpace(Volume& volume);

/// Looks which volumes are at hand and how full they are, and writes down what has changed since.
/// True where something has.
Result<bool> lookForVolumes(const Catalogue& catalogue);

} // namespace sober
