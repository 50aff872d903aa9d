#include "core/media/decode.h"

#include "core/base/text.h"
#include "core/media/av_input.h"
#include "core/media/av_owned.h"
#include "core/media/frame_converter.h"
#include "core/media/mpeg_frame.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <utility>

namespace sober {
namespace {

constexpr std::size_t mostProblems = 100;

/// Reads one sample of a frame's plane, whatever its format, as a float of full scale ±1.
template <typename Sample>
float asFloat(Sample sample) {
    if constexpr (std::is_floating_point_v<Sample>) {
        return static_cast<float>(sample);
    } else if constexpr (std::is_same_v<Sample, std::uint8_t>) {
        return static_cast<float>(sample - 128) / 128.0F;
    } else {
        constexpr float step = 1.0F / static_cast<float>(1ULL << (8 * sizeof(Sample) - 1));
        return static_cast<float>(sample) * step;
    }
}

/// The sample right-justified at its stated depth: FFmpeg justifies to the left.
template <typename Sample>
std::int32_t asInteger(Sample sample, int bitDepth) {
    if constexpr (std::is_same_v<Sample, std::uint8_t>) {
        return static_cast<std::int32_t>(sample) - 128;
    } else if constexpr (std::is_integral_v<Sample>) {
        return static_cast<std::int32_t>(sample >> (8 * static_cast<int>(sizeof(Sample)) - bitDepth));
    } else {
        return 0;
    }
}

class Decoder {
  public:
    Decoder(AvInput& input, AVStream& stream, const BytePath& path, SampleSink& sink, RunControl& control)
        : input_(input),
          stream_(stream),
          path_(path),
          sink_(sink),
          control_(control),
          packet_(av_packet_alloc()),
          frame_(av_frame_alloc()) {}

    Result<DecodeReport> run() {
        if (!openCodec()) {
            return Error{Cause::unreadable, path_,
                         displayPath(path_) + " holds audio in a form that cannot be decoded (" +
                             avcodec_get_name(stream_.codecpar->codec_id) + ")."};
        }
        readAll();
        if (control_.isCancelled()) {
            return Error{Cause::interrupted, path_, "Stopped while decoding."};
        }
        if (report_.frames == 0) {
            return Error{Cause::unreadable, path_,
                         displayPath(path_) + " holds no audio that can be decoded."};
        }
        checkLength();
        return std::move(report_);
    }

  private:
    bool openCodec() {
        const auto& parameters = *stream_.codecpar;
        const AVCodec* decoder = avcodec_find_decoder(parameters.codec_id);
        if (decoder == nullptr) {
            return false;
        }
        codec_.reset(avcodec_alloc_context3(decoder));
        avcodec_parameters_to_context(codec_.get(), &parameters);
        codec_->pkt_timebase = stream_.time_base;
        codec_->thread_count = 1;
        codec_->err_recognition = AV_EF_CRCCHECK;
        if (parameters.codec_id == AV_CODEC_ID_FLAC) {
            // A frame whose check fails would otherwise be played as it is.
            codec_->err_recognition |= AV_EF_EXPLODE;
        }
        return avcodec_open2(codec_.get(), decoder, nullptr) >= 0;
    }

    void readAll() {
        int readErrors = 0;
        while (control_.proceed()) {
            const int got = av_read_frame(input_.format(), packet_.get());
            if (got == AVERROR_EOF) {
                break;
            }
            if (got < 0) {
                note("damaged", "the stream cannot be read on here");
                if (++readErrors > 20) {
                    break;
                }
                continue;
            }
            if (packet_->stream_index == stream_.index) {
                sink_.takePacket(audioIn({packet_->data, static_cast<std::size_t>(packet_->size)}));
                decodePacket(packet_.get());
            }
            av_packet_unref(packet_.get());
        }
        decodePacket(nullptr);
    }

    /// FFmpeg hands stray bytes and tags of an MPEG stream on as packets, or at the end of one.
    std::span<const std::uint8_t> audioIn(std::span<const std::uint8_t> packet) const {
        const auto codec = stream_.codecpar->codec_id;
        if (codec != AV_CODEC_ID_MP3 && codec != AV_CODEC_ID_MP2 && codec != AV_CODEC_ID_MP1) {
            return packet;
        }
        if (const auto frame = readMpegFrame(packet); frame && frame->bytes > 0) {
            return packet.first(std::min(frame->bytes, packet.size()));
        }
        for (std::size_t at = 1; at + 4 <= packet.size(); ++at) {
            const auto frame = packet[at] == 0xFF ? readMpegFrame(packet.subspan(at)) : std::nullopt;
            if (frame && at + frame->bytes == packet.size()) {
                return packet.subspan(at);
            }
        }
        return {};
    }

