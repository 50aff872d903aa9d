#include "core/media/flac_frame.h"

#include "core/media/bit_reader.h"

#include <array>

namespace sober {
namespace {

constexpr auto crc16Tables = [] {
    std::array<std::array<std::uint16_t, 256>, 4> tables{};
    for (unsigned byte = 0; byte < 256; ++byte) {
        unsigned crc = byte << 8;
        for (int bit = 0; bit < 8; ++bit) {
            crc = (crc << 1) ^ ((crc & 0x8000U) != 0 ? 0x8005U : 0);
        }
        tables[0][byte] = static_cast<std::uint16_t>(crc);
    }
    for (std::size_t table = 1; table < 4; ++table) {
        for (std::size_t byte = 0; byte < 256; ++byte) {
            const unsigned before = tables[table - 1][byte];
            tables[table][byte] = static_cast<std::uint16_t>(before << 8 ^ tables[0][before >> 8 & 255]);
        }
    }
    return tables;
}();

/// CRC-8 of the header: polynomial 0x07, start 0.
std::uint8_t headerCrc(std::span<const std::uint8_t> bytes) {
    unsigned crc = 0;
    for (const auto byte : bytes) {
        crc ^= byte;
        for (int bit = 0; bit < 8; ++bit) {
            crc = (crc << 1) ^ ((crc & 0x80U) != 0 ? 0x107U : 0);
        }
    }
    return static_cast<std::uint8_t>(crc);
}

bool skipResidual(BitReader& bits, unsigned samples, unsigned order) {
    const auto method = bits.take(2);
    if (method > 1) {
        return false;
    }
    const unsigned parameterBits = method == 0 ? 4 : 5;
    const unsigned escape = method == 0 ? 15 : 31;
    const auto partitionOrder = static_cast<unsigned>(bits.take(4));
    const unsigned each = samples >> partitionOrder;
    if (each << partitionOrder != samples || each < order) {
        return false;
    }
    for (unsigned partition = 0; partition < 1U << partitionOrder; ++partition) {
        const auto count = partition == 0 ? each - order : each;
        const auto parameter = static_cast<unsigned>(bits.take(parameterBits));
        if (parameter == escape) {
            bits.pass(bits.take(5) * count);
        } else {
            for (unsigned i = 0; i < count && !bits.isOver(); ++i) {
                bits.takeUnary();
                bits.pass(parameter);
            }
        }
        if (bits.isOver()) {
            return false;
        }
    }
    return true;
}

bool skipSubframe(BitReader& bits, unsigned samples, unsigned depth) {
    if (bits.take(1) != 0) {
        return false;
    }
    const auto type = static_cast<unsigned>(bits.take(6));
    if (bits.take(1) != 0) {
        const auto wasted = static_cast<unsigned>(bits.takeUnary()) + 1;
        if (wasted >= depth) {
            return false;
        }
        depth -= wasted;
    }
    if (type == 0) {
        bits.pass(depth);
        return !bits.isOver();
    }
    if (type == 1) {
        bits.pass(std::uint64_t{samples} * depth);
        return !bits.isOver();
    }
    if (type >= 8 && type <= 12) {
        const unsigned order = type - 8;
        bits.pass(std::uint64_t{order} * depth);
        return samples >= order && skipResidual(bits, samples, order);
    }
    if (type >= 32) {
        const unsigned order = type - 31;
        bits.pass(std::uint64_t{order} * depth);
        const auto precision = static_cast<unsigned>(bits.take(4)) + 1;
        bits.pass(5 + std::uint64_t{order} * precision);
        return precision < 16 && samples >= order && skipResidual(bits, samples, order);
    }
    return false;
}

unsigned samplesOf(unsigned code, std::span<const std::uint8_t> more) {
    switch (code) {
    case 0:
        return 0;
    case 1:
        return 192;
    case 6:
        return more[0] + 1U;
    case 7:
        return (static_cast<unsigned>(more[0]) << 8 | more[1]) + 1;
    default:
        return code < 6 ? 144U << code : 1U << code;
    }
}

/// The coded number of section 9.1.5 and how many bytes it takes; 0 bytes where it is none.
std::pair<std::uint64_t, std::size_t> codedNumber(std::span<const std::uint8_t> bytes) {
    const unsigned head = bytes[0];
    if (head < 0x80) {
        return {head, 1};
    }
    const auto length = static_cast<std::size_t>(__builtin_clz(~(head << 24)));
    if (length < 2 || length > 7 || bytes.size() < length) {
        return {0, 0};
    }
    std::uint64_t number = length == 7 ? 0 : head & (0x7FU >> length);
    for (std::size_t i = 1; i < length; ++i) {
        if ((bytes[i] & 0xC0) != 0x80) {
            return {0, 0};
        }
        number = number << 6 | (bytes[i] & 0x3FU);
    }
    return {number, length};
}

} // namespace

std::uint16_t flacCrc(std::span<const std::uint8_t> bytes, std::uint16_t crc) {
    unsigned sum = crc;
    std::size_t at = 0;
    for (; at + 4 <= bytes.size(); at += 4) {
        const unsigned high = sum >> 8 ^ bytes[at];
        const unsigned low = (sum & 255U) ^ bytes[at + 1];
        sum = crc16Tables[3][high] ^ crc16Tables[2][low] ^ crc16Tables[1][bytes[at + 2]] ^
              crc16Tables[0][bytes[at + 3]];
    }
    for (; at < bytes.size(); ++at) {
        sum = (sum << 8 & 0xFFFFU) ^ crc16Tables[0][(sum >> 8) ^ bytes[at]];
    }
    return static_cast<std::uint16_t>(sum);
}

std::optional<FlacFrame> readFlacFrame(std::span<const std::uint8_t> bytes) {
    constexpr unsigned rates[]{0,      88'200, 176'400, 192'000, 8'000,  16'000,
                               22'050, 24'000, 32'000,  44'100,  48'000, 96'000};
    constexpr unsigned depths[]{0, 8, 12, 0, 16, 20, 24, 32};
    if (bytes.size() < 6 || bytes[0] != 0xFF || (bytes[1] & 0xFE) != 0xF8) {
        return std::nullopt;
    }
    const unsigned sizeCode = bytes[2] >> 4;
    const unsigned rateCode = bytes[2] & 15;
    const unsigned channelCode = bytes[3] >> 4;
    const unsigned depthCode = (bytes[3] >> 1) & 7;
    if (sizeCode == 0 || rateCode == 15 || channelCode > 10 || depthCode == 3 || (bytes[3] & 1) != 0) {
        return std::nullopt;
    }
    const auto [number, length] = codedNumber(bytes.subspan(4));
    const std::size_t more = sizeCode == 7 ? 2 : sizeCode == 6 ? 1 : 0;
    const std::size_t rateBytes = rateCode == 12 ? 1 : rateCode == 13 || rateCode == 14 ? 2 : 0;
    const auto header = 4 + length + more + rateBytes + 1;
    if (length == 0 || bytes.size() < header || headerCrc(bytes.first(header - 1)) != bytes[header - 1]) {
        return std::nullopt;
    }
    FlacFrame frame;
    frame.number = number;
    frame.variable = (bytes[1] & 1) != 0;
    frame.samples = samplesOf(sizeCode, bytes.subspan(4 + length));
    const auto rateAt = 4 + length + more;
    frame.sampleRate = rateCode < 12    ? rates[rateCode]
                       : rateCode == 12 ? bytes[rateAt] * 1000U
                                        : (static_cast<unsigned>(bytes[rateAt]) << 8 | bytes[rateAt + 1]) *
                                              (rateCode == 13 ? 1U : 10U);
    frame.channels = channelCode < 8 ? channelCode + 1 : 2;
    frame.decorrelated = channelCode < 8 ? 0 : channelCode;
    frame.bits = depths[depthCode];
    frame.headerBytes = header;
    return frame;
}

std::size_t flacFrameLength(std::span<const std::uint8_t> bytes, unsigned streamBits) {
    const auto frame = readFlacFrame(bytes);
    if (!frame) {
        return 0;
    }
    const unsigned depth = frame->bits != 0 ? frame->bits : streamBits;
    BitReader bits(bytes, frame->headerBytes);
    for (unsigned channel = 0; channel < frame->channels; ++channel) {
        const bool isSide = (frame->decorrelated == 8 && channel == 1) ||
                            (frame->decorrelated == 9 && channel == 0) ||
                            (frame->decorrelated == 10 && channel == 1);
        if (depth == 0 || !skipSubframe(bits, frame->samples, depth + (isSide ? 1 : 0))) {
            return 0;
        }
    }
    const auto length = (bits.at() + 7) / 8 + 2;
    return length <= bytes.size() && flacCrc(bytes.first(length)) == 0 ? length : 0;
}

} // namespace sober
