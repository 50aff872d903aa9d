#include "core/evidence/checksumming_source.h"

#include <array>

namespace sober {

std::int64_t ChecksummingSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    const auto got = source_.readAt(offset, into);
    if (got > 0 && offset <= next_ && offset + static_cast<std::uint64_t>(got) > next_) {
        const auto fresh = into.first(static_cast<std::size_t>(got)).subspan(next_ - offset);
        checksums_.feed(fresh);
        next_ += fresh.size();
        onBytes_(fresh);
    }
    return got;
}

std::optional<FileChecksums> ChecksummingSource::finish() {
    std::array<std::uint8_t, 64U << 10> piece;
    while (next_ < source_.size()) {
        if (readAt(next_, piece) <= 0) {
            return std::nullopt;
        }
    }
    return checksums_.finish();
}

} // namespace sober
