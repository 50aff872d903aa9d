#pragma once

#include "core/media/layer3_accounts.h"
#include "core/media/layer3_frame.h"
#include "core/media/push_parser.h"

namespace sober {

/// Frames of MPEG audio (ISO/IEC 11172-3, 13818-3), one after the other, with the tags around them: lost
/// sync, frames that do not fit the others, check values, main data that is not there, the frame count that
/// the file states against the real one, junk.
class MpegStructure final : public PushParser {
  public:
    explicit MpegStructure(std::uint64_t size) : PushParser(size) {}
    std::string_view container() const override { return "mp3"; }

  private:
    std::uint64_t parse(std::span<const std::uint8_t> held, bool atEnd) override;
    void conclude() override;
    std::uint64_t tagLength(std::span<const std::uint8_t> held) const;
    /// True where the bytes are a frame that another follows, or nothing but tags.
    bool isConfirmed(const MpegFrame& frame, std::span<const std::uint8_t> held, bool atEnd) const;
    void takeFrame(const MpegFrame& frame, std::span<const std::uint8_t> bytes);
    void compareWithStream(const MpegFrame& frame);
    void checkMainData(const MpegFrame& frame, std::span<const std::uint8_t> bytes);
    void remarkOddBits();
    std::uint64_t takeJunk(std::span<const std::uint8_t> held);
    void endJunk();

    std::optional<MpegFrame> stream_; ///< the first frame
    std::optional<StatedFrames> stated_;
    Layer3Accounts accounts_;
    double seconds_ = 0;
    std::uint64_t samples_ = 0;
    std::uint64_t junkSince_ = 0;  ///< first byte of it
    std::uint64_t junkLength_ = 0; ///< tags within it left out
    std::int64_t spare_ = 0;       ///< bytes of main data that the next frame may begin with
    bool inSync_ = false;
    bool inJunk_ = false;
    bool cut_ = false;
    bool varies_ = false;      ///< the bitrate
    bool givenUp_ = false;     ///< it is no MPEG audio after all
    bool begunWithin_ = false; ///< the first frames refer to what came before them
};

} // namespace sober
