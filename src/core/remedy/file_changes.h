#pragma once

#include "core/base/file_handle.h"
#include "core/base/result.h"

namespace sober {

// The only calls of the program that change anything on a volume. Each is flushed to the medium
// before it returns.

/// Renames within one file system, never over anything that stands there (Cause::alreadyThere).
Outcome moveEntry(const BytePath& from, const BytePath& to);

/// Two files of one folder change names at once, so that nothing is lost of what stood there last. False
/// where the file system cannot do that. Where only the folder could not be flushed, that is an error and
/// they have changed names all the same: look before either is removed.
Result<bool> exchangeEntries(const BytePath& made, const BytePath& place);

/// Renames within one folder, over what stands there.
Outcome replaceEntry(const BytePath& from, const BytePath& to);

/// Writes a new file with mode 0600; fails with alreadyThere where the name is taken.
Outcome writeNewFile(const BytePath& path, std::string_view content);

/// Adds to the end of a file that was made by writeNewFile. Not yet flushed: see flushFile.
Outcome appendTo(const BytePath& path, std::string_view content);

/// A new file with the content, mode, owner and extended attributes of another, some bytes (in order) left
/// out; fails with alreadyThere where the name is taken. Not yet flushed: see flushFile.
Outcome copyToNew(const BytePath& from, const BytePath& to, std::span<const ByteRange> without = {});

/// Flushes a file's content to the medium and lets the system forget it, so that it is read from there next.
Outcome flushFile(const BytePath& path);

/// Removes one file; that it is gone already is no failure.
Outcome removeFile(const BytePath& path);

/// Makes a folder and those above it that are not there, with mode 0700 or, below a volume's root,
/// what the user's mask allows.
Outcome makeFolder(const BytePath& path, unsigned mode);

} // namespace sober
