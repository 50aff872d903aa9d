// A small corpus of real recordings, split by source from what thresholds were chosen on: loops of Debian's
// sonic-pi-samples. The whole table comes from bench/trace-accuracy.
#include "support/examined.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <map>

using namespace sober;
using namespace sober::test;

namespace {

using Words = std::vector<std::string>;

/// Some loops after one another, 44.1 kHz stereo.
void writeLoops(const BytePath& path, const std::vector<std::string>& loops) {
    Words words;
    std::string graph;
    std::string joined;
    for (std::size_t i = 0; i < loops.size(); ++i) {
        words.insert(words.end(), {"-i", realSample(loops[i])});
        const auto n = std::to_string(i);
        graph += "[" + n + "]aformat=sample_rates=44100:channel_layouts=stereo[a" + n + "];";
        joined += "[a" + n + "]";
    }
    words.insert(words.end(),
                 {"-filter_complex",
                  graph + joined + "concat=n=" + std::to_string(loops.size()) + ":v=0:a=1,volume=-2dB",
                  "-sample_fmt", "s16", path});
    ffmpeg(words);
}

const std::vector<std::vector<std::string>>& pieces() {
    static const std::vector<std::vector<std::string>> all{
        {"loop_compus", "loop_tabla", "loop_breakbeat"},
        {"loop_industrial", "loop_mika", "loop_garzul"},
        {"loop_mehackit1", "loop_mehackit2", "loop_perc1", "loop_perc2", "loop_weirdo"},
        {"ambi_choir", "guit_em9", "guit_harmonics", "ambi_piano", "loop_safari"}};
    return all;
}

VerdictClass verdictOf(const BytePath& path) {
    const auto evidence = examined(path);
    INFO(path << (evidence ? std::string() : evidence.error().sentence));
    REQUIRE(evidence.ok());
    return evidence->verdict.verdict;
}

} // namespace

TEST_CASE("what honest recordings go through accuses none of them") {
    const TempFolder folder;
    // Filters of ffmpeg that do what tape, radio, an old sampling rate or an engineer do.
    const std::map<std::string, std::string> treatments{
        {"as it is", "anull"},
        {"tape", "vibrato=f=0.7:d=0.02,lowpass=f=13000:p=2,treble=g=-4:f=9000"},
        {"natural roll-off", "lowpass=f=15000:p=1,lowpass=f=16000:p=2"},
        {"radio", "lowpass=f=15000:p=2,lowpass=f=15000:p=2,acompressor"},
        {"22 kHz original", "aresample=22050,aresample=44100"},
        {"32 kHz original", "aresample=32000,aresample=44100"},
        {"denoised", "afftdn=nr=20:nf=-45"},
        {"gated", "agate=threshold=0.02:ratio=9000:attack=1:release=20"},
        {"limited", "volume=9dB,alimiter=limit=0.98"},
        {"quieter", "volume=-17dB"},
        {"speeded", "asetrate=44100*1.06,aresample=44100"}};
    int doubtful = 0;
    int all = 0;
    int turn = 0;
    for (const auto& loops : pieces()) {
        writeLoops(folder / "honest.wav", loops);
        for (const auto& [name, filter] : treatments) {
            if (++turn % 3 != 0 && !longForm()) {
                continue; // each piece meets others
            }
            ffmpeg(
                {"-i", folder / "honest.wav", "-af", filter, "-sample_fmt", "s16", folder / "treated.flac"});
            const auto verdict = verdictOf(folder / "treated.flac");
            CAPTURE(loops.front(), name);
            CHECK(verdict != VerdictClass::transcoded);
            doubtful += verdict == VerdictClass::doubtful ? 1 : 0;
            ++all;
        }
    }
    CAPTURE(doubtful, all);
    CHECK(doubtful * 100 <= all * 10); // a wall at 11 or 16 kHz is the recording's own, and cannot be told
}

