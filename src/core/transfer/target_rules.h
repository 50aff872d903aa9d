#pragma once

#include "core/base/times.h"

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// What a file system can hold.
struct TargetRules {
    enum class Unit {
        bytes,
        utf16, ///< code units
    };
    std::string_view word; ///< "fat32"
    Unit unit = Unit::bytes;
    std::size_t longestName = 255;   ///< units
    std::string_view forbidden = {}; ///< characters, besides the slash
    bool forbidsControls = false;
    bool forbidsEndings = false;     ///< names that end in a dot or a space
    bool forbidsDeviceNames = false; ///< CON, NUL, COM1 and kin, whatever follows a dot
    bool onlyUnicode = false;        ///< names have to be well-formed text
    bool onlyBasicPlane = false;     ///< no characters beyond U+FFFF
    bool ignoresCase = false;
    std::uint64_t largestFile = 0;     ///< bytes; 0: no limit that a file of audio meets
    std::uint64_t entriesInFolder = 0; ///< 0: no limit that matters
    std::uint64_t entriesInRoot =
        0;                    ///< of the topmost folder, where it is limited otherwise; 0: as any other
    Nanoseconds timeStep = 1; ///< what times of writing are rounded to
    std::uint64_t allocationUnit = 4096; ///< bytes, where the file system cannot be asked
};

/// By its word; none where there are no such rules.
const TargetRules* targetRulesNamed(std::string_view word);

/// For a file system as the kernel or blkid names it; the most careful rules where it is not known. What
/// tells FAT16 from FAT32 is how many clusters it has (Microsoft, "FAT: General Overview of On-Disk Format",
/// p. 14); 0: not known.
const TargetRules& targetRulesFor(std::string_view filesystemType, std::uint64_t clusters = 0);

/// "names of up to 255 characters, files of up to 4.29 GB, times of writing to 2 s".
std::string wordsOf(const TargetRules& rules);

/// How many of a folder's entries a name takes: FAT's long names take one for every thirteen characters and
/// one more, all others one.
std::uint64_t entriesOf(const TargetRules& rules, std::string_view name);

/// A name's length in a target's units.
std::size_t lengthIn(const TargetRules& rules, std::string_view name);

/// Why a target cannot hold a name; nothing where it can.
std::optional<std::string> whyNotHeld(const TargetRules& rules, std::string_view name);

} // namespace sober
