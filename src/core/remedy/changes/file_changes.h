#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"
#include "core/base/run_control.h"
#include "core/evidence/checksums.h"
#include "core/media/byte_source.h"
#include "core/remedy/changes/unflushed.h"

namespace sober {

// The only calls of the program that change anything on a volume. What an Error says was not done was not
// done; what is done is known to outlast a loss of power once its file and its folder were flushed.

/// Renames within one file system, never over anything that stands there (Cause::alreadyThere). File systems
/// of networks and processes may report the failure of a rename that happened: both names are looked at.
Outcome moveEntry(const BytePath& from, const BytePath& to, Unflushed& unflushed);

/// Two files of one folder change names at once, so that nothing is lost of what stood there last. False
/// where the file system cannot do that.
Result<bool> exchangeEntries(const BytePath& made, const BytePath& place, Unflushed& unflushed);

/// Renames within one folder, over what stands there.
Outcome replaceEntry(const BytePath& from, const BytePath& to, Unflushed& unflushed);

/// Writes a new file with mode 0600; fails with alreadyThere where the name is taken. Not yet flushed: see
/// flushFile.
Outcome writeNewFile(const BytePath& path, std::string_view content, Unflushed& unflushed);

/// Adds to the end of a file that was made by writeNewFile. Not yet flushed.
Outcome appendTo(const BytePath& path, std::string_view content);

/// Opens what was made, to be changed further.
Result<FileHandle> openForChanging(const BytePath& path);

/// A new file with the content, mode, owner and extended attributes of another, some bytes (in order) left
/// out; fails with alreadyThere where the name is taken. Not yet flushed.
Outcome copyToNew(const BytePath& from, const BytePath& to, Unflushed& unflushed,
                  std::span<const ByteRange> without = {});

/// The same of all bytes, with the time of the last change too, as far as the file system keeps times; what
/// went by is checksummed.
Result<FileChecksums> copyChecksummed(const BytePath& from, const BytePath& to, Unflushed& unflushed,
                                      RunControl& control, const std::function<void(std::uint64_t)>& onBytes);

/// A new file with bytes that lie in several places of an image (`named` in sentences); fails with
/// alreadyThere where the name is taken. What went by is checksummed. Not yet flushed.
Result<FileChecksums> writeBytes(ByteSource& bytes, const BytePath& named, const BytePath& to,
                                 Unflushed& unflushed, RunControl& control,
                                 const std::function<void(std::uint64_t)>& onBytes);

/// Flushes a file's content to the medium and lets the system forget it, so that it is read from there next.
Outcome flushFile(const BytePath& path);

/// Flushes the content of files of one file system; many at once by flushing all of it, where it can do that.
Outcome flushFiles(std::span<const BytePath> paths);

/// Flushes the names in a folder. Where a file system cannot do that, the kernel's order has to do.
Outcome flushFolder(const BytePath& folder);

/// Removes one file; that it is gone already is no failure.
Outcome removeFile(const BytePath& path, Unflushed& unflushed);

/// Makes a folder and those above it that are not there, with mode 0700 or, below a volume's root,
/// what the user's mask allows.
Outcome makeFolder(const BytePath& path, unsigned mode, Unflushed& unflushed);

/// Removes a folder that holds nothing. False where it stays.
bool removeEmptyFolder(const BytePath& path, Unflushed& unflushed);

} // namespace sober
