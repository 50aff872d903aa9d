#include "core/evidence/verdict.h"

#include <catch2/catch.hpp>

using namespace sober;

namespace {

/// A bright, ordinary recording without any trace.
VerdictEvidence plain(bool lossless = true) {
    VerdictEvidence evidence;
    evidence.claims.codec = lossless ? "flac" : "mp3";
    evidence.claims.lossless = lossless;
    evidence.claims.bitrate = lossless ? 900'000 : 320'000;
    evidence.claims.sampleRate = 44'100;
    evidence.seconds = 180;
    evidence.levels.peak = -1;
    Spectrum spectrum;
    spectrum.binWidth = 44'100.0 / 4096;
    spectrum.high.assign(2049, 40.0F);
    spectrum.mean.assign(2049, 35.0F);
    evidence.spectrum = spectrum;
    evidence.bandwidth = Bandwidth{22'050, 3, 37, false};
    return evidence;
}

TracePeak peak(const std::string& codec, double strength, double share = 0.1) {
    TracePeak made;
    made.codec = codec;
    made.offset = 48;
    made.period = codec == "mp3" ? 576 : 1024;
    made.strength = strength;
    made.share = share;
    return made;
}

} // namespace

TEST_CASE("the verdict follows the evidence") {
    auto evidence = plain();
    VerdictClass expected = VerdictClass::genuine;
    std::string codec;
    std::int64_t bitrate = 0;
    SECTION("nothing against it") {}
    SECTION("a grid, far above chance") {
        evidence.trace.last = peak("mp3", 34);
        evidence.bandwidth = Bandwidth{16'000, 45, 2, true};
        expected = VerdictClass::transcoded;
        codec = "mp3";
        bitrate = 128'000;
    }
    SECTION("a grid without a wall: AAC at a high bitrate") {
        evidence.trace.last = peak("aac", 60);
        expected = VerdictClass::transcoded;
        codec = "aac";
    }
    SECTION("a grid a little above chance") {
        evidence.trace.last = peak("mp3", 9);
        expected = VerdictClass::doubtful;
        codec = "mp3";
    }
    SECTION("a strong grid in very few coefficients") {
        evidence.trace.last = peak("mp3", 25, 0.015);
        expected = VerdictClass::doubtful;
        codec = "mp3";
    }
    SECTION("a wall where a recording made at 22,050 Hz ends") {
        evidence.bandwidth = Bandwidth{10'950, 45, 2, true};
        expected = VerdictClass::undetermined;
    }
    SECTION("the same wall with a grid") {
        evidence.bandwidth = Bandwidth{10'950, 45, 2, true};
        evidence.trace.last = peak("mp3", 60);
        expected = VerdictClass::transcoded;
        codec = "mp3";
        bitrate = 64'000;
    }
    SECTION("320 kbit/s that stop where 128 do, with a faint earlier grid") {
        evidence = plain(false);
        evidence.trace.last = peak("mp3", 150);
        evidence.trace.first = peak("mp3", 8, 0.015);
        evidence.bandwidth = Bandwidth{16'500, 45, 2, true};
        expected = VerdictClass::transcoded;
        codec = "mp3";
        bitrate = 128'000;
    }
    SECTION("a grid that only shows at another speed, however faint") {
        evidence.bandwidth = Bandwidth{16'500, 45, 2, true};
        evidence.trace.last = peak("mp3", 9, 0.015);
        evidence.trace.last->speed = 0.9963;
        expected = VerdictClass::transcoded;
        codec = "mp3";
        bitrate = 128'000;
    }
    SECTION("a wall and no grid") {
        evidence.bandwidth = Bandwidth{15'000, 45, 2, true};
        expected = VerdictClass::doubtful;
    }
    SECTION("dull, as tapes and old recordings are") {
        evidence.spectrum->high.assign(2049, 10.0F);
        evidence.bandwidth = Bandwidth{7'000, 5, 2, false};
        expected = VerdictClass::undetermined;
    }
    SECTION("dull, but with a grid") {
        evidence.spectrum->high.assign(2049, 10.0F);
        evidence.trace.last = peak("vorbis", 40);
        expected = VerdictClass::transcoded;
        codec = "vorbis";
    }
    SECTION("silent") {
        evidence.levels.silent = true;
        expected = VerdictClass::undetermined;
    }
    SECTION("a second long") {
        evidence.seconds = 1;
        expected = VerdictClass::undetermined;
    }
    SECTION("upsampled") {
        evidence.claims.sampleRate = 96'000;
        evidence.bandwidth = Bandwidth{21'900, 5, 2, false};
        expected = VerdictClass::doubtful;
    }
    SECTION("an MP3 with its own grid") {
        evidence = plain(false);
        evidence.trace.last = peak("mp3", 150);
    }
    SECTION("an MP3 with an earlier grid below its own") {
        evidence = plain(false);
        evidence.trace.last = peak("mp3", 150);
        evidence.trace.first = peak("mp3", 40);
        evidence.bandwidth = Bandwidth{16'500, 45, 2, true};
        expected = VerdictClass::transcoded;
        codec = "mp3";
        bitrate = 128'000;
    }
    SECTION("an MP3 with another codec's grid") {
        evidence = plain(false);
        evidence.trace.last = peak("mp3", 150);
        evidence.trace.first = peak("aac", 50);
        expected = VerdictClass::transcoded;
        codec = "aac";
    }
    SECTION("320 kbit/s that stop where 128 do") {
        evidence = plain(false);
        evidence.bandwidth = Bandwidth{16'500, 45, 2, true};
        expected = VerdictClass::doubtful;
    }
    SECTION("192 kbit/s that stop at 16 kHz, as many honest ones do") {
        evidence = plain(false);
        evidence.claims.bitrate = 192'000;
        evidence.bandwidth = Bandwidth{16'000, 45, 2, true};
    }
    const auto verdict = verdictOn(evidence);
    CHECK(verdict.verdict == expected);
    CHECK(verdict.sourceCodec == codec);
    CHECK(verdict.sourceBitrate == bitrate);
    REQUIRE_FALSE(verdict.reasons.empty());
    CHECK((verdict.confidence == 0) == (expected == VerdictClass::undetermined));
    CHECK(verdict.confidence <= 1);
}

TEST_CASE("reasons are sentences a custodian understands") {
    auto evidence = plain();
    evidence.trace.last = peak("mp3", 34);
    evidence.bandwidth = Bandwidth{16'000, 45, 2, true};
    const auto verdict = verdictOn(evidence);
    REQUIRE(verdict.reasons.size() == 2);
    CHECK(verdict.reasons[0] == "stops dead at 16.0 kHz, by 45 dB, as lossy encoders do");
    CHECK(verdict.reasons[1] == "block grid of an MP3 encoder found at 48 of 576, 34 times above chance");
}

// The classes' borders are medians of libmp3lame's lines kept; the bandwidths its usual low-passes.
TEST_CASE("the source's bitrate comes from bandwidth, and from the lines kept where the two disagree") {
    struct Case {
        double cutoff; ///< 0: full band; negative: no wall
        double lines;  ///< 0: not counted
        std::int64_t expected;
    };
    for (const auto& each :
         {Case{16'500, 0, 128'000}, Case{11'000, 0, 64'000}, Case{20'200, 0, 320'000}, Case{0, 0, 0},
          Case{0, 80, 64'000}, Case{0, 400, 320'000}, Case{16'400, 167, 128'000}, Case{17'400, 230, 160'000},
          // An encoder told to cut at 16 kHz at a high bitrate keeps many lines below it.
          Case{16'000, 380, 320'000},
          // One that keeps 20 kHz at 128 kbit/s has few lines.
          Case{20'000, 170, 128'000},
          // Quiet sound that ends near a usual bandwidth says something; elsewhere it does not.
          Case{-19'400, 300, 256'000}, Case{-18'000, 160, 128'000}, Case{-22'050, 400, 320'000}}) {
        auto evidence = plain();
        evidence.trace.last = peak("mp3", 80);
        evidence.trace.linesPerGranule = each.lines;
        evidence.bandwidth = each.cutoff > 0   ? Bandwidth{each.cutoff, 50, 0, true}
                             : each.cutoff < 0 ? Bandwidth{-each.cutoff, 10, 5, false}
                                               : Bandwidth{22'050, 3, 37, false};
        CAPTURE(each.cutoff, each.lines);
        CHECK(verdictOn(evidence).sourceBitrate == each.expected);
    }
}

TEST_CASE("every codec has its article") {
    for (const auto& [codec, words] : std::vector<std::pair<std::string, std::string>>{{"mp3", "an MP3"},
                                                                                       {"aac", "an AAC"},
                                                                                       {"vorbis", "a Vorbis"},
                                                                                       {"opus", "an Opus"},
                                                                                       {"ac3", "an AC-3"},
                                                                                       {"wma", "a WMA"}}) {
        auto evidence = plain();
        evidence.trace.last = peak(codec, 30);
        const auto verdict = verdictOn(evidence);
        CHECK(verdict.sourceCodec == codec);
        CHECK(verdict.reasons.back().find("block grid of " + words + " encoder") != std::string::npos);
    }
}

TEST_CASE("a longer search is worth its time where bandwidth speaks against the claim") {
    struct Case {
        bool lossless;
        std::int64_t bitrate;
        Bandwidth bandwidth;
        bool worth;
    };
    for (const auto& each : {Case{true, 900'000, {22'050, 3, 37, false}, false},
                             Case{true, 900'000, {16'000, 45, 2, true}, true},
                             Case{true, 900'000, {19'000, 25, 20, false}, true},
                             Case{true, 900'000, {20'030, 12, 20, false}, true}, // where Opus ends
                             Case{true, 900'000, {20'500, 12, 20, false}, false},
                             Case{false, 320'000, {20'030, 12, 20, false}, false},
                             Case{false, 320'000, {16'000, 45, 2, true}, true},
                             Case{false, 128'000, {16'000, 45, 2, true}, false},
                             Case{false, 320'000, {19'900, 45, 2, true}, false}}) {
        Claims claims;
        claims.lossless = each.lossless;
        claims.codec = each.lossless ? "flac" : "mp3";
        claims.bitrate = each.bitrate;
        CAPTURE(each.lossless, each.bitrate, each.bandwidth.cutoff);
        CHECK(raisesDoubt(claims, each.bandwidth) == each.worth);
    }
}
