#include "core/media/av_input.h"

#include <algorithm>
#include <cstdio>

extern "C" {
#include <libavutil/log.h>
}

namespace sober {

struct AvInput::Cursor {
    ByteSource* source;
    std::int64_t at = 0;
};

int AvInput::readPacket(void* opaque, std::uint8_t* into, int length) {
    auto* cursor = static_cast<Cursor*>(opaque);
    const auto got = cursor->source->readAt(static_cast<std::uint64_t>(cursor->at),
                                            {into, static_cast<std::size_t>(std::max(length, 0))});
    if (got < 0) {
        return AVERROR(EIO);
    }
    if (got == 0) {
        return AVERROR_EOF;
    }
    cursor->at += got;
    return static_cast<int>(got);
}

std::int64_t AvInput::seekTo(void* opaque, std::int64_t offset, int whence) {
    auto* cursor = static_cast<Cursor*>(opaque);
    const auto size = static_cast<std::int64_t>(cursor->source->size());
    if ((whence & AVSEEK_SIZE) != 0) {
        return size;
    }
    switch (whence & ~AVSEEK_FORCE) {
    case SEEK_SET:
        break;
    case SEEK_CUR:
        offset += cursor->at;
        break;
    case SEEK_END:
        offset += size;
        break;
    default:
        return AVERROR(EINVAL);
    }
    if (offset < 0) {
        return AVERROR(EINVAL);
    }
    cursor->at = offset;
    return offset;
}

AvInput::AvInput(ByteSource& source) : cursor_(std::make_unique<Cursor>(Cursor{&source})) {
    constexpr int bufferSize = 32 << 10;
    av_log_set_level(AV_LOG_QUIET);
    auto* buffer = static_cast<std::uint8_t*>(av_malloc(bufferSize));
    io_ = avio_alloc_context(buffer, bufferSize, 0, cursor_.get(), readPacket, nullptr, seekTo);
    format_ = avformat_alloc_context();
    format_->pb = io_;
    format_->probesize = 1 << 20;
    format_->max_analyze_duration = AV_TIME_BASE / 2;
    format_->flags |= AVFMT_FLAG_BITEXACT;
}

AvInput::~AvInput() {
    avformat_close_input(&format_);
    av_freep(&io_->buffer);
    avio_context_free(&io_);
}

bool AvInput::open() {
    return avformat_open_input(&format_, nullptr, nullptr, nullptr) >= 0;
}

AVStream* AvInput::audio() const {
    for (unsigned i = 0; i < format_->nb_streams; ++i) {
        if (format_->streams[i]->codecpar->codec_type == AVMEDIA_TYPE_AUDIO) {
            return format_->streams[i];
        }
    }
    return nullptr;
}

} // namespace sober
