#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/base/times.h"
#include "core/media/byte_source.h"

#include <string>
#include <vector>

namespace sober {

/// One file of a file system in an image, present or deleted.
struct ImageEntry {
    BytePath path; ///< within its file system
    std::uint64_t size = 0;
    Nanoseconds changed = 0; ///< 0: not known
    bool deleted = false;
    bool overwritten = false; ///< some of its content has been given to another file since
    std::vector<ByteRange>
        extents; ///< of the image, in order, as long as its size; fewer where they are not known
};

struct ImageFileSystem {
    std::string type; ///< "fat32", "exfat", "ntfs", "ext4", …
    std::uint64_t first = 0;
    std::uint64_t past = 0;
    std::vector<ImageEntry> entries;
    bool wasCut = false; ///< there are more entries than are taken in
};

/// The file systems of an image, by its partition table or without one (by The Sleuth Kit's library: FAT,
/// exFAT, NTFS, ext2 to ext4, HFS+, ISO 9660), and their files. An image without any yields none. Nothing of
/// them is mounted.
Result<std::vector<ImageFileSystem>> readFileSystems(ByteSource& source);

} // namespace sober
