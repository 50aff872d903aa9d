#include "core/media/box_structure.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {

std::uint64_t BoxStructure::parse(std::span<const std::uint8_t> held, bool atEnd) {
    constexpr std::size_t longestHead = 16;
    const auto rest = std::max<std::uint64_t>(left(), held.size());
    if (over_) {
        return rest;
    }
    if (held.size() < longestHead && !atEnd && held.size() < left()) {
        return 0;
    }
    const bool named = held.size() >= 8 && std::ranges::all_of(held.subspan(4, 4), [](std::uint8_t byte) {
                           return (byte >= 0x20 && byte < 0x7F) || byte == 0xA9;
                       });
    std::uint64_t length = named ? bigEndian(held.first(4)) : 0;
    if (named && length == 1 && held.size() >= longestHead) {
        length = bigEndian(held.subspan(8, 8));
    } else if (named && length == 0) {
        length = rest; // the last box may reach to the end
    }
    if (!named || length < 8) {
        over_ = true;
        remark("junk", 0, fmt::format("{} behind the last box", counted(rest, "byte")));
        junk(rest);
        return rest;
    }
    ++report_.units;
    hasContents_ = hasContents_ || beginsWith(held.subspan(4), "moov");
    if (length > rest) {
        over_ = true;
        problem("truncated", 0,
                fmt::format("a box of {} of which {} are there", humanBytes(length), humanBytes(rest)));
        return rest;
    }
    return length;
}

void BoxStructure::conclude() {
    if (!hasContents_ && report_.units > 0) {
        problem("damaged", 0, "it has no table of contents");
    }
}

} // namespace sober
