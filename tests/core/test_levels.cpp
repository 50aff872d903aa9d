#include "core/evidence/levels.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

using namespace sober;
using namespace sober::test;

namespace {

std::vector<float> sine(double amplitude, double frequency, std::size_t frames, int channels = 1) {
    std::vector<float> samples;
    for (std::size_t i = 0; i < frames; ++i) {
        for (int channel = 0; channel < channels; ++channel) {
            samples.push_back(static_cast<float>(
                amplitude * std::sin(2 * std::numbers::pi * frequency * static_cast<double>(i) / 44100)));
        }
    }
    return samples;
}

Levels levelsOf(const std::vector<float>& samples, int channels = 1) {
    LevelPass pass;
    feed(pass, samples, 44100, channels);
    return pass.finish();
}

} // namespace

// A sine of amplitude a has its peak at 20 log10 a and its RMS 3.01 dB below.
TEST_CASE("peak and RMS of a sine are where mathematics puts them") {
    const double amplitude = GENERATE(1.0, 0.5, 0.1, 0.001);
    const auto levels = levelsOf(sine(amplitude, 997, 44100));
    CHECK(levels.peak == Approx(20 * std::log10(amplitude)).margin(0.01));
    CHECK(levels.rms == Approx(20 * std::log10(amplitude) - 3.0103).margin(0.01));
    CHECK_FALSE(levels.silent);
    CHECK_FALSE(levels.identicalChannels);
}

TEST_CASE("clipping is three samples in a row at full scale") {
    CHECK(levelsOf({0.1F, 1.0F, 1.0F, 0.1F}).clipped == 0);
    CHECK(levelsOf({0.1F, 1.0F, 1.0F, 1.0F, 0.1F}).clipped == 3);
    CHECK(levelsOf({-1.0F, -1.0F, -1.0F, -1.0F, 0.0F}).clipped == 4);
    // Left clips, right does not.
    CHECK(levelsOf({1.0F, 0.0F, 1.0F, 0.0F, 1.0F, 0.0F}, 2).clipped == 3);
    LevelPass integers;
    feedIntegers(integers, {32767, 32767, 32767, 0, -32768, -32768, -32768}, 1, 16);
    CHECK(integers.finish().clipped == 6);
}

TEST_CASE("the bits that are really used are counted") {
    const auto [depth, shift, expected] =
        GENERATE(table<int, int, int>({{24, 8, 16}, {24, 0, 24}, {16, 0, 16}, {16, 8, 8}, {24, 4, 20}}));
    std::vector<std::int32_t> samples;
    for (std::int32_t i = 1; i < 1000; ++i) {
        samples.push_back((i * 37 % 251 - 125) * (1 << shift));
    }
    LevelPass pass;
    feedIntegers(pass, samples, 1, depth);
    CHECK(pass.finish().effectiveBitDepth == expected);
}

TEST_CASE("mono stored as stereo, stereo and silence are told apart") {
    CHECK(levelsOf(sine(0.5, 440, 5000, 2), 2).identicalChannels);
    auto stereo = sine(0.5, 440, 5000, 2);
    stereo[6001] += 0.0001F;
    CHECK_FALSE(levelsOf(stereo, 2).identicalChannels);
    const auto silence = levelsOf(std::vector<float>(8000), 2);
    CHECK(silence.silent);
    CHECK_FALSE(silence.identicalChannels);
    CHECK(levelsOf(sine(0.00005, 440, 5000)).silent);
    CHECK_FALSE(levelsOf(sine(0.0002, 440, 5000)).silent);
}

TEST_CASE("levels do not depend on how the samples were cut into blocks") {
    const auto noise = whiteNoise(30'000, 0.1F, 2);
    LevelPass whole;
    whole.begin({44100, 1, 0, 0});
    whole.take({noise, {}, noise.size()});
    LevelPass pieces;
    feed(pieces, noise, 44100, 1);
    CHECK(whole.finish().peak == pieces.finish().peak);
    CHECK(whole.finish().rms == Approx(pieces.finish().rms).margin(1e-4));
    CHECK(whole.finish().clipped == pieces.finish().clipped);
}
