#include "core/evidence/file_pass.h"

#include "core/base/text.h"
#include "core/media/sniff.h"

#include <algorithm>
#include <fcntl.h>
#include <memory>

namespace sober {
namespace {

/// Small enough to stay in the second-level cache from the read to the last digest.
constexpr std::size_t pieceLength = 128U << 10;

Error notAudio(const BytePath& path, std::string_view why) {
    return Error{Cause::notAudio, path, displayPath(path) + " " + std::string(why)};
}

/// Containers that may as well hold moving pictures are asked before all of them is read.
Outcome askContainer(const FileHandle& file, const BytePath& path, std::uint64_t size) {
    OpenFileSource source(file, path, size);
    const auto probed = probe(source, path);
    if (!probed && probed.error().cause == Cause::notAudio) {
        return probed.error();
    }
    return done();
}

} // namespace

Result<FileRecord> passOverFile(const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes) {
    const auto file = openForReading(path);
    return file ? passOverOpen(*file, path, control, onBytes) : Result<FileRecord>(file.error());
}

Result<FileRecord> passOverOpen(const FileHandle& file, const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes) {
    const auto before = stampOf(file, path);
    RETURN_IF_FAILED(before);
    const auto size = before->size;
    if (size == 0) {
        return notAudio(path, "is empty.");
    }
    posix_fadvise(file.get(), 0, 0, POSIX_FADV_SEQUENTIAL);

    PassedOverSource source(file, path, size);
    ChecksumPass checksums(false);
    const auto piece = std::make_unique_for_overwrite<std::uint8_t[]>(pieceLength);
    for (std::uint64_t at = 0; at < size; at += pieceLength) {
        if (!control.proceed()) {
            return Error{Cause::interrupted, path, "Stopped before " + displayPath(path) + " was read."};
        }
        const auto length = static_cast<std::size_t>(std::min<std::uint64_t>(pieceLength, size - at));
        const std::span bytes(piece.get(), length);
        const auto got = readAt(file, path, at, bytes);
        RETURN_IF_FAILED(got);
        if (*got != length) {
            return Error{Cause::changed, path, displayPath(path) + " became shorter while it was read."};
        }
        if (at == 0) {
            const auto kind = sniff(bytes.first(std::min(length, sniffLength)));
            if (kind == Sniffed::notAudio) {
                return notAudio(path, "holds no audio.");
            }
            if (kind == Sniffed::perhaps) {
                RETURN_IF_FAILED(askContainer(file, path, size));
            }
        }
        source.take(at, bytes);
        checksums.feed(bytes);
        onBytes(length);
    }

    FileRecord record;
    record.checksums = checksums.finish();
    auto probed = probe(source, path);
    if (probed) {
        record.claims = std::move(probed->claims);
        record.tags = std::move(probed->tags);
        record.filing = std::move(probed->filing);
    } else if (probed.error().cause == Cause::notAudio) {
        return probed.error();
    } else {
        record.problem = probed.error().sentence;
    }

    const auto after = stampOf(file, path);
    RETURN_IF_FAILED(after);
    if (!after->sameContentAs(*before)) {
        return Error{Cause::changed, path, displayPath(path) + " was written to while it was read."};
    }
    record.stamp = *after;
    return record;
}

} // namespace sober
