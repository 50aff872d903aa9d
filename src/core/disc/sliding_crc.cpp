#include "core/disc/sliding_crc.h"

#include <array>
#include <zlib.h>

namespace sober {
namespace {

constexpr std::size_t sampleBytes = 4; // of two channels

/// The bare division: nothing before and nothing after it, so that it is linear.
class Division {
  public:
    Division() : table_(get_crc_table()) {}
    std::uint32_t after(std::uint32_t rest, std::uint32_t sample) const {
        for (std::size_t i = 0; i < sampleBytes; ++i, sample >>= 8) {
            rest = static_cast<std::uint32_t>(table_[(rest ^ sample) & 0xFF]) ^ (rest >> 8);
        }
        return rest;
    }

  private:
    const z_crc_t* table_;
};

/// What a rest becomes by so many bytes of zeros (zlib's combination is just that and the other's CRC).
std::uint32_t behindZeros(std::uint32_t rest, std::size_t bytes) {
    return static_cast<std::uint32_t>(crc32_combine(rest, 0, static_cast<z_off_t>(bytes)));
}

std::uint32_t sampleAt(std::span<const std::int16_t> samples, std::size_t at) {
    return static_cast<std::uint16_t>(samples[2 * at]) |
           static_cast<std::uint32_t>(static_cast<std::uint16_t>(samples[2 * at + 1])) << 16;
}

} // namespace

std::uint32_t crcOf(std::span<const std::int16_t> samples) {
    return static_cast<std::uint32_t>(
        crc32_z(0, reinterpret_cast<const Bytef*>(samples.data()), samples.size_bytes()));
}

std::vector<std::uint32_t> slidingCrc(std::span<const std::int16_t> samples, std::size_t length) {
    const std::size_t count = samples.size() / 2;
    std::vector<std::uint32_t> sums;
    if (length == 0 || count < length) {
        return sums;
    }
    const Division division;
    // What goes before and after the bytes adds the same to all of one length: what it makes of zeros.
    const std::uint32_t frame = behindZeros(0xFFFF'FFFFU, length * sampleBytes) ^ 0xFFFF'FFFFU;
    std::array<std::array<std::uint32_t, 256>, sampleBytes> leaving{};
    for (std::size_t byte = 0; byte < sampleBytes; ++byte) {
        for (std::uint32_t value = 1; value < 256; ++value) {
            const auto lowest = value & (~value + 1);
            leaving[byte][value] =
                lowest == value ? behindZeros(division.after(0, value << (8 * byte)), length * sampleBytes)
                                : leaving[byte][lowest] ^ leaving[byte][value ^ lowest];
        }
    }
    std::uint32_t rest = crcOf(samples.first(2 * length)) ^ frame;
    sums.reserve(count - length + 1);
    sums.push_back(rest ^ frame);
    for (std::size_t at = 0; at + length < count; ++at) {
        rest = division.after(rest, sampleAt(samples, at + length));
        auto left = sampleAt(samples, at);
        for (std::size_t byte = 0; byte < sampleBytes; ++byte, left >>= 8) {
            rest ^= leaving[byte][left & 0xFF];
        }
        sums.push_back(rest ^ frame);
    }
    return sums;
}

} // namespace sober
