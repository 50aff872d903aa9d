#include "core/evidence/file_content.h"

#include "core/base/text.h"
#include "core/evidence/worker/inside_reader.h"

#include <algorithm>

namespace sober {

Result<FileContent> readContent(const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes) {
    constexpr std::size_t pieceLength = 256U << 10;
    const auto file = openContent(path, control);
    const auto before = file ? stampOf(*file, path) : Result<FileStamp>(file.error());
    RETURN_IF_FAILED(before);
    FileContent content;
    ChecksumPass checksums(false);
    std::vector<std::uint8_t> piece(std::min<std::uint64_t>(pieceLength, before->size));
    for (std::uint64_t at = 0; at < before->size; at += piece.size()) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped before " + displayPath(path) + " was read."};
        }
        const auto length =
            static_cast<std::size_t>(std::min<std::uint64_t>(piece.size(), before->size - at));
        const auto bytes = std::span(piece).first(length);
        const auto got = readPastFaults(*file, path, at, bytes, content.unreadable);
        RETURN_IF_FAILED(got);
        if (*got != length) {
            return Error{Cause::changed, path, displayPath(path) + " became shorter while it was read."};
        }
        checksums.feed(bytes);
        onBytes(length);
    }
    const auto after = stampOf(*file, path);
    if (!after || !after->sameContentAs(*before)) {
        return Error{Cause::changed, path, displayPath(path) + " was written to while it was read."};
    }
    content.stamp = *after;
    content.checksums = checksums.finish();
    return content;
}

Result<FileRecord> recordOfBytes(const BytePath& path, RunControl& control,
                                 const std::function<void(std::uint64_t)>& onBytes) {
    const auto content = readContent(path, control, onBytes);
    RETURN_IF_FAILED(content);
    FileRecord record;
    record.stamp = content->stamp;
    record.checksums = content->checksums;
    record.problem = displayPath(path) + (content->unreadable.empty()
                                              ? " is no audio any more."
                                              : " cannot be read from its drive any more, or only in part.");
    return record;
}

} // namespace sober
