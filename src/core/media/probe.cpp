#include "core/media/probe.h"

#include "core/base/text.h"
#include "core/media/av_input.h"

#include <algorithm>
#include <array>
#include <string_view>

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
}

namespace sober {
namespace {

struct Named {
    std::string_view from;
    std::string_view to;
};

/// FFmpeg's demuxer name to our one word.
std::string containerName(std::string_view demuxer) {
    constexpr std::array<Named, 5> names{{{"mov,mp4,m4a,3gp,3g2,mj2", "mp4"},
                                          {"matroska,webm", "matroska"},
                                          {"w64", "wav"},
                                          {"wv", "wavpack"},
                                          {"ape", "ape"}}};
    for (const auto& name : names) {
        if (demuxer == name.from) {
            return std::string(name.to);
        }
    }
    return std::string(demuxer.substr(0, demuxer.find(',')));
}

std::string codecName(AVCodecID id) {
    const std::string name = avcodec_get_name(id);
    return name.starts_with("pcm_") && id != AV_CODEC_ID_PCM_ALAW && id != AV_CODEC_ID_PCM_MULAW ? "pcm"
                                                                                                 : name;
}

bool isLossless(AVCodecID id) {
    if (id == AV_CODEC_ID_PCM_ALAW || id == AV_CODEC_ID_PCM_MULAW) {
        return false;
    }
    const auto* descriptor = avcodec_descriptor_get(id);
    if (descriptor == nullptr || (descriptor->props & AV_CODEC_PROP_LOSSLESS) == 0) {
        return false;
    }
    // Of the codecs that can be either, WavPack is nearly always used without loss.
    return (descriptor->props & AV_CODEC_PROP_LOSSY) == 0 || id == AV_CODEC_ID_WAVPACK;
}

std::string tagOf(const AVFormatContext& format, const AVStream& stream,
                  std::initializer_list<const char*> keys) {
    for (const auto* dictionary : {format.metadata, stream.metadata}) {
        for (const char* key : keys) {
            const auto* entry = av_dict_get(dictionary, key, nullptr, 0);
            if (entry != nullptr && entry->value[0] != '\0') {
                return repairedUtf8(entry->value);
            }
        }
    }
    return {};
}

/// Enough is known of the stream that no packet has to be looked at.
bool statesEnough(const AVFormatContext& format, const AVStream& stream) {
    const auto& parameters = *stream.codecpar;
    return parameters.codec_id != AV_CODEC_ID_NONE && parameters.sample_rate > 0 &&
           parameters.ch_layout.nb_channels > 0 && (stream.duration > 0 || format.duration > 0);
}

bool hasMovingPictures(const AVFormatContext& format) {
    for (unsigned i = 0; i < format.nb_streams; ++i) {
        const auto* stream = format.streams[i];
        if (stream->codecpar->codec_type == AVMEDIA_TYPE_VIDEO &&
            (stream->disposition & AV_DISPOSITION_ATTACHED_PIC) == 0) {
            return true;
        }
    }
    return false;
}

double durationOf(const AVFormatContext& format, const AVStream& stream) {
    if (stream.duration > 0) {
        return static_cast<double>(stream.duration) * av_q2d(stream.time_base);
    }
    return format.duration > 0 ? static_cast<double>(format.duration) / AV_TIME_BASE : 0;
}

Claims claimsOf(const AVFormatContext& format, const AVStream& stream, std::uint64_t size) {
    const auto& parameters = *stream.codecpar;
    Claims claims;
    claims.container = containerName(format.iformat->name);
    claims.codec = codecName(parameters.codec_id);
    claims.lossless = isLossless(parameters.codec_id);
    claims.sampleRate = parameters.sample_rate;
    claims.channels = parameters.ch_layout.nb_channels;
    claims.duration = durationOf(format, stream);
    if (claims.lossless) {
        claims.bitDepth = parameters.bits_per_raw_sample > 0 ? parameters.bits_per_raw_sample
                                                             : parameters.bits_per_coded_sample;
    }
    claims.bitrate = parameters.bit_rate > 0 ? parameters.bit_rate : format.bit_rate;
    if (claims.bitrate <= 0 && claims.duration > 0) {
        claims.bitrate = static_cast<std::int64_t>(static_cast<double>(size) * 8 / claims.duration);
    }
    return claims;
}

Error unreadableFile(const BytePath& path, std::string_view why) {
    return Error{Cause::unreadable, path, displayPath(path) + " " + std::string(why)};
}

} // namespace

Result<Probed> probe(ByteSource& source, const BytePath& path) {
    AvInput input(source);
    if (!input.open()) {
        return unreadableFile(path, "begins like audio, but its contents cannot be opened.");
    }
    const AVFormatContext* format = input.format();
    const AVStream* stream = input.audio();
    if (stream == nullptr || !statesEnough(*format, *stream)) {
        avformat_find_stream_info(input.format(), nullptr);
        stream = input.audio();
    }
    if (hasMovingPictures(*format)) {
        return Error{Cause::notAudio, path, displayPath(path) + " holds moving pictures."};
    }
    if (stream == nullptr) {
        return Error{Cause::notAudio, path, displayPath(path) + " holds no audio."};
    }
    if (stream->codecpar->sample_rate <= 0 || stream->codecpar->ch_layout.nb_channels <= 0) {
        return unreadableFile(path, "states neither a sample rate nor channels that could be played.");
    }

    Probed probed;
    probed.claims = claimsOf(*format, *stream, source.size());
    probed.tags = Tags{tagOf(*format, *stream, {"title"}),
                       tagOf(*format, *stream, {"artist", "album_artist", "author"}),
                       tagOf(*format, *stream, {"album"}), tagOf(*format, *stream, {"track"}),
                       tagOf(*format, *stream, {"date", "year", "creation_time"})};
    probed.filing = FilingTags{tagOf(*format, *stream, {"album_artist", "albumartist"}),
                               tagOf(*format, *stream, {"composer"}), tagOf(*format, *stream, {"genre"}),
                               tagOf(*format, *stream, {"disc", "discnumber"})};
    return probed;
}

} // namespace sober
