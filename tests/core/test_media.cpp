#include "core/media/mpeg_frame.h"
#include "core/media/probe.h"
#include "core/media/sniff.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <array>
#include <cmath>

using namespace sober;
using namespace sober::test;

namespace {

std::span<const std::uint8_t> bytesOf(const std::string& text) {
    return {reinterpret_cast<const std::uint8_t*>(text.data()), text.size()};
}

Result<Probed> probeFile(const BytePath& path) {
    const auto file = openForReading(path);
    REQUIRE(file.ok());
    OpenFileSource source(*file, path, stampOf(*file, path)->size);
    return probe(source, path);
}

/// Makes a file with the ffmpeg tool: two seconds of noise in a format.
void makeNoise(const BytePath& path, std::vector<std::string> options) {
    std::vector<std::string> words{"ffmpeg", "-nostdin", "-loglevel",
                                   "error",  "-y",       "-f",
                                   "lavfi",  "-i",       "anoisesrc=duration=2:sample_rate=44100:seed=7"};
    words.insert(words.end(), options.begin(), options.end());
    words.push_back(path);
    const auto made = run(words);
    INFO(made.err);
    REQUIRE(made.code == 0);
}

std::string ffprobe(const BytePath& path, const std::string& entry) {
    auto out = run({"ffprobe", "-v", "error", "-select_streams", "a:0", "-show_entries", entry, "-of",
                    "csv=p=0", path})
                   .out;
    return out.substr(0, out.find_first_of("\n,"));
}

} // namespace

// ISO/IEC 11172-3:1993 section 2.4.2.3: bitrate_index by layer, and sampling_frequency.
TEST_CASE("MPEG-1 audio headers follow the standard's tables") {
    constexpr std::array<std::array<int, 14>, 3> kbps{
        {{32, 64, 96, 128, 160, 192, 224, 256, 288, 320, 352, 384, 416, 448},
         {32, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320, 384},
         {32, 40, 48, 56, 64, 80, 96, 112, 128, 160, 192, 224, 256, 320}}};
    constexpr std::array<int, 3> rates{44100, 48000, 32000};
    for (int layer = 1; layer <= 3; ++layer) {
        for (int index = 1; index <= 14; ++index) {
            for (int rate = 0; rate < 3; ++rate) {
                const std::array<std::uint8_t, 4> header{
                    0xFF, static_cast<std::uint8_t>(0xF8 | (4 - layer) << 1 | 1),
                    static_cast<std::uint8_t>(index << 4 | rate << 2), 0x00};
                const auto frame = readMpegFrame(header);
                REQUIRE(frame.has_value());
                const int bitrate =
                    kbps[static_cast<std::size_t>(layer - 1)][static_cast<std::size_t>(index - 1)] * 1000;
                CHECK(frame->version == 1);
                CHECK(frame->layer == layer);
                CHECK(frame->bitrate == bitrate);
                CHECK(frame->sampleRate == rates[static_cast<std::size_t>(rate)]);
                // Section 2.4.3.1: slots of 4 bytes in layer I, of 1 byte in II and III.
                const int expected =
                    layer == 1 ? 12 * bitrate / frame->sampleRate * 4 : 144 * bitrate / frame->sampleRate;
                CHECK(frame->bytes == static_cast<std::size_t>(expected));
            }
        }
    }
}

// ISO/IEC 13818-3:1998 section 2.4.2.3: lower sampling frequencies.
TEST_CASE("MPEG-2 audio headers follow the standard's tables") {
    const auto [second, third, bitrate, rate, samples] = GENERATE(table<int, int, int, int, int>({
        {0xF3, 0x10, 8000, 22050, 576},
        {0xF3, 0xE4, 160000, 24000, 576},
        {0xF5, 0x88, 64000, 16000, 1152},
        {0xF7, 0xE0, 256000, 22050, 384},
        {0xE3, 0x80, 64000, 11025, 576},
    }));
    const std::array<std::uint8_t, 4> header{0xFF, static_cast<std::uint8_t>(second),
                                             static_cast<std::uint8_t>(third), 0xC0};
    const auto frame = readMpegFrame(header);
    REQUIRE(frame.has_value());
    CHECK(frame->bitrate == bitrate);
    CHECK(frame->sampleRate == rate);
    CHECK(frame->samples == samples);
    CHECK(frame->channels == 1);
}

