#include "core/media/ogg_page.h"

#include "core/base/text.h"

#include <ogg/ogg.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

using namespace std::string_view_literals;

constexpr std::size_t longestHeader = OggPage::shortestHeader + 255;
constexpr std::size_t checkValueAt = 22;

/// libogg takes bytes that may be changed; only ogg_page_checksum_set changes them, and those of the header.
ogg_page asLibrary(std::uint8_t* header, std::size_t length, std::span<const std::uint8_t> body) {
    return {header, static_cast<long>(length),
            const_cast<std::uint8_t*>(body.data()), // NOLINT: never written
            static_cast<long>(body.size())};
}

ogg_page asLibrary(std::span<const std::uint8_t> page, std::size_t headerLength) {
    return asLibrary(const_cast<std::uint8_t*>(page.data()), headerLength, // NOLINT: never written
                     page.subspan(headerLength));
}

} // namespace

std::optional<OggPage> OggPage::at(std::span<const std::uint8_t> bytes) {
    if (bytes.size() < shortestHeader || !beginsWith(bytes, "OggS") || bytes[4] != 0 ||
        bytes.size() < shortestHeader + bytes[26]) {
        return std::nullopt;
    }
    const std::size_t headerLength = shortestHeader + bytes[26];
    std::size_t length = headerLength;
    for (const auto segment : bytes.subspan(shortestHeader, bytes[26])) {
        length += segment;
    }
    return length <= bytes.size() ? std::optional(OggPage(bytes.first(length), headerLength)) : std::nullopt;
}

bool OggPage::holds() const {
    std::array<std::uint8_t, longestHeader> header{};
    std::ranges::copy(page_.first(headerLength_), header.begin());
    auto page = asLibrary(header.data(), headerLength_, body());
    ogg_page_checksum_set(&page);
    return std::ranges::equal(std::span(header).subspan(checkValueAt, 4), page_.subspan(checkValueAt, 4));
}

std::uint32_t OggPage::serial() const {
    const auto page = asLibrary(page_, headerLength_);
    return static_cast<std::uint32_t>(ogg_page_serialno(&page));
}

std::uint32_t OggPage::sequence() const {
    const auto page = asLibrary(page_, headerLength_);
    return static_cast<std::uint32_t>(ogg_page_pageno(&page));
}

std::int64_t OggPage::granule() const {
    const auto page = asLibrary(page_, headerLength_);
    return ogg_page_granulepos(&page);
}

bool OggPage::begins() const {
    const auto page = asLibrary(page_, headerLength_);
    return ogg_page_bos(&page) != 0;
}

bool OggPage::ends() const {
    const auto page = asLibrary(page_, headerLength_);
    return ogg_page_eos(&page) != 0;
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

} // namespace sober
