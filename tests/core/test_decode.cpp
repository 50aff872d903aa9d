#include "core/base/text.h"
#include "support/examined.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>
#include <sys/resource.h>

#include <cmath>
#include <filesystem>
#include <fstream>
#include <random>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

std::string firstLine(const std::string& text) {
    return text.substr(0, text.find('\n'));
}

/// Frames as the ffprobe tool counts them after decoding.
std::int64_t framesByTool(const BytePath& path) {
    const auto out = run({"ffmpeg", "-nostdin", "-loglevel", "error", "-i", path, "-map", "0:a", "-f",
                          "s16le", "-ac", "1", "-"})
                         .out;
    return static_cast<std::int64_t>(out.size() / 2);
}

} // namespace

// RFC 9639 section 8.2 defines the MD5 of the samples; metaflac prints what the encoder stored, and
// ffmpeg's md5 muxer computes it from its own decode.
TEST_CASE("the MD5 of decoded samples agrees with metaflac and ffmpeg") {
    const TempFolder folder;
    const auto [depth, format] =
        GENERATE(table<std::string, std::string>({{"s16", "s16"}, {"s32", "s24le"}}));
    writeMusic(folder / "in.wav", 3, 3);
    ffmpeg({"-i", folder / "in.wav", "-af", "volume=-0.7dB", "-sample_fmt", depth, "-bits_per_raw_sample",
            depth == "s32" ? "24" : "16", folder / "a.flac"});
    const auto examination = examined(folder / "a.flac");
    REQUIRE(examination.ok());
    REQUIRE(examination->samplesMd5.has_value());
    const auto ours = toHex(*examination->samplesMd5);
    CHECK(ours == firstLine(run({"metaflac", "--show-md5sum", folder / "a.flac"}).out));
    if (depth == "s16") {
        const auto tool =
            run({"ffmpeg", "-nostdin", "-loglevel", "error", "-i", folder / "a.flac", "-f", "md5", "-"}).out;
        CHECK("MD5=" + ours == firstLine(tool));
    }
    // The same samples in another lossless codec.
    ffmpeg({"-i", folder / "a.flac", "-c:a", depth == "s32" ? "pcm_s24le" : "pcm_s16le", folder / "b.wav"});
    CHECK(toHex(*examined(folder / "b.wav")->samplesMd5) == ours);
    ffmpeg({"-i", folder / "a.flac", "-c:a", "alac", folder / "c.m4a"});
    CHECK(toHex(*examined(folder / "c.m4a")->samplesMd5) == ours);
    CHECK(examination->sound());
}

TEST_CASE("decoded lengths agree with ffmpeg's for every codec") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 4, 3.3);
    const auto [name, options] = GENERATE(table<std::string, std::vector<std::string>>({
        {"a.flac", {}},
        {"a.mp3", {"-b:a", "128k"}},
        {"a.m4a", {"-c:a", "aac", "-aac_coder", "fast"}},
        {"a.ogg", {"-c:a", "libvorbis"}},
        {"a.opus", {"-b:a", "96k"}},
        {"a.aiff", {}},
        {"a.wv", {}},
    }));
    std::vector<std::string> words{"-i", folder / "in.wav"};
    words.insert(words.end(), options.begin(), options.end());
    words.push_back(folder / name);
    ffmpeg(words);
    const auto record = recordOf(folder / name);
    CAPTURE(name);
    REQUIRE(record.ok());
    const auto& evidence = *record->evidence;
    CHECK(std::lround(evidence.seconds * record->claims.sampleRate) == framesByTool(folder / name));
    CHECK(evidence.sound());
    CHECK(record->checksums.file.hex() == run({"xxhsum", "-H2", folder / name}).out.substr(0, 32));
    CHECK(toHex(*record->checksums.sha256) == run({"sha256sum", folder / name}).out.substr(0, 64));
}

