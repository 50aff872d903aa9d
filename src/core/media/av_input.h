#pragma once

#include "core/media/byte_source.h"

#include <memory>

extern "C" {
#include <libavformat/avformat.h>
}

namespace sober {

/// FFmpeg's demuxer over a ByteSource. Only for the sources of this folder.
class AvInput {
  public:
    explicit AvInput(ByteSource& source);
    ~AvInput();
    AvInput(const AvInput&) = delete;
    AvInput& operator=(const AvInput&) = delete;

    /// False where the bytes are no container that FFmpeg knows.
    bool open();
    AVFormatContext* format() const { return format_; }
    /// The first stream of audio, or null.
    AVStream* audio() const;

  private:
    struct Cursor;
    static int readPacket(void* opaque, std::uint8_t* into, int length);
    static std::int64_t seekTo(void* opaque, std::int64_t offset, int whence);

    std::unique_ptr<Cursor> cursor_;
    AVIOContext* io_ = nullptr;
    AVFormatContext* format_ = nullptr;
};

} // namespace sober
