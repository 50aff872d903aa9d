#include "core/media/byte_source.h"

#include <algorithm>
#include <cstring>

namespace sober {

std::int64_t OpenFileSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    const auto got = sober::readAt(file_, path_, offset, into);
    return got ? static_cast<std::int64_t>(*got) : -1;
}

PassedOverSource::PassedOverSource(const FileHandle& file, BytePath path, std::uint64_t size)
    : rest_(file, std::move(path), size), size_(size), tailStart_(size) {
    if (size <= wholeLimit) {
        head_.resize(size);
    } else {
        head_.resize(endLimit);
        tailStart_ = (size - endLimit) / passBlock * passBlock;
        tail_.resize(size - tailStart_);
    }
}

std::span<std::uint8_t> PassedOverSource::roomFor(std::uint64_t offset, std::size_t length) {
    if (offset + length <= head_.size()) {
        return std::span(head_).subspan(offset, length);
    }
    if (offset >= tailStart_ && offset + length <= size_) {
        return std::span(tail_).subspan(offset - tailStart_, length);
    }
    between_.resize(length);
    return between_;
}

std::int64_t PassedOverSource::readAt(std::uint64_t offset, std::span<std::uint8_t> into) {
    if (offset >= size_) {
        return 0;
    }
    const auto length = std::min<std::uint64_t>(into.size(), size_ - offset);
    if (offset + length <= head_.size()) {
        std::memcpy(into.data(), head_.data() + offset, length);
    } else if (offset >= tailStart_) {
        std::memcpy(into.data(), tail_.data() + (offset - tailStart_), length);
    } else {
        return rest_.readAt(offset, into.first(length));
    }
    return static_cast<std::int64_t>(length);
}

} // namespace sober
