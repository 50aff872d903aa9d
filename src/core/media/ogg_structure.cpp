#include "core/media/ogg_structure.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <array>
#include <cstring>

namespace sober {
namespace {

using namespace std::string_view_literals;

constexpr std::size_t shortestHeader = 27;
constexpr std::uint8_t firstPage = 2;
constexpr std::uint8_t lastPage = 4;

/// Four tables, so that four bytes go at once.
constexpr auto crcTables = [] {
    std::array<std::array<std::uint32_t, 256>, 4> tables{};
    for (std::uint32_t byte = 0; byte < 256; ++byte) {
        std::uint32_t crc = byte << 24;
        for (int bit = 0; bit < 8; ++bit) {
            crc = (crc << 1) ^ ((crc & 0x80000000U) != 0 ? 0x04C11DB7U : 0);
        }
        tables[0][byte] = crc;
    }
    for (std::size_t table = 1; table < 4; ++table) {
        for (std::size_t byte = 0; byte < 256; ++byte) {
            const auto before = tables[table - 1][byte];
            tables[table][byte] = (before << 8) ^ tables[0][before >> 24];
        }
    }
    return tables;
}();

} // namespace

std::uint32_t oggCrc(std::span<const std::uint8_t> bytes, std::uint32_t crc) {
    std::size_t at = 0;
    for (; at + 4 <= bytes.size(); at += 4) {
        crc ^= static_cast<std::uint32_t>(bigEndian(bytes.subspan(at, 4)));
        crc = crcTables[3][crc >> 24] ^ crcTables[2][(crc >> 16) & 255] ^ crcTables[1][(crc >> 8) & 255] ^
              crcTables[0][crc & 255];
    }
    for (; at < bytes.size(); ++at) {
        crc = (crc << 8) ^ crcTables[0][(crc >> 24) ^ bytes[at]];
    }
    return crc;
}

int oggRateOf(std::span<const std::uint8_t> packet) {
    if (beginsWith(packet, "\x01vorbis"sv) && packet.size() >= 16) {
        return static_cast<int>(littleEndian(packet.subspan(12, 4)));
    }
    if (beginsWith(packet, "OpusHead"sv)) {
        return 48'000;
    }
    if (beginsWith(packet, "\x7F"
                           "FLAC"sv) &&
        packet.size() >= 30) {
        return static_cast<int>(bigEndian(packet.subspan(27, 3)) >> 4);
    }
    if (beginsWith(packet, "Speex   "sv) && packet.size() >= 40) {
        return static_cast<int>(littleEndian(packet.subspan(36, 4)));
    }
    return 0;
}

std::size_t oggPageLength(std::span<const std::uint8_t> bytes) {
    if (bytes.size() < shortestHeader || !beginsWith(bytes, "OggS") || bytes[4] != 0 ||
        bytes.size() < shortestHeader + bytes[26]) {
        return 0;
    }
    std::size_t length = shortestHeader + bytes[26];
    for (const auto segment : bytes.subspan(shortestHeader, bytes[26])) {
        length += segment;
    }
    return length <= bytes.size() ? length : 0;
}

bool oggPageHolds(std::span<const std::uint8_t> page) {
    static constexpr std::array<std::uint8_t, 4> none{};
    return oggCrc(page.subspan(26), oggCrc(none, oggCrc(page.first(22)))) ==
           littleEndian(page.subspan(22, 4));
}

std::uint64_t OggStructure::parse(std::span<const std::uint8_t> held, bool atEnd) {
    if (held.size() < 4 && !atEnd) {
        return 0;
    }
    if (!beginsWith(held, "OggS")) {
        return takeJunk(held);
    }
    if (held.size() < shortestHeader) {
        return atEnd ? takeJunk(held) : 0;
    }
    const std::size_t segments = held[26];
    const std::size_t headerLength = shortestHeader + segments;
    if (held.size() < headerLength) {
        return atEnd ? takeJunk(held) : 0;
    }
    std::size_t length = headerLength;
    for (std::size_t i = 0; i < segments; ++i) {
        length += held[shortestHeader + i];
    }
    if (length > left() && held[4] == 0) {
        endJunk();
        cut_ = true;
        problem("truncated", seconds_, "the file ends within a page");
        return left() > 0 ? left() : held.size();
    }
    const bool follows = length + 4 <= held.size();
    if (!follows && !atEnd && length < left()) {
        return 0;
    }
    if (held.size() < length) {
        return atEnd ? takeJunk(held) : 0;
    }
    const auto page = held.first(length);
    if (held[4] != 0 || !oggPageHolds(page)) {
        // Where another page follows at once, this is a page, and damaged; else it only looks like one.
        if (follows && !beginsWith(held.subspan(length), "OggS")) {
            return takeJunk(held);
        }
        problem("damaged", seconds_, "the check value of a page does not hold");
    }
    endJunk();
    ++report_.units;
    takePage(page, headerLength);
    return length;
}

void OggStructure::takePage(std::span<const std::uint8_t> page, std::size_t headerLength) {
    const auto serial = static_cast<std::uint32_t>(littleEndian(page.subspan(14, 4)));
    const auto sequence = static_cast<std::uint32_t>(littleEndian(page.subspan(18, 4)));
    const auto granule = static_cast<std::int64_t>(littleEndian(page.subspan(6, 8)));
    const bool first = (page[5] & firstPage) != 0;
    auto& stream = streams_[serial];
    if (first) {
        stream = {oggRateOf(page.subspan(headerLength)), sequence, 0, false};
    }
    if (sequence != stream.next) {
        problem("damaged", seconds_,
                sequence > stream.next
                    ? fmt::format("{} missing", counted(sequence - stream.next, "page"))
                    : fmt::format("page {} where page {} should be", sequence, stream.next));
    }
    stream.next = sequence + 1;
    if (granule >= 0 && stream.rate > 0) {
        if (granule < stream.granule) {
            problem("damaged", seconds_, "the time of a page lies before that of the page before it");
        }
        stream.granule = granule;
        seconds_ = static_cast<double>(granule) / stream.rate;
    }
    stream.ended = stream.ended || (page[5] & lastPage) != 0;
}

std::uint64_t OggStructure::takeJunk(std::span<const std::uint8_t> held) {
    if (!inJunk_) {
        inJunk_ = true;
        junkSince_ = offset();
    }
    // On to the next byte that might begin a page.
    const void* found = held.size() > 1 ? std::memchr(held.data() + 1, 'O', held.size() - 1) : nullptr;
    const auto next = found != nullptr
                          ? static_cast<std::size_t>(static_cast<const std::uint8_t*>(found) - held.data())
                          : held.size();
    junk(next);
    return next;
}

void OggStructure::endJunk() {
    if (!inJunk_) {
        return;
    }
    inJunk_ = false;
    const auto detail = fmt::format("{} that belong to no page, from byte {} on",
                                    counted(offset() - junkSince_, "byte"), humanCount(junkSince_));
    if (report_.units == 0) {
        remark("junk", 0, detail);
    } else {
        problem("damaged", seconds_, detail);
    }
}

void OggStructure::conclude() {
    if (inJunk_) {
        remark("junk", seconds_,
               fmt::format("{} after the last page", counted(offset() - junkSince_, "byte")));
    }
    for (const auto& [serial, stream] : streams_) {
        if (!stream.ended && !cut_) {
            problem("truncated", seconds_, "the mark that ends the stream is not there");
            return;
        }
    }
}

} // namespace sober
