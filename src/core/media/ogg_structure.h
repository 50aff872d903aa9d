#pragma once

#include "core/media/push_parser.h"

#include <map>

namespace sober {

class OggPage;

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
    void takePage(const OggPage& page);
    std::uint64_t takeJunk(std::span<const std::uint8_t> held);
    /// The junk that ends here is told.
    void endJunk();

    std::map<std::uint32_t, Stream> streams_; ///< by serial number
    double seconds_ = 0;
    std::uint64_t junkSince_ = 0;
    bool inJunk_ = false;
    bool cut_ = false;
};

} // namespace sober
