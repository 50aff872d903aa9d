// Decodes that were played a little faster or slower since: FFmpeg's own resampler makes them of encodes of
// real recordings of Debian's sonic-pi-samples.
#include "core/evidence/sinc_resampling.h"
#include "core/evidence/speed_change.h"
#include "support/examined.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

using namespace sober;
using namespace sober::test;

namespace {

constexpr double pi = std::numbers::pi;

/// Half a minute of real drums, whose encodes show in every segment.
void writeDrums(const BytePath& path) {
    ffmpeg(
        {"-i", realSample("loop_safari"), "-i", realSample("loop_garzul"), "-filter_complex",
         "[0]aformat=channel_layouts=stereo[a];[1]aformat=channel_layouts=stereo[b];[a][b]concat=n=2:v=0:a=1,"
         "volume=-1dB",
         "-ar", "44100", path});
}

/// Tones of one period and all their harmonics below a wall at 16 kHz, for as long as a recording.
std::vector<TraceSegment> steadyTones(double period) {
    constexpr std::size_t length = traceBlock * traceBlocks;
    std::vector<TraceSegment> segments;
    for (int part = 0; part < 8; ++part) {
        TraceSegment segment;
        segment.start = part * 100'000;
        segment.left.resize(length);
        for (int harmonic = 1; harmonic * 44'100 / period < 16'000; ++harmonic) {
            const double angle = 2 * pi * harmonic / period;
            const double size = 3000.0 / harmonic * (1 + (harmonic * (part + 3)) % 5);
            for (std::size_t i = 0; i < length; ++i) {
                segment.left[i] += static_cast<float>(
                    size *
                    std::sin(angle * static_cast<double>(segment.start + static_cast<int>(i)) + harmonic));
            }
        }
        segment.right = segment.left;
        segments.push_back(std::move(segment));
    }
    return segments;
}

} // namespace

TEST_CASE("an encode is found though its decode was played at another speed since") {
    struct Played {
        std::vector<std::string> encoder;
        std::string ending, rate, codec, sentence;
        double speed;
    };
    const auto played = GENERATE(
        Played{{"-c:a", "libmp3lame", "-b:a", "128k"},
               "mp3",
               "44144",
               "mp3",
               "runs about 0.1",
               44'144.0 / 44'100},
        Played{{"-c:a", "libmp3lame", "-b:a", "192k"},
               "mp3",
               "43946",
               "mp3",
               "runs about 0.3",
               43'946.0 / 44'100},
        Played{{"-c:a", "aac", "-b:a", "128k"}, "m4a", "44204", "aac", "runs about 0.2", 44'204.0 / 44'100});
    if (played.speed < 1 && !longForm()) {
        return;
    }
    CAPTURE(played.codec, played.speed);
    const TempFolder folder;
    writeDrums(folder / "in.wav");
    const BytePath encoded = folder / ("in." + played.ending);
    std::vector<std::string> words{"-i", folder / "in.wav"};
    words.insert(words.end(), played.encoder.begin(), played.encoder.end());
    words.push_back(encoded);
    ffmpeg(words);
    ffmpeg({"-i", encoded, "-af", "asetrate=" + played.rate + ",aresample=44100", "-sample_fmt", "s16",
            folder / "out.flac"});
    const auto evidence = examined(folder / "out.flac");
    REQUIRE(evidence.ok());
    CHECK(evidence->verdict.verdict == VerdictClass::transcoded);
    CHECK(evidence->verdict.sourceCodec == played.codec);
    REQUIRE(evidence->trace.last);
    CHECK(evidence->trace.last->speed == Approx(played.speed).margin(2e-4));
    REQUIRE_FALSE(evidence->verdict.reasons.empty());
    CHECK(evidence->verdict.reasons.back().find(played.sentence) != std::string::npos);
}

TEST_CASE("a wall that no encoder made is found at no speed") {
    const TempFolder folder;
    writeDrums(folder / "in.wav");
    ffmpeg({"-i", folder / "in.wav", "-filter_complex",
            "sinc=r=44100:lp=16800:att=100:lptaps=401[ir];[0][ir]afir", "-sample_fmt", "s16",
            folder / "wall.flac"});
    const auto evidence = examined(folder / "wall.flac");
    REQUIRE(evidence.ok());
    CHECK(evidence->bandwidth->brickwall);
    CHECK(evidence->verdict.verdict == VerdictClass::doubtful);
    CHECK_FALSE(evidence->trace.last);
}

TEST_CASE("tones whose period is a multiple of a grid's at another speed are no encode") {
    const double period = GENERATE(64 * 1.002, 64.0, 128 / 1.0031);
    if (period != 64 * 1.002 && !longForm()) {
        return;
    }
    CAPTURE(period);
    CHECK_FALSE(findGridAtOtherSpeed(steadyTones(period)));
    CHECK_FALSE(findGridAtOtherSpeed({}));
}

TEST_CASE("a sine at another rate is that sine") {
    const double rate = GENERATE(48'000.0, 44'056.0, 44'188.0, 40'000.0);
    const double hertz = GENERATE(997.0, 15'000.0);
    std::vector<float> samples(4000);
    for (std::size_t i = 0; i < samples.size(); ++i) {
        samples[i] = static_cast<float>(std::sin(2 * pi * hertz / 44'100 * static_cast<double>(i)));
    }
    constexpr double shift = 100.25;
    const auto made = SincResampling(44'100, rate)(samples, shift);
    const auto expected = static_cast<std::size_t>((4000 - 32 - shift) * rate / 44'100);
    REQUIRE(made.size() >= expected - 1);
    REQUIRE(made.size() <= expected + 1);
    double worst = 0;
    for (std::size_t i = 0; i < made.size(); ++i) {
        const double at = shift / 44'100 + static_cast<double>(i) / rate;
        worst = std::max(worst, std::abs(static_cast<double>(made[i]) - std::sin(2 * pi * hertz * at)));
    }
    CHECK(worst < 2e-3);
}