    void decodePacket(const AVPacket* packet) {
        if (partialAt_) {
            // A packet that is not whole is the cut end of the file where nothing follows it.
            note(packet != nullptr ? "damaged" : "truncated",
                 packet != nullptr ? "a packet is not whole" : "the file ends within a packet", *partialAt_);
            partialAt_.reset();
        }
        if (packet != nullptr && (packet->flags & AV_PKT_FLAG_CORRUPT) != 0) {
            partialAt_ = report_.seconds();
        }
        if (avcodec_send_packet(codec_.get(), packet) < 0 && packet != nullptr) {
            noteUndecodable();
        }
        while (true) {
            const int got = avcodec_receive_frame(codec_.get(), frame_.get());
            if (got == AVERROR(EAGAIN) || got == AVERROR_EOF) {
                return;
            }
            if (got < 0) {
                noteUndecodable();
                return;
            }
            if (frame_->decode_error_flags != 0) {
                note("damaged", "a frame decodes with errors");
            }
            takeFrame();
            av_frame_unref(frame_.get());
        }
    }

    void takeFrame() {
        if (!converter_) {
            begin();
            converter_.emplace(static_cast<AVSampleFormat>(frame_->format), report_.format.channels,
                               report_.format.sampleRate);
        }
        // Where recordings of several forms were joined, all of it is heard in the form of the first.
        if (!converter_->isOfForm(*frame_) && std::exchange(formTold_, true) == false) {
            report_.remarks.push_back(
                {"form-changes", report_.seconds(), "its rate or channels change here"});
        }
        if (!converter_->convert(*frame_, [this](const AVFrame& frame) { takeConverted(frame); })) {
            note("damaged", "samples of an unknown form");
        }
    }

    void takeConverted(const AVFrame& frame) {
        const auto frames = static_cast<std::size_t>(frame.nb_samples);
        if (frames == 0) {
            return;
        }
        floats_.resize(frames * static_cast<std::size_t>(report_.format.channels));
        integers_.resize(report_.format.bitDepth > 0 ? floats_.size() : 0);
        switch (av_get_packed_sample_fmt(static_cast<AVSampleFormat>(frame.format))) {
        case AV_SAMPLE_FMT_U8:
            convert<std::uint8_t>(frame, frames);
            break;
        case AV_SAMPLE_FMT_S16:
            convert<std::int16_t>(frame, frames);
            break;
        case AV_SAMPLE_FMT_S32:
            convert<std::int32_t>(frame, frames);
            break;
        case AV_SAMPLE_FMT_FLT:
            convert<float>(frame, frames);
            break;
        case AV_SAMPLE_FMT_DBL:
            convert<double>(frame, frames);
            break;
        default:
            note("damaged", "samples of an unknown form");
            return;
        }
        report_.frames += static_cast<std::int64_t>(frames);
        sink_.take({floats_, integers_, frames});
    }

    void begin() {
        const auto* descriptor = avcodec_descriptor_get(stream_.codecpar->codec_id);
        const bool lossless = descriptor != nullptr && (descriptor->props & AV_CODEC_PROP_LOSSLESS) != 0;
        const auto packed = av_get_packed_sample_fmt(static_cast<AVSampleFormat>(frame_->format));
        const bool integral = packed != AV_SAMPLE_FMT_FLT && packed != AV_SAMPLE_FMT_DBL;
        auto& format = report_.format;
        format.sampleRate = frame_->sample_rate;
        format.channels = frame_->ch_layout.nb_channels;
        if (lossless && integral) {
            const int width = 8 * av_get_bytes_per_sample(packed);
            const int raw = codec_->bits_per_raw_sample > 0 ? codec_->bits_per_raw_sample
                                                            : stream_.codecpar->bits_per_coded_sample;
            format.bitDepth = raw > 0 && raw <= width ? raw : width;
        }
        if (stream_.duration > 0) {
            format.statedSeconds = static_cast<double>(stream_.duration) * av_q2d(stream_.time_base);
        } else if (input_.format()->duration > 0) {
            format.statedSeconds = static_cast<double>(input_.format()->duration) / AV_TIME_BASE;
        }
        const bool bySamples = stream_.time_base.num == 1 && stream_.time_base.den == format.sampleRate;
        if (stream_.codecpar->codec_id == AV_CODEC_ID_FLAC && bySamples && stream_.duration > 0) {
            statedFrames_ = stream_.duration;
        }
        takeStatedMd5();
        sink_.begin(format);
    }

    void takeStatedMd5() {
        constexpr int md5At = 18; // in STREAMINFO
        const auto& parameters = *stream_.codecpar;
        if (parameters.codec_id != AV_CODEC_ID_FLAC || parameters.extradata_size < md5At + 16) {
            return;
        }
        std::array<std::uint8_t, 16> md5{};
        std::copy_n(parameters.extradata + md5At, md5.size(), md5.begin());
        if (std::ranges::any_of(md5, [](std::uint8_t byte) { return byte != 0; })) {
            report_.statedMd5 = md5;
        }
    }

