#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/evidence/evidence.h"
#include "core/media/excerpt.h"
#include "core/media/probe.h"

namespace sober {

enum class Effort {
    index, ///< checksums, claims, tags
    full,  ///< SHA-256 and a whole decode too: everything that Evidence holds
};

/// Everything that one reading of one file yields.
struct FileRecord {
    FileStamp stamp;
    FileChecksums checksums;
    Claims claims;
    Tags tags;
    FilingTags filing;
    std::string problem;              ///< a sentence where it begins like audio and cannot be opened as such
    std::optional<Evidence> evidence; ///< at full effort, where it decodes
    std::optional<Excerpt> excerpt;   ///< where it was asked for and there is evidence
};

/// Reads a file once, from its first byte to its last, and takes checksums, claims and tags from that.
/// Nothing is decoded. `onBytes` hears how many bytes have gone by.
/// Fails with Cause::notAudio (little more than the head was read), Cause::changed (it grew or was
/// written to meanwhile), Cause::interrupted, or the file system's refusal.
Result<FileRecord> passOverOpen(const FileHandle& file, const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes);
Result<FileRecord> passOverFile(const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes);

} // namespace sober
