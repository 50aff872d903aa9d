#pragma once

#include "core/media/byte_source.h"

#include <algorithm>
#include <random>
#include <string>

namespace sober::test {

/// Bytes that are held by somebody else, as an image.
class MemorySource final : public ByteSource {
  public:
    explicit MemorySource(std::span<const std::uint8_t> bytes) : bytes_(bytes) {}
    explicit MemorySource(std::string_view bytes)
        : bytes_(reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()) {}
    std::uint64_t size() const override { return bytes_.size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override {
        const auto length =
            offset < bytes_.size() ? std::min<std::size_t>(into.size(), bytes_.size() - offset) : 0;
        std::copy_n(bytes_.begin() + static_cast<std::ptrdiff_t>(offset), length, into.begin());
        return static_cast<std::int64_t>(length);
    }

  private:
    std::span<const std::uint8_t> bytes_;
};

/// Bytes that are like no format, always the same of one seed.
inline std::string randomBytes(std::size_t count, unsigned seed) {
    std::mt19937 random(seed);
    std::string bytes(count, '\0');
    for (auto& byte : bytes) {
        byte = static_cast<char>(random());
    }
    return bytes;
}

} // namespace sober::test
