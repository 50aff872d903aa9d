#pragma once

#include "core/base/file_handle.h"
#include "core/base/run_control.h"
#include "core/evidence/file_pass.h"

#include <functional>

namespace sober {

/// A file's bytes, whatever they are: reading them and recognising audio in them are two things.
struct FileContent {
    FileStamp stamp;
    FileChecksums checksums;           ///< what could not be read counts as zeros
    std::vector<ByteRange> unreadable; ///< what the drive could not give
};

/// Reads a file from its first byte to its last, past what the drive cannot give. Fails where it cannot be
/// opened, is written to meanwhile (Cause::changed) or the run is cancelled (Cause::interrupted).
Result<FileContent> readContent(
    const BytePath& path, RunControl& control,
    const std::function<void(std::uint64_t)>& onBytes = [](std::uint64_t) {});

/// What is written down of a file that is known and holds no audio any more: its bytes and a sentence.
Result<FileRecord> recordOfBytes(
    const BytePath& path, RunControl& control,
    const std::function<void(std::uint64_t)>& onBytes = [](std::uint64_t) {});

} // namespace sober
