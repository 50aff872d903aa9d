#include "core/evidence/codec_trace.h"
#include "core/evidence/layer3_grid.h"
#include "core/evidence/mdct_grid.h"
#include "support/examined.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace sober;
using namespace sober::test;

namespace {

Evidence evidenceOf(const BytePath& path) {
    auto evidence = examined(path);
    INFO((evidence ? std::string() : evidence.error().sentence));
    REQUIRE(evidence.ok());
    return std::move(*evidence);
}

/// Of the best position of any grid; 0 where none has a share worth counting.
double strengthOf(const Evidence& evidence) {
    return evidence.trace.highest ? evidence.trace.highest->strength : 0;
}

/// Real recordings of Debian's sonic-pi-samples, long and bright enough to tell, one after another.
void writeRealMusic(const BytePath& path) {
    ffmpeg({"-i", realSample("loop_safari"), "-i", realSample("loop_amen_full"), "-i",
            realSample("loop_garzul"), "-filter_complex",
            "[0]aformat=channel_layouts=stereo[a];[1]aformat=channel_layouts=stereo[b];[2]aformat=channel_"
            "layouts=stereo[c];"
            "[a][b][c]concat=n=3:v=0:a=1,volume=-1dB",
            "-ar", "44100", path});
}

struct Recipe {
    std::string name, codec, ending;
    std::vector<std::string> options;
};

/// Encodes and decodes again to FLAC.
void through(const BytePath& from, const Recipe& recipe, const BytePath& to) {
    const BytePath middle = to + "." + recipe.ending;
    std::vector<std::string> words{"-i", from};
    words.insert(words.end(), recipe.options.begin(), recipe.options.end());
    words.push_back(middle);
    ffmpeg(words);
    ffmpeg({"-i", middle, "-sample_fmt", "s16", to});
}

std::vector<Recipe> recipes() {
    return {{"MP3 128", "mp3", "mp3", {"-c:a", "libmp3lame", "-b:a", "128k"}},
            {"MP3 320", "mp3", "mp3", {"-c:a", "libmp3lame", "-b:a", "320k"}},
            {"MP3 V2", "mp3", "mp3", {"-c:a", "libmp3lame", "-q:a", "2"}},
            {"AAC 128", "aac", "m4a", {"-c:a", "aac", "-b:a", "128k"}},
            {"AAC 256", "aac", "m4a", {"-c:a", "aac", "-b:a", "256k"}},
            {"Vorbis 5", "vorbis", "ogg", {"-c:a", "libvorbis", "-q:a", "5"}}};
}

} // namespace

TEST_CASE("a lossy encoder's grid is found in what is stored without loss, and names the codec") {
    const TempFolder folder;
    const bool real = GENERATE(true, false);
    const BytePath source = folder / "in.wav";
    real ? writeRealMusic(source) : writeMusic(source, 21, 9);
    for (const auto& recipe : recipes()) {
        through(source, recipe, folder / "out.flac");
        const auto examination = evidenceOf(folder / "out.flac");
        CAPTURE(recipe.name, real, strengthOf(examination));
        CHECK(examination.verdict.verdict == VerdictClass::transcoded);
        CHECK(examination.verdict.sourceCodec == recipe.codec);
        CHECK(examination.trace.last->strength > 12);
        CHECK(examination.trace.last->excess.size() == examination.trace.last->period);
    }
}

TEST_CASE("honest recordings are not accused") {
    const TempFolder folder;
    writeRealMusic(folder / "real.flac");
    const auto real = evidenceOf(folder / "real.flac");
    CHECK(real.verdict.verdict != VerdictClass::transcoded);
    CHECK(strengthOf(real) < 8);
    for (unsigned seed = 30; seed < 36; ++seed) {
        writeMusic(folder / "made.flac", seed, 7);
        const auto made = evidenceOf(folder / "made.flac");
        CAPTURE(seed, strengthOf(made));
        CHECK(made.verdict.verdict != VerdictClass::transcoded);
        CHECK_FALSE(made.trace.last.has_value());
    }
}

