#pragma once

#include "core/base/result.h"
#include "core/base/run_control.h"

#include <span>
#include <vector>

namespace sober {

/// The checksum that a list holds.
enum class ListedChecksum {
    md5,
    sha1,
    sha256,
    sha512,
    blake2b, ///< 512 bits, as b2sum writes it
    crc32,   ///< SFV
};

/// "SHA256", as coreutils' tagged form writes it.
std::string_view checksumWord(ListedChecksum kind);

struct ListedFile {
    BytePath path;   ///< as the list means it: escapes undone, bytes as they are
    std::string hex; ///< lower case
};

/// A line that cannot be used, and why.
struct ListProblem {
    std::size_t line = 0; ///< from 1
    std::string sentence;
};

/// A list of checksums as md5sum, sha256sum, b2sum (plain or tagged) and SFV tools write them.
struct ChecksumList {
    ListedChecksum kind = ListedChecksum::sha256;
    std::vector<ListedFile> files;
    std::vector<ListProblem> problems;
};

/// Reads a list. What is absolute, leaves its folder by "..", stands twice or makes no sense is a problem and
/// no file. 128 digits are taken for SHA-512 unless the list's name speaks of BLAKE2. Cause::invalid where no
/// line is one of a list.
Result<ChecksumList> parseChecksumList(std::string_view text, const BytePath& name);

/// False where no line of that kind of list can say the path: in SFV backslashes, line ends, and blanks at
/// the end of a name.
bool canStandInList(ListedChecksum kind, const BytePath& path);

/// As coreutils writes it: names with a backslash or a line break are escaped, the line begins with a
/// backslash then. SFV for crc32, without what canStandInList leaves out.
std::string checksumListText(ListedChecksum kind, std::span<const ListedFile> files);

/// The checksum of a file's content, lower-case hexadecimal.
Result<std::string> checksumOfFile(const BytePath& path, ListedChecksum kind, RunControl& control);

/// Every file of a list held against the disk.
struct ListCheck {
    std::uint64_t good = 0;
    std::vector<BytePath> differing; ///< as listed
    std::vector<BytePath> missing;
    std::vector<Error> unreadable;
    bool interrupted = false;
};

/// Reads the files below `folder`; links are not followed.
ListCheck checkAgainst(const ChecksumList& list, const BytePath& folder, RunControl& control);

} // namespace sober
