#pragma once

#include "core/evidence/file_pass.h"
#include "core/media/byte_source.h"

namespace sober {

/// Reads a file once, at full effort: its bytes go to the checksums while the decoder asks for them, its
/// packets to the payload checksum, its samples to levels, spectrum, trace and fingerprint. Fails as
/// passOverFile does; a file that begins like audio and does not decode yields a record with a problem
/// and without evidence. An excerpt is made from the same decode where it is wanted.
Result<FileRecord> examineOpen(const FileHandle& file, const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt = false);
Result<FileRecord> examineFile(const BytePath& path, RunControl& control,
                               const std::function<void(std::uint64_t)>& onBytes);

/// The same of bytes that are no file of their own; the record has no stamp.
Result<FileRecord> examineBytes(ByteSource& bytes, const BytePath& path, RunControl& control,
                                const std::function<void(std::uint64_t)>& onBytes, bool withExcerpt = false);

} // namespace sober
