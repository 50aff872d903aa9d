#include "core/media/byte_source.h"

#include <algorithm>
#include <cstring>

namespace sober {

std::int64_t OpenFileSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    const auto got = sober::readAt(file_, path_, offset, into);
    return got ? static_cast<std::int64_t>(*got) : -1;
}

ExtentSource::ExtentSource(ByteSource& source, std::vector<ByteRange> extents)
    : source_(source), extents_(std::move(extents)), starts_{0} {
    for (const auto& [first, past] : extents_) {
        starts_.push_back(starts_.back() + (past - first));
    }
}

std::int64_t ExtentSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    std::size_t have = 0;
    auto extent = static_cast<std::size_t>(std::ranges::upper_bound(starts_, offset) - starts_.begin());
    while (have < into.size() && extent < starts_.size()) {
        const auto within = offset + have - starts_[extent - 1];
        const auto length = std::min<std::uint64_t>(into.size() - have, starts_[extent] - offset - have);
        const auto from = extents_[extent - 1].first + within;
        const auto part = into.subspan(have, static_cast<std::size_t>(length));
        if (from >= nowhere) {
            std::ranges::fill(part, std::uint8_t{0});
        }
        const auto got = from >= nowhere ? static_cast<std::int64_t>(length) : source_.readAt(from, part);
        if (got < 0) {
            return got;
        }
        have += static_cast<std::size_t>(got);
        if (static_cast<std::uint64_t>(got) < length) {
            break;
        }
        ++extent;
    }
    return static_cast<std::int64_t>(have);
}

PassedOverSource::PassedOverSource(const FileHandle& file, BytePath path, std::uint64_t size)
    : rest_(file, std::move(path), size),
      size_(size),
      headEnd_(std::min(size, endLimit)),
      tailStart_(std::max(headEnd_, size - headEnd_)),
      kept_(std::make_unique_for_overwrite<std::uint8_t[]>(headEnd_ + (size - tailStart_))) {}

void PassedOverSource::take(std::uint64_t offset, std::span<const std::uint8_t> bytes) {
    const std::uint64_t end = offset + bytes.size();
    if (offset < headEnd_) {
        std::memcpy(kept_.get() + offset, bytes.data(), std::min(end, headEnd_) - offset);
    }
    if (end > tailStart_) {
        const std::uint64_t from = std::max(offset, tailStart_);
        std::memcpy(kept_.get() + headEnd_ + (from - tailStart_), bytes.data() + (from - offset), end - from);
    }
}

std::int64_t PassedOverSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    if (offset >= size_) {
        return 0;
    }
    const auto length = std::min<std::uint64_t>(into.size(), size_ - offset);
    const bool isWhole = headEnd_ == tailStart_; // head and tail adjoin
    if (isWhole || offset + length <= headEnd_) {
        std::memcpy(into.data(), kept_.get() + offset, length);
    } else if (offset >= tailStart_) {
        std::memcpy(into.data(), kept_.get() + headEnd_ + (offset - tailStart_), length);
    } else {
        return rest_.readAt(offset, into.first(length));
    }
    return static_cast<std::int64_t>(length);
}

} // namespace sober
