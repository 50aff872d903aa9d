#pragma once

#include <cstdint>
#include <span>
#include <vector>

namespace sober {

/// CRC-32 (ISO 3309, as zlib) of bytes that lie in memory in little-endian order.
std::uint32_t crcOf(std::span<const std::int16_t> samples);

/// CRC-32 of every stretch of `length` samples (of two channels) within those given, from the first place on:
/// in one pass, since a CRC is linear: what leaves a stretch is taken out of it by a table.
std::vector<std::uint32_t> slidingCrc(std::span<const std::int16_t> samples, std::size_t length);

} // namespace sober
