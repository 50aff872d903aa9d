#include "core/media/encode.h"

#include "core/media/decode.h"
#include "core/media/encoding_sink.h"
#include "core/media/loudest_stretch.h"

#include <algorithm>
#include <cmath>

namespace sober {
namespace {

/// The energy of each second, and how long it is in all.
class Loudness : public SampleSink {
  public:
    void begin(const SampleFormat& format) override { rate_ = std::max(format.sampleRate, 1); }
    void take(const DecodedBlock& block) override {
        for (std::size_t i = 0; i < block.frames; ++i, ++frames_) {
            const auto second = static_cast<std::size_t>(frames_ / rate_);
            if (second >= energy_.size()) {
                energy_.push_back(0);
            }
            for (std::size_t channel = 0; channel * block.frames < block.floats.size(); ++channel) {
                const double sample = block.floats[channel * block.frames + i];
                energy_[second] += sample * sample;
            }
        }
    }
    double seconds() const { return static_cast<double>(frames_) / rate_; }
    /// Where the loudest stretch of so many seconds begins.
    double loudest(double length) const {
        LoudestStretch stretch(static_cast<std::size_t>(std::max(1.0, std::ceil(length))));
        for (const auto energy : energy_) {
            stretch.take(energy);
        }
        return std::min(static_cast<double>(stretch.begins()), std::max(0.0, seconds() - length));
    }

  private:
    int rate_ = 1;
    std::int64_t frames_ = 0;
    std::vector<double> energy_;
};

} // namespace

Result<Encoded> encodeAudio(ByteSource& source, const BytePath& path, const FileHandle& target,
                            const EncodingForm& form, RunControl& control) {
    Encoded encoded;
    double length = form.seconds;
    if (form.isExcerpt()) {
        Loudness loudness;
        const auto heard = decodeAudio(source, path, loudness, control);
        RETURN_IF_FAILED(heard);
        length =
            form.share > 0 ? loudness.seconds() * form.share : std::min(form.seconds, loudness.seconds());
        encoded.begins = form.loudest ? loudness.loudest(length) : 0;
    }
    EncodingSink encoding(path, target, form, encoded.begins, length);
    const auto decoded = decodeAudio(source, path, encoding, control);
    RETURN_IF_FAILED(decoded);
    RETURN_IF_FAILED(encoding.finish());
    encoded.seconds = encoding.seconds();
    return encoded;
}

} // namespace sober
