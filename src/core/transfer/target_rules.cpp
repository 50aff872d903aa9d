#include "core/transfer/target_rules.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

/// What Windows and the devices that follow it hold, whatever the file system.
constexpr TargetRules heldByWindows(std::string_view word) {
    TargetRules rules{word};
    rules.unit = TargetRules::Unit::utf16;
    rules.forbidden = "\"*:<>?\\|";
    rules.forbidsControls = true;
    rules.forbidsEndings = true;
    rules.forbidsDeviceNames = true;
    rules.onlyUnicode = true;
    rules.ignoresCase = true;
    return rules;
}

constexpr std::uint64_t largestOf32Bits = 0xFFFF'FFFF; // bytes
constexpr Nanoseconds second = 1'000'000'000;

constexpr TargetRules heldByFat() {
    auto rules = heldByWindows("fat32");
    rules.largestFile = largestOf32Bits;
    rules.entriesInFolder = 65'534; // of 2 MiB, without "." and ".."
    rules.allocationUnit = 32'768;
    rules.timeStep = 2 * second;
    return rules;
}

constexpr TargetRules heldByFat16() {
    auto rules = heldByFat();
    rules.word = "fat16";
    rules.entriesInRoot = 511; // of the usual 512; one is the volume's label
    return rules;
}

constexpr TargetRules heldByExfat() {
    auto rules = heldByWindows("exfat");
    rules.allocationUnit = 131'072;
    rules.timeStep = second; // the format has 10 ms (table 28), what mounts it keeps seconds
    return rules;
}

constexpr TargetRules heldByNtfs() {
    auto rules = heldByWindows("ntfs");
    rules.timeStep = 100;
    return rules;
}

constexpr TargetRules heldByJoliet() {
    auto rules = heldByWindows("iso9660");
    rules.longestName = 64;
    rules.forbidden = "*:;?\\";
    rules.forbidsDeviceNames = false;
    rules.onlyBasicPlane = true;
    rules.largestFile = largestOf32Bits;
    rules.allocationUnit = 2048;
    rules.timeStep = second;
    return rules;
}

// FAT: Microsoft, "FAT: General Overview of On-Disk Format" 1.03 (2000): long names of 255 UTF-16 units.
// exFAT: Microsoft, "exFAT file system specification" (2019), table 35. NTFS: Microsoft, "Naming Files,
// Paths, and Namespaces", whose reserved names and endings hold for all three where Windows or a device reads
// them. ext4: kernel.org, "ext4 Data Structures and Algorithms". ISO 9660 with Joliet: the Joliet
// specification (1995). Steps of times: the same, FAT 2 s of writing, NTFS 100 ns
// ("File Times"), ISO 9660 1 s (9.1.5). From memory; the tests make names on real ones.
constexpr std::array<TargetRules, 6> allRules{heldByFat(),  heldByFat16(),       heldByExfat(),
                                              heldByNtfs(), TargetRules{"ext4"}, heldByJoliet()};

constexpr std::uint64_t leastClustersOfFat32 = 65'525;

bool isDeviceName(std::string_view name) {
    auto stem = lowerAscii(name.substr(0, name.find('.')));
    while (stem.ends_with(' ')) {
        stem.pop_back();
    }
    constexpr std::array<std::string_view, 4> plain{"con", "prn", "aux", "nul"};
    // A digit, or one of the three that stand above the line.
    constexpr std::array<std::string_view, 13> numbers{"0", "1", "2", "3",      "4",      "5",     "6",
                                                       "7", "8", "9", "\u00b9", "\u00b2", "\u00b3"};
    const bool numbered = (stem.starts_with("com") || stem.starts_with("lpt")) &&
                          std::ranges::find(numbers, std::string_view(stem).substr(3)) != numbers.end();
    return numbered || std::ranges::find(plain, stem) != plain.end();
}

} // namespace

const TargetRules* targetRulesNamed(std::string_view word) {
    const auto found = std::ranges::find(allRules, word, &TargetRules::word);
    return found != allRules.end() ? &*found : nullptr;
}