TEST_CASE("what is cut or damaged is told, with its kind and place") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 5, 6);
    ffmpeg({"-i", folder / "in.wav", folder / "a.flac"});
    ffmpeg({"-i", folder / "in.wav", "-b:a", "192k", folder / "a.mp3"});
    std::string kind;
    BytePath path;
    double from = 0;
    double to = 6.2;
    SECTION("FLAC cut in half") {
        path = folder / "a.flac";
        fs::resize_file(path, fs::file_size(path) / 2);
        kind = "truncated";
        from = 1;
        to = 5;
    }
    SECTION("WAV cut in half") {
        path = folder / "in.wav";
        fs::resize_file(path, fs::file_size(path) / 2);
        kind = "truncated";
        from = 2.5;
        to = 3.5;
    }
    SECTION("MP3 with a stated length, cut") {
        path = folder / "a.mp3";
        fs::resize_file(path, fs::file_size(path) * 2 / 3);
        kind = "truncated";
        from = 3.5;
        to = 4.5;
    }
    SECTION("one bit of a FLAC frame flipped") {
        path = folder / "a.flac";
        std::string content = readFile(path);
        content[content.size() / 2] = static_cast<char>(content[content.size() / 2] ^ 4);
        writeFile(path, content);
        kind = "damaged";
        from = 1;
        to = 5;
    }
    SECTION("the samples' MD5 in a FLAC file is another's") {
        path = folder / "a.flac";
        std::string content = readFile(path);
        content[30] = static_cast<char>(content[30] ^ 1); // STREAMINFO's MD5 stands at bytes 26 to 41
        writeFile(path, content);
        kind = "checksum-mismatch";
    }
    const auto examination = examined(path);
    REQUIRE(examination.ok());
    CHECK_FALSE(examination->sound());
    const auto& problems = examination->problems;
    const auto found = std::ranges::find(problems, kind, &DecodeProblem::kind);
    REQUIRE(found != problems.end());
    CHECK(found->at >= from);
    CHECK(found->at <= to);
    CHECK_FALSE(found->detail.empty());
}

TEST_CASE("odd files each get a sentence or a modest answer, never an end") {
    const TempFolder folder;
    const auto tone = [&](const std::string& name, const std::string& source,
                          std::vector<std::string> options) {
        std::vector<std::string> words{"-f", "lavfi", "-i", source};
        words.insert(words.end(), options.begin(), options.end());
        words.push_back(folder / name);
        ffmpeg(words);
    };
    tone("phone.wav", "anoisesrc=duration=3:sample_rate=8000", {"-ac", "1"});
    tone("wide.flac", "anoisesrc=duration=3:sample_rate=192000", {"-ac", "8"});
    tone("silence.wav", "anullsrc=sample_rate=44100", {"-t", "4"});
    tone("one.wav", "anullsrc=sample_rate=44100", {"-af", "atrim=end_sample=1"});
    CHECK(recordOf(folder / "phone.wav")->claims.sampleRate == 8000);
    CHECK(recordOf(folder / "wide.flac")->claims.channels == 8);
    CHECK(examined(folder / "silence.wav")->verdict.verdict == VerdictClass::undetermined);
    CHECK(examined(folder / "one.wav")->verdict.verdict == VerdictClass::undetermined);

    writeFile(folder / "empty.mp3", "");
    writeFile(folder / "text.flac", "no sound");
    std::string noise = "fLaC";
    std::mt19937 random(9);
    while (noise.size() < 50'000) {
        noise.push_back(static_cast<char>(random()));
    }
    writeFile(folder / "noise.flac", noise);
    for (const auto* name : {"empty.mp3", "text.flac", "noise.flac", "none.wav"}) {
        const auto examination = examined(folder / name);
        REQUIRE_FALSE(examination.ok());
        CHECK(examination.error().sentence.ends_with("."));
    }
}

