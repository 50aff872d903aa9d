#include "core/media/adts_frame.h"

#include <iterator>

namespace sober {

std::optional<AdtsFrame> readAdtsFrame(std::span<const std::uint8_t> bytes) {
    constexpr int rates[]{96'000, 88'200, 64'000, 48'000, 44'100, 32'000, 24'000,
                          22'050, 16'000, 12'000, 11'025, 8'000,  7'350};
    if (bytes.size() < 7 || bytes[0] != 0xFF || (bytes[1] & 0xF6) != 0xF0) {
        return std::nullopt;
    }
    const std::size_t rate = (bytes[2] >> 2) & 15;
    const std::size_t length = static_cast<std::size_t>(bytes[3] & 3) << 11 |
                               static_cast<std::size_t>(bytes[4]) << 3 | bytes[5] >> 5;
    if (rate >= std::size(rates) || length < 8) {
        return std::nullopt;
    }
    return AdtsFrame{length, rates[rate], 1024 * ((bytes[6] & 3) + 1),
                     static_cast<std::uint64_t>(bytes[1] & 0x0F) << 16 |
                         static_cast<std::uint64_t>(bytes[2] & 0xFD) << 8 | (bytes[3] & 0xC0U)};
}

} // namespace sober