TEST_CASE("lossy encodes are found through what players and editors do to them") {
    const TempFolder folder;
    struct Recipe {
        std::string codec, ending;
        Words encoder;
        std::string after;
        bool surely; ///< else a doubt is enough: an equaliser scales what was zero apart
    };
    const std::vector<Recipe> recipes{
        {"mp3", "mp3", {"-c:a", "libmp3lame", "-b:a", "192k"}, "volume=-3dB", true},
        {"mp3", "mp3", {"-c:a", "libmp3lame", "-q:a", "0"}, "anull", true},
        {"mp3", "mp3", {"-c:a", "libmp3lame", "-b:a", "128k"}, "aresample=48000,aresample=44100", true},
        {"aac", "m4a", {"-c:a", "aac", "-b:a", "160k"}, "equalizer=f=3000:t=o:w=1:g=4", false},
        {"vorbis", "ogg", {"-c:a", "libvorbis", "-q:a", "6"}, "volume=2dB,alimiter=limit=0.9", true}};
    for (const auto& loops : {pieces()[0], pieces()[1]}) {
        writeLoops(folder / "honest.wav", loops);
        for (const auto& recipe : recipes) {
            const BytePath middle = folder / ("middle." + recipe.ending);
            Words words{"-i", folder / "honest.wav"};
            words.insert(words.end(), recipe.encoder.begin(), recipe.encoder.end());
            words.push_back(middle);
            ffmpeg(words);
            ffmpeg({"-i", middle, "-af", recipe.after, "-sample_fmt", "s16", folder / "out.flac"});
            const auto evidence = examined(folder / "out.flac");
            REQUIRE(evidence.ok());
            CAPTURE(loops.front(), recipe.codec, recipe.after,
                    evidence->trace.highest ? evidence->trace.highest->strength : 0);
            CHECK((evidence->verdict.verdict == VerdictClass::transcoded ||
                   (!recipe.surely && evidence->verdict.verdict == VerdictClass::doubtful)));
            CHECK(evidence->verdict.sourceCodec == recipe.codec);
        }
    }
}

TEST_CASE("lossy files made once are genuine, whatever their codec") {
    const TempFolder folder;
    writeLoops(folder / "honest.wav", pieces()[3]);
    for (const auto& [ending, options] :
         std::vector<std::pair<std::string, Words>>{{"mp3", {"-c:a", "libmp3lame", "-b:a", "320k"}},
                                                    {"mp3", {"-c:a", "libmp3lame", "-q:a", "2"}},
                                                    {"m4a", {"-c:a", "aac", "-b:a", "192k"}},
                                                    {"ogg", {"-c:a", "libvorbis", "-q:a", "5"}},
                                                    {"opus", {"-c:a", "libopus", "-b:a", "128k"}},
                                                    {"wma", {"-c:a", "wmav2", "-b:a", "192k"}},
                                                    {"ac3", {"-c:a", "ac3", "-b:a", "384k"}}}) {
        Words words{"-i", folder / "honest.wav"};
        words.insert(words.end(), options.begin(), options.end());
        words.push_back(folder / ("own." + ending));
        ffmpeg(words);
        CAPTURE(ending, options.back());
        CHECK(verdictOf(folder / ("own." + ending)) == VerdictClass::genuine);
    }
}

TEST_CASE("a low bitrate inside a higher one is found below the file's own grid") {
    const TempFolder folder;
    writeLoops(folder / "honest.wav", pieces()[1]);
    ffmpeg({"-i", folder / "honest.wav", "-c:a", "libmp3lame", "-b:a", "128k", folder / "low.mp3"});
    for (const auto& [ending, codec, bitrate] :
         std::vector<std::tuple<std::string, std::string, std::string>>{{"mp3", "libmp3lame", "320k"},
                                                                        {"m4a", "aac", "192k"}}) {
        ffmpeg({"-i", folder / "low.mp3", "-af", "atrim=start_sample=211", "-c:a", codec, "-b:a", bitrate,
                folder / ("high." + ending)});
        const auto evidence = examined(folder / ("high." + ending));
        REQUIRE(evidence.ok());
        CAPTURE(ending, evidence->trace.highest ? evidence->trace.highest->strength : 0);
        CHECK(evidence->verdict.verdict == VerdictClass::transcoded);
        CHECK(evidence->verdict.sourceCodec == "mp3");
        REQUIRE(evidence->trace.first);
        CHECK(evidence->trace.first->period == 576);
    }
}

TEST_CASE("mono, 24 bits and floating point are examined alike") {
    const TempFolder folder;
    writeLoops(folder / "honest.wav", pieces()[0]);
    ffmpeg({"-i", folder / "honest.wav", "-c:a", "libmp3lame", "-b:a", "160k", folder / "low.mp3"});
    for (const auto& [name, options] :
         std::vector<std::pair<std::string, Words>>{{"mono.flac", {"-ac", "1", "-sample_fmt", "s16"}},
                                                    {"deep.flac", {"-sample_fmt", "s32"}},
                                                    {"deep.wav", {"-c:a", "pcm_s24le"}},
                                                    {"float.wav", {"-c:a", "pcm_f32le"}},
                                                    {"apple.m4a", {"-c:a", "alac", "-sample_fmt", "s16p"}}}) {
        for (const bool honest : {true, false}) {
            Words words{"-i", folder / (honest ? "honest.wav" : "low.mp3")};
            words.insert(words.end(), options.begin(), options.end());
            words.push_back(folder / name);
            ffmpeg(words);
            CAPTURE(name, honest);
            CHECK((verdictOf(folder / name) == VerdictClass::transcoded) == !honest);
        }
    }
}
