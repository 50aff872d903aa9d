#pragma once

#include "core/base/mounts.h"

#include <optional>
#include <string>

namespace sober {

// What stays of a recording whose other copy goes: first that it is a copy at all, and, after that one went,
// that it is still what was compared. However a file is reached, it is no copy of itself.

/// A file that was compared with one that goes, as it was then.
struct Staying {
    BytePath path;
    FileStamp stamp;
};

/// Why what stands at `stays` is no copy of what stands at `goes`: the same file by a link, another mount,
/// another file system in between, or thrown away already. Nothing where it is one; a hard link is.
std::optional<std::string> whyNoCopy(const BytePath& stays, const FileStamp& staysStamp, const BytePath& goes,
                                     const FileStamp& goesStamp, std::span<const Mount> mounts);

/// Opens and reads what stays, right after the other went; why it is not what was compared any more, or
/// nothing. Looking at its name is not enough: a file system in between answers from its memory.
std::optional<std::string> whyNotThere(const Staying& staying);

} // namespace sober
