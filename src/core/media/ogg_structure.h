#pragma once

#include "core/media/push_parser.h"

#include <map>

namespace sober {

/// Pages of an Ogg stream (RFC 3533): capture pattern, check value, sequence, time and end mark of every
/// logical stream. Times come from the granule positions of Vorbis, Opus (RFC 7845), FLAC and Speex.
class OggStructure final : public PushParser {
  public:
    explicit OggStructure(std::uint64_t size) : PushParser(size) {}
    std::string_view container() const override { return "ogg"; }

  private:
    struct Stream {
        int rate = 0; ///< granules a second; 0 where the codec is not known
        std::uint32_t next = 0;
        std::int64_t granule = 0;
        bool ended = false;
    };

    std::uint64_t parse(std::span<const std::uint8_t> held, bool atEnd) override;
    void conclude() override;
    void takePage(std::span<const std::uint8_t> page, std::size_t headerLength);
    std::uint64_t takeJunk(std::span<const std::uint8_t> held);
    /// The junk that ends here is told.
    void endJunk();

    std::map<std::uint32_t, Stream> streams_; ///< by serial number
    double seconds_ = 0;
    std::uint64_t junkSince_ = 0;
    bool inJunk_ = false;
    bool cut_ = false;
};

/// CRC-32 of RFC 3533 section 6: polynomial 0x04C11DB7, start 0, neither reflected nor inverted.
std::uint32_t oggCrc(std::span<const std::uint8_t> bytes, std::uint32_t crc = 0);

/// The length of the page that begins the bytes; 0 where there is no whole one.
std::size_t oggPageLength(std::span<const std::uint8_t> bytes);
/// Whether a page's check value holds.
bool oggPageHolds(std::span<const std::uint8_t> page);
/// Granules a second, from the first packet of a stream; 0 where its codec is not known.
int oggRateOf(std::span<const std::uint8_t> packet);

} // namespace sober