TEST_CASE("files mutated anywhere are examined or refused, and the next one works") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 6, 2);
    for (const auto* name : {"a.flac", "a.mp3", "a.ogg", "a.opus", "a.m4a"}) {
        ffmpeg({"-i", folder / "in.wav", folder / name});
        const std::string whole = readFile(folder / name);
        std::mt19937 random(11);
        for (int round = 0; round < 12; ++round) {
            std::string content = whole;
            for (unsigned change = 0; change < 1 + random() % 30; ++change) {
                content[random() % content.size()] = static_cast<char>(random());
            }
            if (round % 3 == 0) {
                content.resize(random() % content.size());
            }
            writeFile(folder / "mutant", content);
            const auto examination = examined(folder / "mutant");
            CHECK((examination.ok() || !examination.error().sentence.empty()));
        }
        CHECK(examined(folder / name).ok());
    }
}

// Tags written by an independent tool (metaflac) and streams copied by ffmpeg leave the packets as they were.
TEST_CASE("the payload's checksum outlives other tags and containers, and nothing else") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 9, 3);
    ffmpeg({"-i", folder / "in.wav", "-metadata", "title=One", folder / "a.flac"});
    const auto original = *recordOf(folder / "a.flac");
    const auto& before = *original.evidence;
    REQUIRE(run({"metaflac", "--remove-tag=TITLE", "--set-tag=TITLE=Quite another title",
                 "--set-tag=ARTIST=Somebody", folder / "a.flac"})
                .code == 0);
    const auto retagged = *recordOf(folder / "a.flac");
    CHECK(retagged.tags.title == "Quite another title");
    CHECK(retagged.evidence->payload == before.payload);
    CHECK(retagged.checksums.file != original.checksums.file);
    CHECK(retagged.evidence->samplesMd5 == before.samplesMd5);
    ffmpeg({"-i", folder / "a.flac", "-c", "copy", folder / "a.oga"});
    CHECK(examined(folder / "a.oga")->payload == before.payload);

    for (const auto* name : {"b.mp3", "b.m4a", "b.ogg"}) {
        const BytePath first = folder / name;
        const BytePath second = folder / ("copy " + std::string(name));
        ffmpeg({"-i", folder / "in.wav", first});
        ffmpeg({"-i", first, "-c", "copy", "-metadata", "title=Another", "-metadata",
                "comment=" + std::string(3000, 'x'), second});
        CAPTURE(name);
        CHECK(examined(second)->payload == examined(first)->payload);
        ffmpeg({"-i", folder / "in.wav", "-af", "volume=-0.5dB", second});
        CHECK(examined(second)->payload != examined(first)->payload);
    }
}

TEST_CASE("an examination can be cancelled") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 7, 3);
    RunControl control;
    control.cancel();
    const auto examination = examineFile(folder / "in.wav", control, [](std::uint64_t) {});
    REQUIRE_FALSE(examination.ok());
    CHECK(examination.error().cause == Cause::interrupted);
}

TEST_CASE("containers that mislead are examined by what they hold") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 8, 4);
    const auto plain = [&](const BytePath& path) {
        const auto record = recordOf(path);
        INFO(path << (record ? record->problem : record.error().sentence));
        REQUIRE(record.ok());
        REQUIRE(record->evidence);
        CHECK(record->evidence->seconds == Approx(4).epsilon(0.03));
        return *record;
    };
    // The picture of a sleeve as the first stream.
    ffmpeg({"-f", "lavfi", "-i", "color=c=gray:s=64x64:d=1", "-frames:v", "1", folder / "sleeve.png"});
    ffmpeg({"-i", folder / "sleeve.png", "-i", folder / "in.wav", "-map", "0:v", "-map", "1:a", "-c:a", "aac",
            "-c:v", "png", "-disposition:v:0", "attached_pic", folder / "sleeve first.m4a"});
    CHECK(plain(folder / "sleeve first.m4a").claims.codec == "aac");
    // A bitrate, a length and a sampling rate in the header that are not true.
    std::string wav = readFile(folder / "in.wav");
    wav[28] = wav[29] = wav[30] = 0; // bytes a second
    writeFile(folder / "no rate.wav", wav);
    plain(folder / "no rate.wav");
    wav[24] = static_cast<char>(0x80);
    wav[25] = static_cast<char>(0xBB); // 48,000 Hz instead of 44,100
    wav[26] = 0;
    writeFile(folder / "fast.wav", wav);
    const auto fast = recordOf(folder / "fast.wav");
    REQUIRE(fast.ok());
    CHECK(fast->evidence->seconds == Approx(4 * 44.1 / 48).epsilon(0.03));
    ffmpeg({"-i", folder / "in.wav", "-c:a", "libmp3lame", "-b:a", "128k", folder / "long.mp3"});
    std::string mp3 = readFile(folder / "long.mp3");
    const auto count = mp3.find("Info") + 8; // frames, big-endian
    REQUIRE(count < 200);
    mp3[count + 1] = 1; // 65,536 more
    writeFile(folder / "long.mp3", mp3);
    const auto lying = recordOf(folder / "long.mp3");
    REQUIRE(lying.ok());
    CHECK(lying->evidence->seconds == Approx(4).epsilon(0.03));
    REQUIRE_FALSE(lying->evidence->problems.empty());
    CHECK(lying->evidence->problems.front().kind == "truncated");
}

