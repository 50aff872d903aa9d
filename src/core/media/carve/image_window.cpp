#include "core/media/carve/image_window.h"

#include <algorithm>

namespace sober {

std::span<const std::uint8_t> ImageWindow::at(std::uint64_t offset, std::size_t length) {
    if (offset >= size()) {
        return {};
    }
    length = static_cast<std::size_t>(std::min<std::uint64_t>({length, longest, size() - offset}));
    if (offset < from_ || offset + length > from_ + held_.size()) {
        from_ = offset - offset % sectorBytes;
        held_.resize(static_cast<std::size_t>(std::min<std::uint64_t>(2 * longest, size() - from_)));
        auto got = source_.readAt(from_, held_);
        if (got < 0) {
            // Something within cannot be read: as much as can, sector by sector.
            std::size_t have = 0;
            while (have < held_.size()) {
                const auto piece = std::min<std::size_t>(sectorBytes, held_.size() - have);
                if (source_.readAt(from_ + have, std::span(held_).subspan(have, piece)) !=
                    static_cast<std::int64_t>(piece)) {
                    break;
                }
                have += piece;
            }
            got = static_cast<std::int64_t>(have);
        }
        held_.resize(static_cast<std::size_t>(got));
    }
    const auto within = static_cast<std::size_t>(offset - from_);
    return within >= held_.size() ? std::span<const std::uint8_t>{}
                                  : std::span<const std::uint8_t>(held_).subspan(
                                        within, std::min(length, held_.size() - within));
}

} // namespace sober
