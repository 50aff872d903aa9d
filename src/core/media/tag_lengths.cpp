#include "core/media/tag_lengths.h"

#include "core/media/push_parser.h"

namespace sober {

std::uint64_t id3Length(std::span<const std::uint8_t> head) {
    if (head.size() < 10 || !beginsWith(head, "ID3") || head[3] == 0xFF || head[4] == 0xFF) {
        return 0;
    }
    std::uint64_t length = 0;
    for (const auto byte : head.subspan(6, 4)) {
        if (byte > 127) {
            return 0;
        }
        length = length << 7 | byte;
    }
    return length + 10 + ((head[5] & 0x10) != 0 ? 10 : 0);
}

std::uint64_t apeLength(std::span<const std::uint8_t> head) {
    if (head.size() < longestTagHead || !beginsWith(head, "APETAGEX")) {
        return 0;
    }
    // The stated size leaves the header out; a footer alone ends a tag.
    const bool isHeader = (head[23] & 0x20) != 0;
    return isHeader ? littleEndian(head.subspan(12, 4)) + 32 : 32;
}

} // namespace sober