TEST_CASE("the trace outlives changes of level and channels") {
    const TempFolder folder;
    writeRealMusic(folder / "in.wav");
    through(folder / "in.wav", recipes()[0], folder / "mp3.flac");
    const std::string filter = GENERATE("volume=-3dB", "volume=1.5dB,alimiter", "pan=mono|c0=0.5*c0+0.5*c1",
                                        "equalizer=f=1000:t=o:w=1:g=3");
    ffmpeg({"-i", folder / "mp3.flac", "-af", filter, "-sample_fmt", "s16", folder / "changed.flac"});
    const auto examination = evidenceOf(folder / "changed.flac");
    CAPTURE(filter, strengthOf(examination));
    CHECK(examination.verdict.verdict == VerdictClass::transcoded);
    CHECK(examination.verdict.sourceCodec == "mp3");
}

// The grid is laid from the encoder's first sample: cutting n samples off moves it back by n.
TEST_CASE("the grid moves with the samples that are cut off") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 22, 9);
    through(folder / "in.wav", recipes()[0], folder / "whole.flac");
    const auto whole = evidenceOf(folder / "whole.flac").trace.last.value();
    const int cut = GENERATE(1, 100, 577, 5000);
    ffmpeg({"-i", folder / "whole.flac", "-af", "atrim=start_sample=" + std::to_string(cut),
            folder / "cut.flac"});
    const auto moved = evidenceOf(folder / "cut.flac").trace.last.value();
    CHECK(moved.period == 576);
    CHECK((moved.offset + static_cast<std::size_t>(cut)) % 576 == whole.offset);
}

TEST_CASE("a lossy file is not accused of its own grid, but of another's") {
    const TempFolder folder;
    writeRealMusic(folder / "in.wav");
    ffmpeg({"-i", folder / "in.wav", "-c:a", "libmp3lame", "-b:a", "320k", folder / "own.mp3"});
    CHECK(evidenceOf(folder / "own.mp3").verdict.verdict == VerdictClass::genuine);
    ffmpeg({"-i", folder / "in.wav", "-c:a", "aac", "-b:a", "192k", folder / "own.m4a"});
    CHECK(evidenceOf(folder / "own.m4a").verdict.verdict == VerdictClass::genuine);
    // An MP3 made from an AAC file, and one made from a cut MP3, so that the grids lie apart.
    ffmpeg({"-i", folder / "own.m4a", "-c:a", "libmp3lame", "-b:a", "320k", folder / "of aac.mp3"});
    const auto ofAac = evidenceOf(folder / "of aac.mp3");
    CHECK(strengthOf(ofAac) > 12);
    ffmpeg({"-i", folder / "in.wav", "-c:a", "libmp3lame", "-b:a", "128k", folder / "low.mp3"});
    ffmpeg({"-i", folder / "low.mp3", "-af", "atrim=start_sample=200", "-c:a", "libmp3lame", "-b:a", "320k",
            folder / "of mp3.mp3"});
    const auto ofMp3 = evidenceOf(folder / "of mp3.mp3");
    CAPTURE(strengthOf(ofMp3));
    CHECK(ofMp3.verdict.verdict == VerdictClass::transcoded);
    CHECK(ofMp3.verdict.sourceCodec == "mp3");
}

// Encoders and decoders leave different numbers of samples out at the beginning; those of another encoder,
// and of a file that does not say how many.
TEST_CASE("an MP3's own grid is known by its frames, whatever was left out before them") {
    const TempFolder folder;
    writeRealMusic(folder / "in.wav");
    for (const auto& options : std::vector<std::vector<std::string>>{{"-b", "320"},
                                                                     {"-V", "2"},
                                                                     {"-b", "128", "-t"},
                                                                     {"-b", "192", "-m", "m"},
                                                                     {"-b", "320", "-t"}}) {
        CAPTURE(options);
        std::vector<std::string> words{"lame", "--quiet"};
        words.insert(words.end(), options.begin(), options.end());
        words.insert(words.end(), {folder / "in.wav", folder / "own.mp3"});
        REQUIRE(run(words).code == 0);
        const auto own = evidenceOf(folder / "own.mp3");
        CHECK(own.verdict.verdict == VerdictClass::genuine);
        CHECK_FALSE(own.trace.first);
        REQUIRE(own.trace.last);
        CHECK(own.trace.last->codec == "mp3");
        if (options.back() == "-t") { // nothing is left out: the grid is where the standard's delays put it
            CHECK(own.trace.last->offset == LayerIIIGrid::positionOfFrames(0));
        }
    }
    ffmpeg({"-i", folder / "in.wav", "-c:a", "libshine", "-b:a", "320k", folder / "shine.mp3"});
    CHECK(evidenceOf(folder / "shine.mp3").verdict.verdict == VerdictClass::genuine);
    CHECK_FALSE(evidenceOf(folder / "shine.mp3").trace.first);
}

