#include "core/media/encoding_sink.h"

#include "core/base/text.h"
#include "core/media/av_owned.h"

extern "C" {
#include <libavformat/avformat.h>
#include <libavutil/audio_fifo.h>
#include <libavutil/channel_layout.h>
#include <libavutil/opt.h>
#include <libswresample/swresample.h>
}

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <unistd.h>

namespace sober {

/// What a sink's state is made of.
namespace encoding {

struct FreeFormat {
    void operator()(AVFormatContext* format) const { avformat_free_context(format); }
};
struct FreeResampler {
    void operator()(SwrContext* context) const { swr_free(&context); }
};
struct FreeFifo {
    void operator()(AVAudioFifo* fifo) const { av_audio_fifo_free(fifo); }
};
struct FreeOutput {
    void operator()(AVIOContext* io) const {
        av_freep(&io->buffer);
        avio_context_free(&io);
    }
};

/// A file, or memory, of which only the end is written to.
struct EncodedTo {
    int descriptor = -1;
    std::string* bytes = nullptr;
};

} // namespace encoding

namespace {

using Codec = EncodingForm::Codec;

constexpr std::array<const char*, 6> encoders{"libmp3lame", "aac",  "libopus",
                                              "libvorbis",  "flac", "pcm_s16le"};
constexpr std::array<const char*, 6> containers{"mp3", "ipod", "opus", "ogg", "flac", "wav"};

int writeTo(void* opaque, std::uint8_t* bytes, int length) {
    const auto& target = *static_cast<encoding::EncodedTo*>(opaque);
    if (target.bytes != nullptr) {
        target.bytes->append(reinterpret_cast<const char*>(bytes), static_cast<std::size_t>(length));
        return length;
    }
    const auto written = write(target.descriptor, bytes, static_cast<std::size_t>(length));
    return written < 0 ? AVERROR(errno) : static_cast<int>(written);
}

std::int64_t seekIn(void* opaque, std::int64_t offset, int whence) {
    const auto& target = *static_cast<encoding::EncodedTo*>(opaque);
    return whence == AVSEEK_SIZE || target.bytes != nullptr ? -1 : lseek(target.descriptor, offset, whence);
}

/// The rate that an encoder takes, nearest to the source's and not below it where it can be.
int rateFor(const AVCodec& codec, int wanted) {
    if (codec.supported_samplerates == nullptr) {
        return wanted;
    }
    int best = 0;
    for (const int* rate = codec.supported_samplerates; *rate != 0; ++rate) {
        const bool isNearer = std::abs(*rate - wanted) < std::abs(best - wanted);
        const bool reaches = *rate >= wanted;
        best = best == 0 || (reaches == (best >= wanted) ? isNearer : reaches) ? *rate : best;
    }
    return best;
}

} // namespace

struct EncodingSink::State {
    State(BytePath path, encoding::EncodedTo target, const EncodingForm& form, double begins, double seconds)
        : path_(std::move(path)), form_(form), begins_(begins), wanted_(seconds), target_(target) {}

    void begin(const SampleFormat& format) {
        source_ = format;
        skip_ = std::llround(begins_ * format.sampleRate);
        left_ = wanted_ > 0 ? std::llround(wanted_ * format.sampleRate)
                            : std::numeric_limits<std::int64_t>::max();
        if (!open()) {
            failed_ = true;
        }
    }

    void take(const DecodedBlock& block) {
        if (failed_ || left_ <= 0) {
            return;
        }
        const auto skipped = std::min<std::int64_t>(skip_, static_cast<std::int64_t>(block.frames));
        skip_ -= skipped;
        const auto frames = std::min(static_cast<std::int64_t>(block.frames) - skipped, left_);
        left_ -= frames;
        taken_ += frames;
        if (frames > 0 && !feed(block, static_cast<std::size_t>(skipped), static_cast<int>(frames))) {
            failed_ = true;
        }
    }

    Outcome finish() {
        if (!codec_) {
            return Error{Cause::notAudio, path_,
                         displayPath(path_) + " holds nothing that could be written anew."};
        }
        failed_ = failed_ || !drainResampler() || !encodeWhole(true) || !send(nullptr) ||
                  av_write_trailer(format_.get()) < 0;
        avio_flush(output_.get());
        failed_ = failed_ || output_->error < 0;
        return failed_ ? Outcome(Error{Cause::unreadable, path_,
                                       displayPath(path_) + " could not be written in that form."})
                       : done();
    }

    double seconds() const {
        return source_.sampleRate > 0 ? static_cast<double>(taken_) / source_.sampleRate : 0;
    }

