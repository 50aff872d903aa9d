#pragma once

#include <cstdint>
#include <optional>
#include <span>

namespace sober {

/// A whole page of an Ogg stream (RFC 3533, section 6), as libogg reads it. The bytes belong to the caller.
class OggPage {
  public:
    static constexpr std::size_t shortestHeader = 27;

    /// The page of version 0 that begins the bytes; nothing where there is no whole one.
    static std::optional<OggPage> at(std::span<const std::uint8_t> bytes);
    /// Of what has a page's length, whatever its version.
    OggPage(std::span<const std::uint8_t> page, std::size_t headerLength)
        : page_(page), headerLength_(headerLength) {}

    /// Whether its check value holds.
    bool holds() const;
    std::size_t length() const { return page_.size(); }
    std::span<const std::uint8_t> body() const { return page_.subspan(headerLength_); }
    std::uint32_t serial() const;
    std::uint32_t sequence() const;
    std::int64_t granule() const;
    bool begins() const;
    bool ends() const;

  private:
    std::span<const std::uint8_t> page_;
    std::size_t headerLength_;
};

/// Granules a second, from the first packet of a stream; 0 where its codec is not known.
int oggRateOf(std::span<const std::uint8_t> packet);

} // namespace sober
