#pragma once

#include "core/base/times.h"

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

namespace sober {

/// What a file system can hold.
struct TargetRules {
    enum class Unit {
        bytes,
        utf16, ///< code units
    };
    std::string_view word = {}; ///< as the command knows it
    std::string_view name = {}; ///< for a person
    Unit unit = Unit::bytes;
    std::size_t longestName = 255;   ///< units
    std::size_t longestPath = 0;     ///< units, from the root on; 0: no limit
    std::string_view forbidden = {}; ///< characters, besides the slash
    bool forbidsControls = false;
    bool forbidsEndings = false;     ///< names that end in a dot or a space
    bool forbidsDeviceNames = false; ///< CON, NUL, COM1 and kin, whatever follows a dot
    bool onlyUnicode = false;        ///< names have to be well-formed text
    bool onlyBasicPlane = false;     ///< no characters beyond U+FFFF
    bool ignoresCase = false;
    std::uint64_t largestFile = 0;     ///< bytes; 0: more than anybody has
    std::uint64_t entriesInFolder = 0; ///< of 32 bytes, long names take several; 0: no limit
    std::uint64_t entriesInRoot = 0;
    std::size_t deepest = 0;    ///< folders below each other; 0: no limit
    Nanoseconds timeStep = 1;   ///< of modification times
    std::uint64_t block = 4096; ///< bytes that are given out together, where it cannot be asked
};

/// Every kind of target, by its word.
std::span<const TargetRules> allTargetRules();
const TargetRules* targetRulesNamed(std::string_view word);

/// For a file system as the kernel or blkid names it; the most careful rules where it is not known.
const TargetRules& targetRulesFor(std::string_view filesystemType);

/// A name's length in a target's units.
std::size_t lengthIn(const TargetRules& rules, std::string_view name);

/// Why a target cannot hold a name; nothing where it can.
std::optional<std::string> whyNotHeld(const TargetRules& rules, std::string_view name);

} // namespace sober
