#include "core/media/archive_reader.h"

#include "core/base/inner_path.h"
#include "core/base/scratch_file.h"
#include "core/base/text.h"
#include "core/media/sniff.h"

#include <fmt/format.h>

#include <algorithm>
#include <archive.h>
#include <archive_entry.h>

namespace sober {
namespace {

constexpr std::size_t atOnce = 256U << 10;

void allowFormats(archive* reader) {
    archive_read_support_filter_gzip(reader);
    archive_read_support_filter_bzip2(reader);
    archive_read_support_filter_xz(reader);
    archive_read_support_filter_lzma(reader);
    archive_read_support_filter_zstd(reader);
    archive_read_support_format_zip(reader);
    archive_read_support_format_tar(reader);
    archive_read_support_format_7zip(reader);
    archive_read_support_format_rar(reader);
    archive_read_support_format_rar5(reader);
    archive_read_support_format_iso9660(reader);
}

/// Its bytes; a name that is kept as UTF-8 alone is taken as that.
BytePath nameIn(archive_entry* entry) {
    const char* name = archive_entry_pathname(entry);
    name = name != nullptr ? name : archive_entry_pathname_utf8(entry);
    BytePath path = name != nullptr ? name : "";
    while (path.starts_with('/') || path.starts_with("./")) {
        path.erase(0, path.starts_with('/') ? 1 : 2);
    }
    return path;
}

} // namespace

ArchiveReader::ArchiveReader(FileHandle file, BytePath path, std::uint64_t size, Handle handle)
    : file_(std::move(file)), path_(std::move(path)), size_(size), handle_(std::move(handle)) {}

Result<ArchiveReader> ArchiveReader::open(FileHandle file, const BytePath& path) {
    const auto stamp = stampOf(file, path);
    RETURN_IF_FAILED(stamp);
    Handle handle(archive_read_new(), archive_read_free);
    allowFormats(handle.get());
    if (archive_read_open_fd(handle.get(), file.get(), atOnce) != ARCHIVE_OK) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " is named like an archive, and cannot be opened as one."};
    }
    return ArchiveReader(std::move(file), path, stamp->size, std::move(handle));
}

Error ArchiveReader::broken(const BytePath& at) const {
    const char* why = archive_error_string(handle_.get());
    return {Cause::damaged, at,
            fmt::format("{} cannot be unpacked{}.", displayPath(at),
                        why != nullptr ? fmt::format(" ({})", displayPath(why)) : "")};
}

Result<std::optional<ArchivedFile>> ArchiveReader::next() {
    archive_entry* entry = nullptr;
    while (true) {
        const int came = archive_read_next_header(handle_.get(), &entry);
        if (came == ARCHIVE_EOF) {
            return std::optional<ArchivedFile>();
        }
        if (came != ARCHIVE_OK && came != ARCHIVE_WARN) {
            return broken(path_);
        }
        if (++files_ > mostFiles) {
            return Error{Cause::damaged, path_,
                         fmt::format("{} holds more than {} files; the rest was not looked at.",
                                     displayPath(path_), humanCount(mostFiles))};
        }
        current_ = nameIn(entry);
        if (archive_entry_filetype(entry) != AE_IFREG || archive_entry_hardlink(entry) != nullptr ||
            current_.empty()) {
            continue;
        }
        isLocked_ = archive_entry_is_data_encrypted(entry) == 1;
        ArchivedFile file;
        file.path = current_;
        file.size = static_cast<std::uint64_t>(std::max<la_int64_t>(archive_entry_size(entry), 0));
        stated_ = file.size;
        file.mtime = static_cast<Nanoseconds>(archive_entry_mtime(entry)) * 1'000'000'000 +
                     archive_entry_mtime_nsec(entry);
        file.packed =
            static_cast<std::uint64_t>(std::max<la_int64_t>(archive_filter_bytes(handle_.get(), -1), 0));
        return std::optional(std::move(file));
    }
}

Result<std::size_t> ArchiveReader::read(std::span<std::uint8_t> into) {
    std::size_t filled = 0;
    while (filled < into.size()) {
        const auto got = archive_read_data(handle_.get(), into.data() + filled, into.size() - filled);
        if (got == ARCHIVE_RETRY) {
            continue;
        }
        if (got < 0) {
            return broken(innerPath(path_, current_));
        }
        if (got == 0) {
            break;
        }
        filled += static_cast<std::size_t>(got);
    }
    unpacked_ += filled;
    if (unpacked_ > std::max(alwaysAllowed, size_ * mostGrown)) {
        return Error{
            Cause::refused, path_,
            fmt::format("{} ({}) unpacks to more than {}: as much as none of recordings does. It was "
                        "not looked at any further.",
                        displayPath(path_), humanBytes(size_), humanBytes(unpacked_))};
    }
    return filled;
}

Outcome ArchiveReader::unpackInto(const FileHandle& target) {
    const auto path = innerPath(path_, current_);
    if (isLocked_) {
        return Error{Cause::damaged, path, displayPath(path) + " is locked by a password."};
    }
    std::vector<std::uint8_t> piece(std::max(atOnce, sniffLength));
    for (std::uint64_t at = 0;;) {
        const auto got = read(piece);
        RETURN_IF_FAILED(got);
        const std::span bytes(piece.data(), *got);
        if (stated_ > 0 && at + *got > stated_) {
            return Error{Cause::damaged, path, displayPath(path) + " is longer than its archive says."};
        }
        if (at == 0 &&
            (bytes.empty() || sniff(bytes.first(std::min(bytes.size(), sniffLength))) == Sniffed::notAudio)) {
            return Error{Cause::notAudio, path, displayPath(path) + " holds no audio."};
        }
        if (const auto written = writeScratch(target, at, bytes); !written) {
            return written;
        }
        at += *got;
        if (*got < piece.size()) {
            return done();
        }
    }
}

} // namespace sober
