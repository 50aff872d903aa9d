#pragma once

#include <cstddef>
#include <optional>
#include <string>
#include <string_view>

namespace sober {

/// What names a file system can hold.
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
};

/// By its word; none where there are no such rules.
const TargetRules* targetRulesNamed(std::string_view word);

/// For a file system as the kernel or blkid names it; the most careful rules where it is not known.
const TargetRules& targetRulesFor(std::string_view filesystemType);

/// A name's length in a target's units.
std::size_t lengthIn(const TargetRules& rules, std::string_view name);

/// Why a target cannot hold a name; nothing where it can.
std::optional<std::string> whyNotHeld(const TargetRules& rules, std::string_view name);

} // namespace sober