const TargetRules& targetRulesFor(std::string_view filesystemType, std::uint64_t clusters) {
    constexpr std::array<std::pair<std::string_view, std::string_view>, 18> kinds{{{"vfat", "fat32"},
                                                                                   {"msdos", "fat32"},
                                                                                   {"exfat", "exfat"},
                                                                                   {"fuse.exfat", "exfat"},
                                                                                   {"ntfs", "ntfs"},
                                                                                   {"ntfs3", "ntfs"},
                                                                                   {"ntfs-3g", "ntfs"},
                                                                                   {"ext2", "ext4"},
                                                                                   {"ext3", "ext4"},
                                                                                   {"ext4", "ext4"},
                                                                                   {"xfs", "ext4"},
                                                                                   {"btrfs", "ext4"},
                                                                                   {"f2fs", "ext4"},
                                                                                   {"tmpfs", "ext4"},
                                                                                   {"overlay", "ext4"},
                                                                                   {"zfs", "ext4"},
                                                                                   {"nfs4", "ext4"},
                                                                                   {"iso9660", "iso9660"}}};
    const auto found = std::ranges::find(kinds, filesystemType, [](const auto& each) { return each.first; });
    if (found != kinds.end() && found->second == "fat32" && clusters > 0 && clusters < leastClustersOfFat32) {
        return *targetRulesNamed("fat16");
    }
    // What is not known may be a card behind FUSE or a share: names that FAT32 holds are held everywhere.
    return *targetRulesNamed(found != kinds.end() ? found->second : "fat32");
}

std::string wordsOf(const TargetRules& target) {
    auto words = fmt::format("names of up to {} {}", target.longestName,
                             target.unit == TargetRules::Unit::bytes ? "bytes" : "characters");
    if (target.largestFile > 0) {
        words += fmt::format(", files of up to {}", humanBytes(target.largestFile));
    }
    if (target.entriesInRoot > 0) {
        words += fmt::format(", {} entries in its topmost folder", target.entriesInRoot);
    }
    if (target.timeStep >= second) {
        words += fmt::format(", times of writing to {} s", target.timeStep / second);
    }
    return words;
}

std::uint64_t entriesOf(const TargetRules& target, std::string_view name) {
    constexpr std::size_t inOneEntry = 13; // UTF-16 units
    return target.entriesInFolder == 0 ? 1 : 1 + (lengthIn(target, name) + inOneEntry - 1) / inOneEntry;
}

std::size_t lengthIn(const TargetRules& target, std::string_view name) {
    if (target.unit == TargetRules::Unit::bytes) {
        return name.size();
    }
    std::size_t units = 0;
    for (const char c : name) {
        const auto byte = static_cast<unsigned char>(c);
        // Each character begins once; those of four bytes take two units.
        units += (byte & 0xC0) != 0x80 ? (byte >= 0xF0 ? 2 : 1) : 0;
    }
    return units;
}

std::optional<std::string> whyNotHeld(const TargetRules& target, std::string_view name) {
    if (name.empty() || name == "." || name == "..") {
        return "it is no name";
    }
    if (target.onlyUnicode && !isUtf8(name)) {
        return "it holds bytes that are no text";
    }
    for (const char c : name) {
        const auto byte = static_cast<unsigned char>(c);
        if (c == '/' || (target.forbidsControls && (byte < 0x20 || byte == 0x7F)) ||
            target.forbidden.find(c) != std::string_view::npos) {
            return byte < 0x20 || byte == 0x7F ? "it holds a control character"
                                               : fmt::format("it holds \"{}\"", c);
        }
        if (target.onlyBasicPlane && byte >= 0xF0) {
            return "it holds a character beyond the basic plane of Unicode";
        }
    }
    if (target.forbidsEndings && (name.back() == '.' || name.back() == ' ')) {
        return name.back() == '.' ? "it ends in a dot" : "it ends in a space";
    }
    if (target.forbidsDeviceNames && isDeviceName(name)) {
        return "it is the name of a device there";
    }
    const auto length = lengthIn(target, name);
    return length > target.longestName
               ? std::optional(fmt::format("it is {} long, {} are allowed", length, target.longestName))
               : std::nullopt;
}

} // namespace sober
