#include "core/media/file_systems.h"

#include <tsk/libtsk.h>

#include <algorithm>
#include <memory>

namespace sober {
namespace {

constexpr std::size_t mostEntries = 1'000'000;
constexpr std::size_t mostExtents = 100'000; // of one file

/// What the library is handed as an image: the first member is its own.
struct OpenImage {
    TSK_IMG_INFO info;
    ByteSource* source;
};

ssize_t readImage(TSK_IMG_INFO* info, TSK_OFF_T offset, char* into, size_t length) {
    auto& source = *reinterpret_cast<OpenImage*>(info)->source;
    if (offset < 0) {
        return -1;
    }
    return source.readAt(static_cast<std::uint64_t>(offset), {reinterpret_cast<std::uint8_t*>(into), length});
}
void closeImage(TSK_IMG_INFO* /*info*/) {}
void describeImage(TSK_IMG_INFO* /*info*/, FILE* /*to*/) {}

struct CloseVolumes {
    void operator()(TSK_VS_INFO* volumes) const { tsk_vs_close(volumes); }
};
struct CloseFileSystem {
    void operator()(TSK_FS_INFO* files) const { tsk_fs_close(files); }
};
struct CloseFile {
    void operator()(TSK_FS_FILE* file) const { tsk_fs_file_close(file); }
};

struct Blocks {
    const TSK_FS_INFO* files;
    ImageEntry* entry;
    std::uint64_t left;
};

TSK_WALK_RET_ENUM takeBlock(TSK_FS_FILE* /*file*/, TSK_OFF_T /*at*/, TSK_DADDR_T address, char* /*bytes*/,
                            size_t length, TSK_FS_BLOCK_FLAG_ENUM flags, void* into) {
    auto& blocks = *static_cast<Blocks*>(into);
    auto& extents = blocks.entry->extents;
    // What is resident in a table, sparse or compressed lies nowhere as it is.
    if ((flags & TSK_FS_BLOCK_FLAG_RAW) == 0 || address == 0 || blocks.left == 0 ||
        extents.size() > mostExtents) {
        return TSK_WALK_STOP;
    }
    const auto first = static_cast<std::uint64_t>(blocks.files->offset) + address * blocks.files->block_size;
    const auto part = std::min<std::uint64_t>(length, blocks.left);
    blocks.left -= part;
    blocks.entry->overwritten =
        blocks.entry->overwritten || (blocks.entry->deleted && (flags & TSK_FS_BLOCK_FLAG_ALLOC) != 0);
    if (!extents.empty() && extents.back().second == first) {
        extents.back().second += part;
    } else {
        extents.emplace_back(first, first + part);
    }
    return TSK_WALK_CONT;
}

TSK_WALK_RET_ENUM takeEntry(TSK_FS_FILE* file, const char* path, void* into) {
    auto& found = *static_cast<ImageFileSystem*>(into);
    if (file->name == nullptr || file->meta == nullptr || file->meta->type != TSK_FS_META_TYPE_REG ||
        file->meta->size <= 0) {
        return TSK_WALK_CONT;
    }
    if (found.entries.size() >= mostEntries) {
        found.wasCut = true;
        return TSK_WALK_STOP;
    }
    ImageEntry entry;
    entry.path = joinPath(path, file->name->name);
    entry.size = static_cast<std::uint64_t>(file->meta->size);
    entry.changed = static_cast<Nanoseconds>(file->meta->mtime) * 1'000'000'000;
    entry.deleted = (file->name->flags & TSK_FS_NAME_FLAG_UNALLOC) != 0 ||
                    (file->meta->flags & TSK_FS_META_FLAG_UNALLOC) != 0;
    Blocks blocks{file->fs_info, &entry, entry.size};
    tsk_fs_file_walk(file, TSK_FS_FILE_WALK_FLAG_AONLY, takeBlock, &blocks);
    if (blocks.left > 0) {
        entry.extents.clear();
    }
    found.entries.push_back(std::move(entry));
    return TSK_WALK_CONT;
}

/// The file system that begins at a place, where there is one.
void readAt(TSK_IMG_INFO* image, TSK_OFF_T offset, std::vector<ImageFileSystem>& found) {
    const std::unique_ptr<TSK_FS_INFO, CloseFileSystem> files(
        tsk_fs_open_img(image, offset, TSK_FS_TYPE_DETECT));
    if (!files) {
        return;
    }
    ImageFileSystem system;
    const auto* const type = tsk_fs_type_toname(files->ftype);
    system.type = type == nullptr ? "" : std::string_view(type) == "hfsp" ? "hfs+" : type;
    system.first = static_cast<std::uint64_t>(files->offset);
    system.past = system.first + static_cast<std::uint64_t>(files->block_count) * files->block_size;
    constexpr auto all = static_cast<TSK_FS_DIR_WALK_FLAG_ENUM>(
        TSK_FS_DIR_WALK_FLAG_ALLOC | TSK_FS_DIR_WALK_FLAG_UNALLOC | TSK_FS_DIR_WALK_FLAG_RECURSE);
    tsk_fs_dir_walk(files.get(), files->root_inum, all, takeEntry, &system);
    found.push_back(std::move(system));
}

} // namespace

Result<std::vector<ImageFileSystem>> readFileSystems(ByteSource& source) {
    const auto open = std::make_unique<OpenImage>(); // it holds the library's cache
    open->source = &source;
    constexpr unsigned sector = 512;
    auto* const image = tsk_img_open_external(open.get(), static_cast<TSK_OFF_T>(source.size()), sector,
                                              readImage, closeImage, describeImage);
    if (image == nullptr) {
        return Error{Cause::unreadable, {}, "The image could not be opened."};
    }
    std::vector<ImageFileSystem> found;
    const std::unique_ptr<TSK_VS_INFO, CloseVolumes> volumes(tsk_vs_open(image, 0, TSK_VS_TYPE_DETECT));
    if (volumes) {
        for (TSK_PNUM_T i = 0; i < volumes->part_count; ++i) {
            const auto* const part = tsk_vs_part_get(volumes.get(), i);
            if (part != nullptr && (part->flags & TSK_VS_PART_FLAG_ALLOC) != 0) {
                readAt(image, static_cast<TSK_OFF_T>(part->start) * volumes->block_size, found);
            }
        }
    }
    // Discs are at once a whole of their own and parted for others.
    const bool isWhole = std::ranges::none_of(found, [](const auto& system) { return system.first == 0; });
    if (isWhole) {
        readAt(image, 0, found);
    }
    tsk_img_close(image);
    return found;
}

} // namespace sober
