#include "core/evidence/celt_grid.h"
#include "core/evidence/grid_peaks.h"
#include "core/evidence/mdct_grid.h"
#include "support/examined.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace sober;
using namespace sober::test;

namespace {

/// Counts of white noise's Poisson-like spread, with needles.
GridCounts countsWith(std::size_t period, const std::vector<std::pair<std::size_t, float>>& needles) {
    GridCounts counts("mp3", "left/right", period);
    counts.coefficients = 10'000;
    const auto noise = whiteNoise(period, 20, 7);
    for (auto& row : counts.nearZero) {
        for (std::size_t at = 0; at < period; ++at) {
            row[at] = 400 + noise[at];
        }
        for (const auto& [at, height] : needles) {
            row[at] += height;
        }
    }
    return counts;
}

/// What the examination says of music that went through an encoder, decoded to 16 bits.
Evidence through(const std::vector<std::string>& encoder, const std::string& ending,
                 const std::vector<std::string>& decoder = {}) {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 41, 14);
    std::vector<std::string> words{"-i", folder / "in.wav"};
    words.insert(words.end(), encoder.begin(), encoder.end());
    words.push_back(folder / ("mid." + ending));
    ffmpeg(words);
    words = {"-i", folder / ("mid." + ending)};
    words.insert(words.end(), decoder.begin(), decoder.end());
    words.insert(words.end(), {"-sample_fmt", "s16", folder / "out.flac"});
    ffmpeg(words);
    return *examined(folder / "out.flac");
}

} // namespace

TEST_CASE("a needle stands out from its neighbours, on the circle") {
    for (const std::size_t at : {0U, 2U, 100U, 574U}) {
        const auto counts = countsWith(576, {{at, 900}});
        const GridRow row(counts, 0);
        const auto peak = row.strongest();
        CAPTURE(at, peak.strength);
        CHECK(peak.offset == at);
        CHECK(peak.strength > 25);
        CHECK(peak.share == Approx(0.09).epsilon(0.1));
        CHECK(peak.excess[at] == Approx(900).epsilon(0.1));
        const auto next = row.strongest(at);
        CHECK(next.strength < 6);
    }
}

TEST_CASE("a second needle counts only where the first one's shorter blocks do not explain it") {
    struct Case {
        std::size_t period, first, second;
        bool explained;
    };
    for (const auto& each : {Case{576, 48, 50, true}, Case{576, 48, 336, true}, Case{576, 48, 529, true},
                             Case{576, 48, 413, false}, Case{576, 10, 570, false}, Case{1024, 0, 448, true},
                             Case{1024, 0, 1023, true}, Case{1024, 0, 813, false}, Case{960, 5, 500, false},
                             Case{960, 5, 3, true}}) {
        CAPTURE(each.period, each.first, each.second);
        CHECK(belongsTo(each.second, each.first, each.period) == each.explained);
        const auto counts = countsWith(each.period, {{each.first, 900}, {each.second, 500}});
        const auto second = GridRow(counts, 3).strongest(each.first);
        CHECK((second.offset == each.second) == !each.explained);
    }
}

TEST_CASE("where an encode's position is known, what leaks from it is not taken for another") {
    for (const std::size_t own : {48U, 1U, 574U}) {
        const auto leak = (own + 5) % 576;
        const auto shorter = (own + 3 * 96 + 2) % 576;
        const auto other = (own + 222) % 576;
        const auto counts = countsWith(576, {{own, 400}, {leak, 700}, {shorter, 700}, {other, 500}});
        const GridRow row(counts, 0);
        CAPTURE(own);
        CHECK(row.strongestNear(own).offset == own);
        CHECK(row.strongestNear((own + 1) % 576).offset == own);
        CHECK(row.strongestNear(other).strength > row.strongestNear(own).strength);
        CHECK(row.strongestBeside(own).offset == other);
    }
}

TEST_CASE("the grids of the rarer codecs are found where the bandwidth raises doubt") {
    struct Case {
        std::string codec, ending;
        std::vector<std::string> encoder, decoder;
        int rate;
    };
    for (const auto& each :
         {Case{"opus", "opus", {"-c:a", "libopus", "-b:a", "128k"}, {}, 48'000},
          Case{"ac3", "ac3", {"-c:a", "ac3", "-b:a", "192k"}, {}, 44'100},
          Case{"wma", "wma", {"-c:a", "wmav2", "-b:a", "96k", "-cutoff", "15000"}, {}, 44'100}}) {
        const auto evidence = through(each.encoder, each.ending, each.decoder);
        CAPTURE(each.codec, evidence.trace.highest ? evidence.trace.highest->strength : 0,
                evidence.bandwidth->cutoff);
        CHECK(evidence.verdict.verdict == VerdictClass::transcoded);
        CHECK(evidence.verdict.sourceCodec == each.codec);
        REQUIRE(evidence.trace.last);
        CHECK(evidence.trace.last->rate == each.rate);
    }
}

TEST_CASE("a grid is found through a change of the sampling rate") {
    const auto evidence = through({"-c:a", "libmp3lame", "-b:a", "128k"}, "mp3", {"-ar", "48000"});
    CAPTURE(evidence.trace.highest ? evidence.trace.highest->strength : 0);
    CHECK(evidence.verdict.verdict == VerdictClass::transcoded);
    CHECK(evidence.verdict.sourceCodec == "mp3");
    REQUIRE(evidence.trace.last);
    CHECK(evidence.trace.last->rate == 44'100);
}

// RFC 6716 section 4.3.7: a low-overlap window, so that the transform is orthonormal: it keeps the variance.
TEST_CASE("the rarer transforms keep the variance of noise") {
    TraceSegment segment;
    segment.left = whiteNoise(traceBlock * traceBlocks, 200, 4);
    segment.right = whiteNoise(traceBlock * traceBlocks, 200, 5);
    const auto shareOf = [](const GridCounts& counts, std::size_t threshold) {
        double sum = 0;
        for (const float count : counts.nearZero[threshold]) {
            sum += static_cast<double>(count);
        }
        return sum / static_cast<double>(counts.period) / static_cast<double>(counts.coefficients);
    };
    for (auto grid : {MdctGrid::ofWma(), MdctGrid::ofAc3()}) {
        grid.add(segment, 0, 1);
        CHECK(shareOf(grid.counts()[0], 4) == Approx(std::erf(100 / (200 * std::sqrt(2.0)))).epsilon(0.06));
    }
    CeltGrid celt;
    celt.add(segment, 0, 1);
    // The pre-emphasis 1 - 0.85 z^-1 has its own gain at each frequency: between 0.4 and 1.85 here.
    const double least = std::erf(100 / (1.85 * 200 * std::sqrt(2.0)));
    const double most = std::erf(100 / (0.4 * 200 * std::sqrt(2.0)));
    CHECK(shareOf(celt.counts()[0], 4) > least);
    CHECK(shareOf(celt.counts()[0], 4) < most);
}