    bool isExact() const { return form_.isLossless() && source_.bitDepth > 0; }

    AVSampleFormat formatFor(const AVCodec& codec) const {
        if (form_.codec == Codec::flac) {
            return source_.bitDepth > 16 || source_.bitDepth == 0 ? AV_SAMPLE_FMT_S32 : AV_SAMPLE_FMT_S16;
        }
        return codec.sample_fmts != nullptr ? codec.sample_fmts[0] : AV_SAMPLE_FMT_FLTP;
    }

    const AVCodec* encoder() const {
        const bool isDeep = form_.codec == Codec::wav && source_.bitDepth > 16;
        return avcodec_find_encoder_by_name(isDeep ? "pcm_s24le"
                                                   : encoders[static_cast<std::size_t>(form_.codec)]);
    }

    bool open() {
        const auto* codec = encoder();
        if (codec == nullptr || source_.channels < 1) {
            return false;
        }
        codec_.reset(avcodec_alloc_context3(codec));
        codec_->sample_rate = rateFor(*codec, source_.sampleRate);
        av_channel_layout_default(&codec_->ch_layout, std::min(source_.channels, form_.isLossless() ? 8 : 2));
        codec_->sample_fmt = formatFor(*codec);
        codec_->time_base = {1, codec_->sample_rate};
        codec_->bits_per_raw_sample = source_.bitDepth > 16 ? source_.bitDepth : 0;
        codec_->flags |= AV_CODEC_FLAG_BITEXACT;
        setQuality();
        AVFormatContext* format = nullptr;
        avformat_alloc_output_context2(&format, nullptr, containers[static_cast<std::size_t>(form_.codec)],
                                       nullptr);
        format_.reset(format);
        if (!format_) {
            return false;
        }
        if ((format_->oformat->flags & AVFMT_GLOBALHEADER) != 0) {
            codec_->flags |= AV_CODEC_FLAG_GLOBAL_HEADER;
        }
        constexpr int bufferLength = 65'536;
        output_.reset(avio_alloc_context(static_cast<std::uint8_t*>(av_malloc(bufferLength)), bufferLength, 1,
                                         &target_, nullptr, &writeTo, &seekIn));
        format_->pb = output_.get();
        format_->flags |= AVFMT_FLAG_BITEXACT;
        if (avcodec_open2(codec_.get(), codec, nullptr) < 0) {
            return false;
        }
        stream_ = avformat_new_stream(format_.get(), nullptr);
        stream_->time_base = codec_->time_base;
        if (avcodec_parameters_from_context(stream_->codecpar, codec_.get()) < 0 ||
            avformat_write_header(format_.get(), nullptr) < 0) {
            return false;
        }
        return openResampler();
    }

    void setQuality() {
        if (form_.bitrate > 0) {
            codec_->bit_rate = form_.bitrate;
        } else if (form_.codec == Codec::mp3 || form_.codec == Codec::vorbis) {
            codec_->flags |= AV_CODEC_FLAG_QSCALE;
            codec_->global_quality = static_cast<int>(FF_QP2LAMBDA * form_.quality);
        } else if (form_.codec == Codec::flac) {
            codec_->compression_level = static_cast<int>(form_.quality);
        }
    }

    bool openResampler() {
        AVChannelLayout from{};
        av_channel_layout_default(&from, source_.channels);
        SwrContext* context = nullptr;
        const auto input = isExact() ? AV_SAMPLE_FMT_S32 : AV_SAMPLE_FMT_FLTP;
        const int set =
            swr_alloc_set_opts2(&context, &codec_->ch_layout, codec_->sample_fmt, codec_->sample_rate, &from,
                                input, source_.sampleRate, 0, nullptr);
        resampler_.reset(context);
        fifo_.reset(av_audio_fifo_alloc(codec_->sample_fmt, codec_->ch_layout.nb_channels, 1));
        return set >= 0 && swr_init(context) >= 0 && fifo_ != nullptr;
    }

    /// Samples of a lossless codec stay as they are; all others go as floats.
    bool feed(const DecodedBlock& block, std::size_t first, int frames) {
        std::vector<const std::uint8_t*> planes;
        const auto channels = static_cast<std::size_t>(source_.channels);
        if (isExact()) {
            const auto samples =
                block.integers.subspan(first * channels, static_cast<std::size_t>(frames) * channels);
            exact_.resize(samples.size());
            const int shift = 32 - source_.bitDepth;
            std::ranges::transform(samples, exact_.begin(), [shift](std::int32_t sample) {
                return static_cast<std::int32_t>(static_cast<std::uint32_t>(sample) << shift);
            });
            planes.push_back(reinterpret_cast<const std::uint8_t*>(exact_.data()));
        } else {
            for (std::size_t i = 0; i < channels; ++i) {
                planes.push_back(reinterpret_cast<const std::uint8_t*>(block.channel(i).data() + first));
            }
        }
        return resample(planes.data(), frames) && encodeWhole(false);
    }

