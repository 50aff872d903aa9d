#pragma once

#include <memory>

extern "C" {
#include <libavcodec/avcodec.h>
}

namespace sober {

struct FreeCodec {
    void operator()(AVCodecContext* codec) const { avcodec_free_context(&codec); }
};
struct FreePacket {
    void operator()(AVPacket* packet) const { av_packet_free(&packet); }
};
struct FreeFrame {
    void operator()(AVFrame* frame) const { av_frame_free(&frame); }
};

/// FFmpeg's objects with owners. Only for the sources of this folder.
using OwnedCodec = std::unique_ptr<AVCodecContext, FreeCodec>;
using OwnedPacket = std::unique_ptr<AVPacket, FreePacket>;
using OwnedFrame = std::unique_ptr<AVFrame, FreeFrame>;

} // namespace sober