    template <typename Sample>
    void convert(const AVFrame& frame, std::size_t frames) {
        const auto channels = static_cast<std::size_t>(report_.format.channels);
        const bool planar = av_sample_fmt_is_planar(static_cast<AVSampleFormat>(frame.format)) != 0;
        std::array<const Sample*, 2> pair{};
        for (std::size_t channel = 0; channel < channels; ++channel) {
            const auto* plane = reinterpret_cast<const Sample*>(frame.extended_data[planar ? channel : 0]);
            const Sample* first = planar ? plane : plane + channel;
            toFloats(first, planar ? 1 : channels, frames, floats_.data() + channel * frames);
            if (channel < pair.size()) {
                pair[channel] = first;
            }
            if (!integers_.empty() && planar && channels != 2) {
                for (std::size_t i = 0; i < frames; ++i) {
                    integers_[i * channels + channel] = asInteger(first[i], report_.format.bitDepth);
                }
            }
        }
        if (!integers_.empty() && (!planar || channels == 2)) {
            std::int32_t* whole = integers_.data();
            const int depth = report_.format.bitDepth;
            if (planar) {
                for (std::size_t i = 0; i < frames; ++i) {
                    whole[2 * i] = asInteger(pair[0][i], depth);
                    whole[2 * i + 1] = asInteger(pair[1][i], depth);
                }
            } else {
                for (std::size_t i = 0; i < frames * channels; ++i) {
                    whole[i] = asInteger(pair[0][i], depth);
                }
            }
        }
    }

    /// Each step has a loop of its own that the compiler can widen.
    template <typename Sample>
    static void toFloats(const Sample* from, std::size_t step, std::size_t count, float* out) {
        if (step == 1) {
            for (std::size_t i = 0; i < count; ++i) {
                out[i] = asFloat(from[i]);
            }
        } else if (step == 2) {
            for (std::size_t i = 0; i < count; ++i) {
                out[i] = asFloat(from[2 * i]);
            }
        } else {
            for (std::size_t i = 0; i < count; ++i) {
                out[i] = asFloat(from[i * step]);
            }
        }
    }

    /// FLAC states how many samples it holds: what follows them is not audio.
    void noteUndecodable() {
        if (statedFrames_ == 0 || report_.frames < statedFrames_) {
            note("damaged", "a frame does not decode");
        } else if (std::ranges::find(report_.remarks, "junk", &DecodeProblem::kind) ==
                   report_.remarks.end()) {
            report_.remarks.push_back(
                {"junk", report_.seconds(), "bytes that are no audio behind the last frame"});
        }
    }

    void note(std::string kind, std::string detail) {
        note(std::move(kind), std::move(detail), report_.seconds());
    }

    void note(std::string kind, std::string detail, double at) {
        if (report_.problems.size() < mostProblems) {
            report_.problems.push_back({std::move(kind), at, std::move(detail)});
        }
    }

    /// FLAC's length is exact. Other containers round theirs, and encoders' delays are not always taken off:
    /// a tenth of a second or one part in a hundred is no finding.
    /// What FFmpeg reckons from the bitrate of a stream without a container is nothing that the file states.
    void checkLength() {
        const bool isReckoned = input_.format()->duration_estimation_method == AVFMT_DURATION_FROM_BITRATE;
        const double stated = report_.format.statedSeconds;
        const double real = report_.seconds();
        const bool alike = statedFrames_ > 0 ? statedFrames_ == report_.frames
                                             : std::abs(stated - real) <= std::max(0.1, stated * 0.01);
        if (isReckoned || stated <= 0 || alike) {
            return;
        }
        const bool shorter = real < stated;
        note(shorter ? "truncated" : "length-mismatch",
             fmt::format("states {} and holds {}", humanSeconds(stated), humanSeconds(real)));
    }

    AvInput& input_;
    AVStream& stream_;
    const BytePath& path_;
    SampleSink& sink_;
    RunControl& control_;
    OwnedCodec codec_;
    OwnedPacket packet_;
    OwnedFrame frame_;
    std::optional<FrameConverter> converter_;
    bool formTold_ = false;
    std::vector<float> floats_;
    std::vector<std::int32_t> integers_;
    std::int64_t statedFrames_ = 0;   ///< where a length is exact
    std::optional<double> partialAt_; ///< seconds: where a packet was not whole
    DecodeReport report_;
};

} // namespace

Result<DecodeReport> decodeAudio(ByteSource& source, const BytePath& path, SampleSink& sink,
                                 RunControl& control) {
    AvInput input(source);
    if (!input.open()) {
        return Error{Cause::unreadable, path, displayPath(path) + " cannot be opened as audio."};
    }
    AVStream* stream = input.audio();
    if (stream == nullptr || stream->codecpar->sample_rate <= 0) {
        avformat_find_stream_info(input.format(), nullptr);
        stream = input.audio();
    }
    if (stream == nullptr) {
        return Error{Cause::notAudio, path, displayPath(path) + " holds no audio."};
    }
    for (unsigned i = 0; i < input.format()->nb_streams; ++i) {
        if (static_cast<int>(i) != stream->index) {
            input.format()->streams[i]->discard = AVDISCARD_ALL;
        }
    }
    return Decoder(input, *stream, path, sink, control).run();
}

} // namespace sober
