#include "core/base/byte_ranges.h"

#include <algorithm>

namespace sober {

std::uint64_t lengthOf(std::span<const ByteRange> ranges) {
    std::uint64_t length = 0;
    for (const auto& [first, past] : ranges) {
        length += past - first;
    }
    return length;
}

std::uint64_t overlapOf(std::span<const ByteRange> some, std::span<const ByteRange> others) {
    std::uint64_t shared = 0;
    for (const auto& [first, past] : some) {
        for (const auto& [from, to] : others) {
            const auto begin = std::max(first, from);
            const auto end = std::min(past, to);
            shared += end > begin ? end - begin : 0;
        }
    }
    return shared;
}

} // namespace sober
