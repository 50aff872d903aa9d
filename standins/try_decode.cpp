#include "standins/try_decode.h"

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
}

#include <memory>

namespace {

struct CloseInput {
    void operator()(AVFormatContext* input) const { avformat_close_input(&input); }
};
struct FreeCodec {
    void operator()(AVCodecContext* codec) const { avcodec_free_context(&codec); }
};
struct FreePacket {
    void operator()(AVPacket* packet) const { av_packet_free(&packet); }
};
struct FreeFrame {
    void operator()(AVFrame* frame) const { av_frame_free(&frame); }
};

} // namespace

std::string whyNotPlayed(const std::string& path) {
    av_log_set_level(AV_LOG_QUIET);
    AVFormatContext* opened = nullptr;
    if (avformat_open_input(&opened, path.c_str(), nullptr, nullptr) < 0) {
        return "cannot be opened";
    }
    const std::unique_ptr<AVFormatContext, CloseInput> input(opened);
    if (avformat_find_stream_info(input.get(), nullptr) < 0) {
        return "is not understood";
    }
    const AVCodec* decoder = nullptr;
    const int stream = av_find_best_stream(input.get(), AVMEDIA_TYPE_AUDIO, -1, -1, &decoder, 0);
    if (stream < 0) {
        return "holds no sound";
    }
    const std::unique_ptr<AVCodecContext, FreeCodec> codec(avcodec_alloc_context3(decoder));
    avcodec_parameters_to_context(codec.get(), input->streams[stream]->codecpar);
    if (avcodec_open2(codec.get(), decoder, nullptr) < 0) {
        return "has no decoder";
    }
    const std::unique_ptr<AVPacket, FreePacket> packet(av_packet_alloc());
    const std::unique_ptr<AVFrame, FreeFrame> frame(av_frame_alloc());
    int frames = 0;
    while (frames < 4 && av_read_frame(input.get(), packet.get()) >= 0) {
        if (packet->stream_index == stream && avcodec_send_packet(codec.get(), packet.get()) >= 0) {
            while (avcodec_receive_frame(codec.get(), frame.get()) >= 0) {
                ++frames;
            }
        }
        av_packet_unref(packet.get());
    }
    if (frames == 0) {
        avcodec_send_packet(codec.get(), nullptr);
        frames += avcodec_receive_frame(codec.get(), frame.get()) >= 0 ? 1 : 0;
    }
    return frames > 0 ? "" : "does not sound";
}