TEST_CASE("where the blocks of a decode begin is known while they are of one length") {
    const auto began = [](const std::vector<std::size_t>& lengths) {
        TraceSegmentPass pass;
        pass.begin({44'100, 1, 0, 0});
        const std::vector<float> silence(4000);
        for (const auto length : lengths) {
            pass.take({std::span(silence).first(length), {}, length});
        }
        return pass.blocksBegan();
    };
    CHECK(began({47, 1152, 1152, 1152}) == 47);
    CHECK(began({1152, 1152, 1152, 300}) == 0);
    CHECK(began({300, 1152, 1152, 1152, 300}) == 300);
    CHECK_FALSE(began({47, 1152, 300, 1152, 1152}));
    CHECK_FALSE(began({47, 1152, 300, 1152, 300}));
    CHECK_FALSE(began({47, 1152}));
    CHECK_FALSE(began({}));
}

// libmp3lame's own low-pass at constant bitrates; common practice puts 128 kbit/s at 16 kHz.
TEST_CASE("the source's bitrate is estimated from its bandwidth") {
    const TempFolder folder;
    writeRealMusic(folder / "in.wav");
    const int kbps = GENERATE(96, 128, 192);
    through(folder / "in.wav", {"", "mp3", "mp3", {"-c:a", "libmp3lame", "-b:a", std::to_string(kbps) + "k"}},
            folder / "out.flac");
    const auto examination = evidenceOf(folder / "out.flac");
    CAPTURE(kbps, examination.bandwidth->cutoff);
    REQUIRE(examination.bandwidth->brickwall);
    CHECK(examination.verdict.sourceBitrate == kbps * 1000);
}

TEST_CASE("segments are the liveliest runs of the parts, without clipped blocks") {
    std::vector<float> samples(44100 * 16);
    const auto noise = whiteNoise(samples.size(), 0.1F, 8);
    for (std::size_t second = 0; second < 16; second += 2) {
        for (std::size_t i = second * 44100; i < (second + 1) * 44100; ++i) {
            samples[i] = noise[i];
        }
    }
    for (std::size_t i = 10 * 44100; i < 11 * 44100; i += 500) {
        samples[i] = 1.0F;
    }
    TraceSegmentPass pass;
    feed(pass, samples, 44100, 1);
    const auto segments = pass.finish();
    CHECK(segments.size() == 7);
    for (const auto& segment : segments) {
        CHECK(segment.left.size() == traceBlock * traceBlocks);
        CHECK(segment.left == segment.right);
        CHECK(segment.start % static_cast<std::int64_t>(traceBlock) == 0);
        CHECK(segment.start / 44100 % 2 == 0);
        CHECK(segment.left[5] == samples[static_cast<std::size_t>(segment.start) + 5] * 32768);
    }
    TraceSegmentPass none;
    feed(none, whiteNoise(5000, 0.1F), 44100, 1);
    CHECK(none.finish().empty());
    CHECK_FALSE(findCodecTrace({}, {}).last.has_value());
}

TEST_CASE("a counting grid meets every coefficient once at every position") {
    TraceSegment segment;
    segment.left = whiteNoise(traceBlock * traceBlocks, 200, 4);
    segment.right = whiteNoise(traceBlock * traceBlocks, 200, 5);
    LayerIIIGrid layerIII;
    layerIII.add(segment, 0, LayerIIIGrid::units());
    auto mdct = MdctGrid::ofAacAndVorbis();
    mdct.add(segment, 0, mdct.units());
    std::vector<GridCounts> all(layerIII.counts().begin(), layerIII.counts().end());
    all.insert(all.end(), mdct.counts().begin(), mdct.counts().end());
    CHECK(all.size() == 8);
    for (const auto& counts : all) {
        // Orthonormal transforms keep the variance: of normal deviates of 200, a share of
        // erf(T / (200 sqrt 2)) lies below T.
        for (std::size_t t = 2; t < traceThresholds.size(); ++t) {
            double sum = 0;
            for (const float count : counts.nearZero[t]) {
                sum += static_cast<double>(count);
            }
            const double share =
                sum / static_cast<double>(counts.period) / static_cast<double>(counts.coefficients);
            CAPTURE(counts.codec, counts.channels, traceThresholds[t]);
            CHECK(share == Approx(std::erf(static_cast<double>(traceThresholds[t]) / (200 * std::sqrt(2.0))))
                               .epsilon(0.05));
        }
    }
}

namespace {

constexpr int pieceSeconds = 4;

/// A sound of an exact period, which goes on throughout.
std::vector<float> repeated(const std::vector<float>& one) {
    std::vector<float> sound;
    for (std::size_t at = 0; at < pieceSeconds * std::size_t{44'100}; ++at) {
        sound.push_back(one[at % one.size()]);
    }
    return sound;
}

std::vector<float> pulse(std::size_t period, std::size_t high) {
    std::vector<float> one(period, -0.4F);
    std::fill_n(one.begin(), high, 0.4F);
    return one;
}

std::vector<float> click(std::size_t period, std::size_t width) {
    std::vector<float> one(period, 0.0F);
    std::fill_n(one.begin(), width, 0.7F);
    return one;
}

std::vector<float> plus(std::vector<float> sound, const std::vector<float>& other) {
    for (std::size_t at = 0; at < sound.size(); ++at) {
        sound[at] += other[at];
    }
    return sound;
}

/// As a synthesiser's notes: each begins loud and decays.
std::vector<float> decaying(std::vector<float> sound) {
    constexpr std::size_t note = 11'025;
    for (std::size_t at = 0; at < sound.size(); ++at) {
        sound[at] *= std::exp(-4.0F * static_cast<float>(at % note) / note);
    }
    return sound;
}

} // namespace

TEST_CASE("electronic sounds of exact periods are accused of nothing, whatever their blocks look like") {
    std::vector<std::vector<float>> pieces;
    for (const std::size_t period : {32U, 64U, 128U, 256U}) {
        const auto table = whiteNoise(period, 0.2F, static_cast<unsigned>(period));
        for (const auto& one : {pulse(period, period / 2), pulse(period, period / 4), table}) {
            pieces.push_back(repeated(one));
            pieces.push_back(decaying(repeated(one)));
        }
    }
    const auto hiss = whiteNoise(pieceSeconds * std::size_t{44'100}, 0.0005F);
    for (const std::size_t period : {512U, 576U, 1024U, 1152U}) {
        for (const std::size_t width : {1U, 8U}) {
            pieces.push_back(repeated(click(period, width)));
        }
        pieces.push_back(plus(repeated(click(period, 1)), hiss));
    }
    REQUIRE(pieces.size() >= 30);
    int grids = 0;
    for (std::size_t number = 0; number < pieces.size(); ++number) {
        CAPTURE(number);
        TraceSegmentPass pass;
        feed(pass, pieces[number], 44'100, 1);
        const auto trace = findCodecTrace(pass.finish(), {});
        CHECK_FALSE(trace.last.has_value());
        CHECK_FALSE(trace.first.has_value());
        grids += trace.repeats > 0 ? 1 : 0;
    }
    // They do look like grids: it is not for want of those.
    CHECK(grids > 15);
    // An encoder's grid in real music is still one.
    const TempFolder folder;
    writeRealMusic(folder / "a.wav");
    through(folder / "a.wav", recipes().front(), folder / "b.flac");
    const auto evidence = evidenceOf(folder / "b.flac");
    CHECK(evidence.trace.repeats == 0);
    CHECK(evidence.verdict.verdict == VerdictClass::transcoded);
}
