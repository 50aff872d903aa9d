#include "core/media/small_picture.h"

#include "core/media/av_owned.h"

#include <algorithm>
#include <memory>
#include <tuple>

extern "C" {
#include <libavutil/imgutils.h>
#include <libswscale/swscale.h>
}

namespace sober {
namespace {

constexpr int largestSide = 16'384; // pixels: what a picture states beyond is not decoded

/// By how their files begin: the PNG specification (5.2), ITU-T T.81 (B.1.1.3), GIF89a (17), the RIFF
/// container of WebP (RFC 9649), and the two letters of a Windows bitmap.
AVCodecID formatOf(std::string_view bytes) {
    return bytes.starts_with("\x89PNG")                                       ? AV_CODEC_ID_PNG
           : bytes.starts_with("\xFF\xD8")                                    ? AV_CODEC_ID_MJPEG
           : bytes.starts_with("GIF8")                                        ? AV_CODEC_ID_GIF
           : bytes.starts_with("RIFF") && bytes.substr(8).starts_with("WEBP") ? AV_CODEC_ID_WEBP
           : bytes.starts_with("BM")                                          ? AV_CODEC_ID_BMP
                                                                              : AV_CODEC_ID_NONE;
}

OwnedFrame decoded(std::string_view bytes) {
    av_log_set_level(AV_LOG_QUIET);
    const AVCodec* decoder = avcodec_find_decoder(formatOf(bytes));
    OwnedCodec codec(decoder != nullptr ? avcodec_alloc_context3(decoder) : nullptr);
    const OwnedPacket packet(av_packet_alloc());
    OwnedFrame frame(av_frame_alloc());
    if (!codec) {
        return nullptr;
    }
    codec->thread_count = 1;
    codec->max_pixels = std::int64_t{largestSide} * largestSide;
    const bool ready = avcodec_open2(codec.get(), decoder, nullptr) >= 0 &&
                       av_new_packet(packet.get(), static_cast<int>(bytes.size())) >= 0;
    if (!ready) {
        return nullptr;
    }
    std::copy(bytes.begin(), bytes.end(), packet->data);
    const bool sent =
        avcodec_send_packet(codec.get(), packet.get()) >= 0 && avcodec_send_packet(codec.get(), nullptr) >= 0;
    return sent && avcodec_receive_frame(codec.get(), frame.get()) >= 0 ? std::move(frame) : nullptr;
}

/// How large a picture becomes.
std::pair<int, int> fitted(const AVFrame& frame, int mostPixels) {
    const double scale = std::min(1.0, static_cast<double>(mostPixels) / std::max(frame.width, frame.height));
    return {std::max(1, static_cast<int>(frame.width * scale)),
            std::max(1, static_cast<int>(frame.height * scale))};
}

using Scaler = std::unique_ptr<SwsContext, void (*)(SwsContext*)>;

Scaler scalerFor(const AVFrame& frame, std::pair<int, int> size, AVPixelFormat format) {
    return {sws_getContext(frame.width, frame.height, static_cast<AVPixelFormat>(frame.format), size.first,
                           size.second, format, SWS_AREA, nullptr, nullptr, nullptr),
            sws_freeContext};
}

const Error cannotBeShown{
    Cause::unreadable, {}, "The picture cannot be shown: it is of no kind that we know."};

} // namespace

Result<SmallPicture> smallPictureOf(std::string_view bytes, int mostPixels) {
    const auto frame = decoded(bytes);
    if (!frame || frame->width <= 0 || frame->height <= 0 || mostPixels <= 0) {
        return cannotBeShown;
    }
    SmallPicture picture;
    std::tie(picture.width, picture.height) = fitted(*frame, mostPixels);
    const auto scaler = scalerFor(*frame, {picture.width, picture.height}, AV_PIX_FMT_RGBA);
    if (!scaler) {
        return cannotBeShown;
    }
    // The scaler writes past the end of a row by itself: rows of its own, then ours.
    const int stride = (picture.width * 4 + 63) & ~63;
    std::string rows(static_cast<std::size_t>(stride) * static_cast<std::size_t>(picture.height) + 64, '\0');
    auto* into = reinterpret_cast<std::uint8_t*>(rows.data());
    sws_scale(scaler.get(), frame->data, frame->linesize, 0, frame->height, &into, &stride);
    for (int row = 0; row < picture.height; ++row) {
        picture.pixels.append(rows, static_cast<std::size_t>(row) * static_cast<std::size_t>(stride),
                              static_cast<std::size_t>(picture.width) * 4);
    }
    return picture;
}

Result<std::string> jpegOf(std::string_view bytes, int mostPixels) {
    const auto frame = decoded(bytes);
    const AVCodec* encoder = avcodec_find_encoder(AV_CODEC_ID_MJPEG);
    const OwnedCodec codec(encoder != nullptr ? avcodec_alloc_context3(encoder) : nullptr);
    const OwnedFrame small(av_frame_alloc());
    const OwnedPacket packet(av_packet_alloc());
    if (!frame || frame->width <= 0 || frame->height <= 0 || mostPixels <= 0 || !codec) {
        return cannotBeShown;
    }
    const auto size = fitted(*frame, mostPixels);
    const auto scaler = scalerFor(*frame, size, AV_PIX_FMT_YUVJ420P);
    small->width = codec->width = size.first;
    small->height = codec->height = size.second;
    small->format = codec->pix_fmt = AV_PIX_FMT_YUVJ420P;
    codec->time_base = {1, 25};
    codec->thread_count = 1;
    codec->flags |= AV_CODEC_FLAG_QSCALE;
    small->quality = codec->global_quality = 3 * FF_QP2LAMBDA; // of 2 to 31, the best first; no source
    if (!scaler || av_frame_get_buffer(small.get(), 0) < 0 ||
        avcodec_open2(codec.get(), encoder, nullptr) < 0) {
        return cannotBeShown;
    }
    sws_scale(scaler.get(), frame->data, frame->linesize, 0, frame->height, small->data, small->linesize);
    const bool isMade = avcodec_send_frame(codec.get(), small.get()) >= 0 &&
                        avcodec_send_frame(codec.get(), nullptr) >= 0 &&
                        avcodec_receive_packet(codec.get(), packet.get()) >= 0;
    return isMade ? Result(std::string(reinterpret_cast<const char*>(packet->data),
                                       static_cast<std::size_t>(packet->size)))
                  : Result<std::string>(cannotBeShown);
}

} // namespace sober