TEST_CASE("a film is no recording, a codec nobody knows gets a sentence") {
    const TempFolder folder;
    ffmpeg({"-f", "lavfi", "-i", "testsrc=s=64x64:d=2", "-f", "lavfi", "-i", "sine=d=2", "-c:v", "mpeg4",
            "-c:a", "aac", folder / "film.mp4"});
    const auto film = recordOf(folder / "film.mp4");
    REQUIRE_FALSE(film.ok());
    CHECK(film.error().cause == Cause::notAudio);
    // A WAV of a codec that is none, and an MP4 whose samples are locked: noise where frames should be.
    writeMusic(folder / "in.wav", 8, 2);
    ffmpeg({"-i", folder / "in.wav", "-c:a", "aac", folder / "plain.m4a"});
    const std::string whole = readFile(folder / "plain.m4a");
    std::string unknown = readFile(folder / "in.wav");
    unknown[20] = unknown[21] = '\x77'; // the format's number
    writeFile(folder / "unknown.wav", unknown);
    const auto refused = recordOf(folder / "unknown.wav");
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().sentence.ends_with("."));
    std::string locked = whole;
    locked.replace(locked.find("mp4a"), 4, "drms");
    std::mt19937 random(5);
    for (std::size_t i = locked.find("mdat") + 8; i < locked.size() / 2; ++i) {
        locked[i] = static_cast<char>(random());
    }
    writeFile(folder / "locked.m4a", locked);
    const auto record = recordOf(folder / "locked.m4a");
    CHECK((!record.ok() || !record->evidence->sound()));
}

TEST_CASE("a file that grows while it is read is not believed") {
    const TempFolder folder;
    writeMusic(folder / "growing.wav", 9, 20);
    RunControl control;
    bool grown = false;
    const auto record = examineFile(folder / "growing.wav", control, [&](std::uint64_t) {
        if (!grown) {
            grown = true;
            std::ofstream(folder / "growing.wav", std::ios::app) << "more";
        }
    });
    CHECK(grown);
    REQUIRE_FALSE(record.ok());
    CHECK(record.error().cause == Cause::changed);
    CHECK(recordOf(folder / "growing.wav").ok());
}

TEST_CASE("hours are examined in little memory") {
    const TempFolder folder;
    const int seconds = longForm() ? 36'000 : 1800;
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=d=" + std::to_string(seconds) + ":r=8000:a=0.1", "-c:a", "flac",
            "-ac", "1", folder / "long.flac"});
    rusage before{};
    getrusage(RUSAGE_SELF, &before);
    const auto evidence = examined(folder / "long.flac");
    rusage after{};
    getrusage(RUSAGE_SELF, &after);
    REQUIRE(evidence.ok());
    CHECK(evidence->seconds == Approx(seconds));
    CHECK(evidence->sound());
    CHECK(after.ru_maxrss - before.ru_maxrss < 100'000); // kB
}
