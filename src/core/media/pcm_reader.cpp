#include "core/media/pcm_reader.h"

#include "core/base/text.h"
#include "core/media/av_input.h"
#include "core/media/av_owned.h"
#include "core/media/frame_converter.h"

#include <algorithm>
#include <cmath>
#include <optional>

namespace sober {

namespace {

class OwnedFile final : public ByteSource {
  public:
    OwnedFile(FileHandle file, const BytePath& path, std::uint64_t size)
        : file_(std::move(file)), source_(file_, path, size) {}
    std::uint64_t size() const override { return source_.size(); }
    std::int64_t readAt(std::uint64_t offset, std::span<std::uint8_t> into) override {
        return source_.readAt(offset, into);
    }

  private:
    FileHandle file_;
    OpenFileSource source_;
};

} // namespace

struct PcmReader::State {
    explicit State(std::unique_ptr<ByteSource> opened) : bytes(std::move(opened)), input(*bytes) {}

    bool openStream() {
        if (!input.open()) {
            return false;
        }
        stream = input.audio();
        if (stream == nullptr || stream->codecpar->sample_rate <= 0) {
            avformat_find_stream_info(input.format(), nullptr);
            stream = input.audio();
        }
        const AVCodec* decoder =
            stream != nullptr ? avcodec_find_decoder(stream->codecpar->codec_id) : nullptr;
        if (decoder == nullptr) {
            return false;
        }
        for (unsigned i = 0; i < input.format()->nb_streams; ++i) {
            if (static_cast<int>(i) != stream->index) {
                input.format()->streams[i]->discard = AVDISCARD_ALL;
            }
        }
        codec.reset(avcodec_alloc_context3(decoder));
        avcodec_parameters_to_context(codec.get(), stream->codecpar);
        codec->pkt_timebase = stream->time_base;
        codec->thread_count = 1;
        return avcodec_open2(codec.get(), decoder, nullptr) >= 0;
    }

    /// The next decoded frame in `frame`; false at the end.
    bool nextFrame() {
        while (true) {
            const int got = avcodec_receive_frame(codec.get(), frame.get());
            if (got == 0) {
                return true;
            }
            if (got == AVERROR_EOF || ended) {
                return false;
            }
            const int packetGot = av_read_frame(input.format(), packet.get());
            if (packetGot < 0) {
                avcodec_send_packet(codec.get(), nullptr);
                ended = true;
                continue;
            }
            if (packet->stream_index == stream->index) {
                avcodec_send_packet(codec.get(), packet.get());
            }
            av_packet_unref(packet.get());
        }
    }

    bool convertFrame() {
        waiting.clear();
        used = 0;
        return converter && converter->convert(*frame, [&](const AVFrame& stereo) {
            const auto* samples = reinterpret_cast<const std::int16_t*>(stereo.extended_data[0]);
            waiting.insert(waiting.end(), samples,
                           samples + 2 * static_cast<std::ptrdiff_t>(stereo.nb_samples));
        });
    }

    /// Leaves out what a seek met before the place that was asked for.
    void dropBeforeTarget() {
        if (dropUntil < 0) {
            return;
        }
        const auto stamp = frame->best_effort_timestamp;
        const double starts = stamp != AV_NOPTS_VALUE
                                  ? static_cast<double>(stamp) * av_q2d(stream->time_base) - beginning()
                                  : dropUntil;
        const auto skip = static_cast<std::int64_t>(std::llround((dropUntil - starts) * rate));
        used = static_cast<std::size_t>(
                   std::clamp<std::int64_t>(skip, 0, static_cast<std::int64_t>(waiting.size() / 2))) *
               2;
        if (used < waiting.size()) {
            dropUntil = -1;
        }
    }

    double beginning() const {
        return stream->start_time != AV_NOPTS_VALUE
                   ? static_cast<double>(stream->start_time) * av_q2d(stream->time_base)
                   : 0;
    }

