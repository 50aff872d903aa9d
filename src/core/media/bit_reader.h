#pragma once

#include <bit>
#include <cstdint>
#include <cstring>
#include <endian.h>
#include <span>

namespace sober {

/// Reads bits, the highest of each byte first. Behind the end they are zeros, and `isOver` says so.
class BitReader {
  public:
    explicit BitReader(std::span<const std::uint8_t> bytes, std::size_t fromByte = 0)
        : bytes_(bytes), at_(std::uint64_t{fromByte} * 8) {}

    std::uint64_t at() const { return at_; } ///< bits from the first byte on
    bool isOver() const { return at_ >= bytes_.size() * 8; }
    void pass(std::uint64_t bits) { at_ += bits; }
    void goTo(std::uint64_t bit) { at_ = bit; }

    /// The next 32, the first of them at the top; they do not go by.
    std::uint32_t next32() const {
        std::uint64_t value = 0;
        const auto first = at_ / 8;
        if (first + sizeof value <= bytes_.size()) {
            std::memcpy(&value, bytes_.data() + first, sizeof value);
            return static_cast<std::uint32_t>(be64toh(value) << at_ % 8 >> 32);
        }
        for (std::uint64_t byte = first; byte < first + 5; ++byte) {
            value = value << 8 | (byte < bytes_.size() ? bytes_[byte] : 0U);
        }
        return static_cast<std::uint32_t>(value >> (8 - at_ % 8));
    }
    /// 32 at most.
    std::uint32_t take(unsigned bits) {
        const auto value = bits > 0 ? next32() >> (32 - bits) : 0;
        at_ += bits;
        return value;
    }
    /// Zeros up to the next one, which goes by too.
    std::uint64_t takeUnary() {
        std::uint64_t zeros = 0;
        while (!isOver()) {
            const auto these = static_cast<unsigned>(std::countl_zero(next32()));
            zeros += these;
            if (these < 32) {
                at_ += these + 1;
                return zeros;
            }
            at_ += these;
        }
        return zeros;
    }

  private:
    std::span<const std::uint8_t> bytes_;
    std::uint64_t at_;
};

} // namespace sober