    bool resample(const std::uint8_t** planes, int frames) {
        const int most = swr_get_out_samples(resampler_.get(), frames);
        if (most <= 0) {
            return most == 0;
        }
        const OwnedFrame frame(frameOf(most));
        if (!frame) {
            return false;
        }
        const int got = swr_convert(resampler_.get(), frame->data, most, planes, frames);
        return got >= 0 && (got == 0 || av_audio_fifo_write(
                                            fifo_.get(), reinterpret_cast<void**>(frame->data), got) == got);
    }

    bool drainResampler() { return codec_->sample_rate == source_.sampleRate || resample(nullptr, 0); }

    AVFrame* frameOf(int samples) const {
        AVFrame* frame = av_frame_alloc();
        frame->format = codec_->sample_fmt;
        frame->nb_samples = samples;
        frame->sample_rate = codec_->sample_rate;
        av_channel_layout_copy(&frame->ch_layout, &codec_->ch_layout);
        if (av_frame_get_buffer(frame, 0) < 0) {
            av_frame_free(&frame);
        }
        return frame;
    }

    /// Frames of the encoder's length; at the end what is left, too.
    bool encodeWhole(bool isEnd) {
        const int length = codec_->frame_size > 0 ? codec_->frame_size : 4096;
        while (av_audio_fifo_size(fifo_.get()) >= (isEnd ? 1 : length)) {
            const OwnedFrame frame(frameOf(std::min(length, av_audio_fifo_size(fifo_.get()))));
            if (!frame || av_audio_fifo_read(fifo_.get(), reinterpret_cast<void**>(frame->data),
                                             frame->nb_samples) != frame->nb_samples) {
                return false;
            }
            frame->pts = next_;
            next_ += frame->nb_samples;
            if (!send(frame.get())) {
                return false;
            }
        }
        return true;
    }

    bool send(const AVFrame* frame) {
        if (avcodec_send_frame(codec_.get(), frame) < 0) {
            return false;
        }
        const OwnedPacket packet(av_packet_alloc());
        for (;;) {
            const int got = avcodec_receive_packet(codec_.get(), packet.get());
            if (got == AVERROR(EAGAIN) || got == AVERROR_EOF) {
                return true;
            }
            if (got < 0) {
                return false;
            }
            packet->stream_index = 0;
            av_packet_rescale_ts(packet.get(), codec_->time_base, stream_->time_base);
            if (av_interleaved_write_frame(format_.get(), packet.get()) < 0) {
                return false;
            }
        }
    }

    BytePath path_;
    EncodingForm form_;
    double begins_;
    double wanted_;
    encoding::EncodedTo target_;
    SampleFormat source_;
    std::int64_t skip_ = 0;
    std::int64_t left_ = 0;
    std::int64_t taken_ = 0;
    std::int64_t next_ = 0;
    bool failed_ = false;
    OwnedCodec codec_;
    std::unique_ptr<AVIOContext, encoding::FreeOutput> output_;
    std::unique_ptr<AVFormatContext, encoding::FreeFormat> format_;
    AVStream* stream_ = nullptr;
    std::unique_ptr<SwrContext, encoding::FreeResampler> resampler_;
    std::unique_ptr<AVAudioFifo, encoding::FreeFifo> fifo_;
    std::vector<std::int32_t> exact_;
};

EncodingSink::EncodingSink(const BytePath& path, const FileHandle& target, const EncodingForm& form,
                           double begins, double seconds)
    : state_(
          std::make_unique<State>(path, encoding::EncodedTo{target.get(), nullptr}, form, begins, seconds)) {}
EncodingSink::EncodingSink(const BytePath& path, std::string& bytes, const EncodingForm& form)
    : state_(std::make_unique<State>(path, encoding::EncodedTo{-1, &bytes}, form, 0, 0)) {}
EncodingSink::~EncodingSink() = default;

void EncodingSink::begin(const SampleFormat& format) {
    state_->begin(format);
}

void EncodingSink::take(const DecodedBlock& block) {
    state_->take(block);
}

Outcome EncodingSink::finish() {
    return state_->finish();
}

double EncodingSink::seconds() const {
    return state_->seconds();
}

} // namespace sober