    std::unique_ptr<ByteSource> bytes;
    AvInput input;
    AVStream* stream = nullptr;
    OwnedCodec codec;
    OwnedPacket packet{av_packet_alloc()};
    OwnedFrame frame{av_frame_alloc()};
    std::optional<FrameConverter> converter;
    int rate = 0;
    bool ended = false;
    double dropUntil = -1; ///< seconds; negative where nothing is left out
    std::vector<std::int16_t> waiting;
    std::size_t used = 0;
};

PcmReader::PcmReader(std::unique_ptr<State> state) : state_(std::move(state)) {}
PcmReader::~PcmReader() = default;
PcmReader::PcmReader(PcmReader&&) noexcept = default;
PcmReader& PcmReader::operator=(PcmReader&&) noexcept = default;

Result<PcmReader> PcmReader::open(const BytePath& path, int rate) {
    auto file = openForReading(path);
    return file ? open(std::move(*file), path, rate) : Result<PcmReader>(file.error());
}

Result<PcmReader> PcmReader::open(FileHandle file, const BytePath& path, int rate) {
    const auto stamp = stampOf(file, path);
    return stamp ? open(std::make_unique<OwnedFile>(std::move(file), path, stamp->size), path, rate)
                 : Result<PcmReader>(stamp.error());
}

Result<PcmReader> PcmReader::open(std::unique_ptr<ByteSource> bytes, const BytePath& path, int rate) {
    auto state = std::make_unique<State>(std::move(bytes));
    if (!state->openStream()) {
        return Error{Cause::unreadable, path,
                     displayPath(path) + " cannot be played: it holds no audio that can be decoded."};
    }
    state->rate = rate > 0 ? rate : state->stream->codecpar->sample_rate;
    state->converter.emplace(AV_SAMPLE_FMT_S16, 2, state->rate);
    return PcmReader(std::move(state));
}

int PcmReader::rate() const {
    return state_->rate;
}

double PcmReader::seconds() const {
    const auto* stream = state_->stream;
    if (stream->duration > 0) {
        return static_cast<double>(stream->duration) * av_q2d(stream->time_base);
    }
    const auto whole = state_->input.format()->duration;
    return whole > 0 ? static_cast<double>(whole) / AV_TIME_BASE : 0;
}

std::size_t PcmReader::read(std::span<std::int16_t> stereo) {
    std::size_t filled = 0;
    while (filled < stereo.size()) {
        if (state_->used == state_->waiting.size()) {
            if (!state_->nextFrame()) {
                break;
            }
            const bool made = state_->convertFrame();
            if (made) {
                state_->dropBeforeTarget();
            }
            av_frame_unref(state_->frame.get());
            if (!made) {
                break;
            }
            continue;
        }
        const std::size_t now = std::min(stereo.size() - filled, state_->waiting.size() - state_->used);
        std::copy_n(state_->waiting.begin() + static_cast<std::ptrdiff_t>(state_->used), now,
                    stereo.begin() + static_cast<std::ptrdiff_t>(filled));
        state_->used += now;
        filled += now;
    }
    return filled / 2;
}

/// Seconds decoded and dropped before a place, so that a frame that leans on those before it is whole: Layer
/// III's reservoir reaches back 511 bytes (ISO/IEC 11172-3, 2.4.3.4), Opus asks for 80 ms (RFC 7845, 4.6).
constexpr double leadIn = 0.25;

void PcmReader::seek(double seconds) {
    auto& state = *state_;
    const double place = std::max(0.0, seconds - leadIn) + state.beginning();
    const auto stamp = static_cast<std::int64_t>(place / av_q2d(state.stream->time_base));
    av_seek_frame(state.input.format(), state.stream->index, stamp, AVSEEK_FLAG_BACKWARD);
    avcodec_flush_buffers(state.codec.get());
    state.converter->reset();
    state.waiting.clear();
    state.used = 0;
    state.ended = false;
    state.dropUntil = std::max(0.0, seconds);
}

} // namespace sober