TEST_CASE("reserved MPEG header values are no header") {
    const auto [second, third, fourth] = GENERATE(table<int, int, int>({{0xEB, 0x90, 0x00},
                                                                        {0xF9, 0x90, 0x00},
                                                                        {0xFB, 0xF0, 0x00},
                                                                        {0xFB, 0x9C, 0x00},
                                                                        {0xFB, 0x90, 0x02},
                                                                        {0x1B, 0x90, 0x00}}));
    const std::array<std::uint8_t, 4> header{0xFF, static_cast<std::uint8_t>(second),
                                             static_cast<std::uint8_t>(third),
                                             static_cast<std::uint8_t>(fourth)};
    CHECK_FALSE(readMpegFrame(header).has_value());
}

TEST_CASE("audio is recognised by content, whatever it is called") {
    CHECK(sniff(bytesOf(smallWav(1))) == Sniffed::audio);
    CHECK(sniff(bytesOf(std::string())) == Sniffed::notAudio);
    CHECK(sniff(bytesOf(std::string("Sir, the fog signal was heard again on Tuesday.\n"))) ==
          Sniffed::notAudio);
    CHECK(sniff(bytesOf(std::string("\x89PNG\r\n\x1a\n"))) == Sniffed::notAudio);
    CHECK(sniff(bytesOf(std::string("%PDF-1.7"))) == Sniffed::notAudio);
    CHECK(sniff(bytesOf(std::string(70'000, '\0'))) == Sniffed::notAudio);
    CHECK(sniff(bytesOf(std::string(70'000, '\xFF'))) == Sniffed::notAudio);
}

TEST_CASE("claims agree with what the ffprobe tool reads") {
    struct Format {
        std::string name, container, codec;
        bool lossless;
        int bitDepth;
        std::vector<std::string> options;
    };
    const auto format =
        GENERATE(values<Format>({{"a.wav", "wav", "pcm", true, 16, {}},
                                 {"b.wav", "wav", "pcm", true, 24, {"-c:a", "pcm_s24le"}},
                                 {"a.flac", "flac", "flac", true, 16, {"-sample_fmt", "s16"}},
                                 {"a.mp3", "mp3", "mp3", false, 0, {"-b:a", "128k"}},
                                 {"v.mp3", "mp3", "mp3", false, 0, {"-q:a", "4"}},
                                 {"a.m4a", "mp4", "aac", false, 0, {"-b:a", "96k", "-aac_coder", "fast"}},
                                 {"l.m4a", "mp4", "alac", true, 16, {"-c:a", "alac", "-sample_fmt", "s16p"}},
                                 {"a.ogg", "ogg", "vorbis", false, 0, {"-c:a", "libvorbis"}},
                                 {"a.opus", "ogg", "opus", false, 0, {"-b:a", "64k"}},
                                 {"a.aiff", "aiff", "pcm", true, 16, {"-write_id3v2", "1"}},
                                 {"a.wv", "wavpack", "wavpack", true, 16, {"-sample_fmt", "s16p"}}}));
    const TempFolder folder;
    const BytePath path = folder / format.name;
    auto options = format.options;
    options.insert(options.end(),
                   {"-metadata", "title=Slipway \xC3\xA9", "-metadata", "artist=Choral Union"});
    makeNoise(path, options);
    CAPTURE(format.name);
    CHECK(sniff(bytesOf(readFile(path).substr(0, sniffLength))) == Sniffed::audio);
    const auto probed = probeFile(path);
    REQUIRE(probed.ok());
    CHECK(probed->claims.container == format.container);
    CHECK(probed->claims.codec == format.codec);
    CHECK(probed->claims.lossless == format.lossless);
    CHECK(probed->claims.bitDepth == format.bitDepth);
    CHECK(probed->claims.sampleRate == std::stoi(ffprobe(path, "stream=sample_rate")));
    CHECK(probed->claims.channels == std::stoi(ffprobe(path, "stream=channels")));
    CHECK(probed->claims.duration == Approx(std::stod(ffprobe(path, "format=duration"))).margin(0.06));
    CHECK(probed->tags.title == "Slipway \xC3\xA9");
    CHECK(probed->tags.artist == "Choral Union");
}

TEST_CASE("moving pictures are no audio, a cover picture does not matter") {
    const TempFolder folder;
    REQUIRE(
        run({"ffmpeg", "-nostdin", "-loglevel", "error", "-f", "lavfi", "-i", "testsrc=duration=1:size=64x64",
             "-f", "lavfi", "-i", "sine=duration=1", "-c:v", "mpeg4", "-c:a", "aac", folder / "film.mp4"})
            .code == 0);
    const auto film = probeFile(folder / "film.mp4");
    REQUIRE_FALSE(film.ok());
    CHECK(film.error().cause == Cause::notAudio);
    REQUIRE(run({"ffmpeg", "-nostdin", "-loglevel", "error", "-f", "lavfi", "-i",
                 "testsrc=duration=0.04:size=64x64", folder / "cover.png"})
                .code == 0);
    REQUIRE(run({"ffmpeg",
                 "-nostdin",
                 "-loglevel",
                 "error",
                 "-f",
                 "lavfi",
                 "-i",
                 "sine=duration=1",
                 "-i",
                 folder / "cover.png",
                 "-map",
                 "1",
                 "-map",
                 "0",
                 "-c:v",
                 "copy",
                 "-disposition:v",
                 "attached_pic",
                 "-c:a",
                 "libmp3lame",
                 folder / "cover.mp3"})
                .code == 0);
    const auto cover = probeFile(folder / "cover.mp3");
    REQUIRE(cover.ok());
    CHECK(cover->claims.codec == "mp3");
}

TEST_CASE("the bytes of one pass serve a parser from memory, whatever the size") {
    const TempFolder folder;
    const auto limit = PassedOverSource::endLimit;
    for (const std::uint64_t size :
         {std::uint64_t{1000}, limit, limit + 1, 2 * limit, 2 * limit + 12345, 5 * limit}) {
        std::string content(size, '\0');
        for (std::size_t i = 0; i < content.size(); ++i) {
            content[i] = static_cast<char>(i * 31 + (i >> 12));
        }
        writeFile(folder / "f", content);
        const auto file = openForReading(folder / "f");
        PassedOverSource source(*file, folder / "f", size);
        for (std::uint64_t at = 0; at < size; at += 100'000) {
            const auto length = static_cast<std::size_t>(std::min<std::uint64_t>(100'000, size - at));
            source.take(at, {reinterpret_cast<const std::uint8_t*>(content.data()) + at, length});
        }
        for (const std::uint64_t at :
             {std::uint64_t{0}, size / 2, limit < size ? limit - 30 : 0, size - 100}) {
            std::array<std::uint8_t, 64> got{};
            const auto expected = std::min<std::uint64_t>(64, size - at);
            REQUIRE(source.readAt(at, got) == static_cast<std::int64_t>(expected));
            CHECK(std::equal(got.begin(), got.begin() + static_cast<std::ptrdiff_t>(expected),
                             content.begin() + static_cast<std::ptrdiff_t>(at),
                             [](std::uint8_t a, char b) { return a == static_cast<std::uint8_t>(b); }));
        }
    }
}
