#include "core/evidence/time_spectrum.h"
#include "core/media/pcm_reader.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <cstring>
#include <numbers>

using namespace sober;
using namespace sober::test;

namespace {

std::vector<std::int16_t> samplesIn(const std::string& raw) {
    std::vector<std::int16_t> samples(raw.size() / 2);
    std::memcpy(samples.data(), raw.data(), samples.size() * 2);
    return samples;
}

} // namespace

namespace {

/// The share of energy left when a piece is taken off a longer one at the best place.
double leastResidual(std::span<const std::int16_t> piece, std::span<const std::int16_t> whole) {
    double least = 1e300;
    double energy = 0;
    for (const auto sample : piece) {
        energy += static_cast<double>(sample) * sample;
    }
    for (std::size_t at = 0; at + piece.size() <= whole.size(); at += 2) {
        double left = 0;
        for (std::size_t i = 0; i < piece.size() && left < least; ++i) {
            const double off = static_cast<double>(piece[i]) - whole[at + i];
            left += off * off;
        }
        least = std::min(least, left);
    }
    return energy > 0 ? least / energy : 1;
}

} // namespace

TEST_CASE("a file is read as stereo frames from any place, as ffmpeg decodes it") {
    const TempFolder folder;
    writeMusic(folder / "in.wav", 5, 6);
    const std::string ending = GENERATE("wav", "flac", "m4a", "ogg", "mp3");
    const BytePath path = folder / ("file." + ending);
    ffmpeg({"-i", folder / "in.wav", path});
    ffmpeg({"-i", path, "-f", "s16le", folder / "all.raw"});
    const auto expected = samplesIn(readFile(folder / "all.raw"));
    auto reader = PcmReader::open(path);
    REQUIRE(reader.ok());
    CHECK(reader->rate() == 44'100);
    CHECK(reader->seconds() == Approx(6).epsilon(0.02));
    std::vector<std::int16_t> got(expected.size() + 8000);
    got.resize(2 * reader->read(got));
    CAPTURE(ending, got.size(), expected.size());
    CHECK(std::abs(static_cast<double>(got.size()) - static_cast<double>(expected.size())) <= 2 * 2048);
    const bool exact = ending == "wav" || ending == "flac";
    CHECK((!exact || got == expected));

    reader->seek(3);
    std::vector<std::int16_t> later(20'000);
    REQUIRE(reader->read(later) == 10'000);
    if (exact) {
        CHECK(std::equal(later.begin(), later.end(), expected.begin() + 3 * 2 * 44'100));
    }
    // From its very first frame: no part of it is what a decoder makes of half a frame.
    CHECK(leastResidual(std::span(later).first(2000),
                        std::span(expected).subspan(3 * 2 * 44'100 - 6000, 14'000)) < 0.01);
    reader->seek(0);
    REQUIRE(reader->read(later) == 10'000);
    CHECK((!exact || std::equal(later.begin(), later.end(), expected.begin())));
    reader->seek(100);
    CHECK(reader->read(later) == 0);
}

TEST_CASE("mono and other rates are read as the device takes them") {
    const TempFolder folder;
    writeFile(folder / "mono.wav", smallWav(3, 1));
    auto reader = PcmReader::open(folder / "mono.wav", 48'000);
    REQUIRE(reader.ok());
    std::vector<std::int16_t> stereo(2 * 60'000);
    const auto frames = reader->read(stereo);
    CHECK(frames == Approx(48'000).epsilon(0.01));
    for (std::size_t i = 0; i < frames; ++i) {
        REQUIRE(stereo[2 * i] == stereo[2 * i + 1]);
    }
    writeFile(folder / "letter.wav", "Dear Sir");
    CHECK(PcmReader::open(folder / "letter.wav").error().cause == Cause::unreadable);
    CHECK_FALSE(PcmReader::open(folder / "nowhere.wav").ok());
}

TEST_CASE("frequencies over time: a tone stands in its row, in its half, whatever the length") {
    const double seconds = GENERATE(0.5, 20.0, 300.0);
    std::vector<float> samples(static_cast<std::size_t>(seconds * 44'100));
    for (std::size_t i = samples.size() / 2; i < samples.size(); ++i) {
        samples[i] = 0.5F * static_cast<float>(
                                std::sin(2 * std::numbers::pi * 5000 * static_cast<double>(i) / 44'100));
    }
    TimeSpectrumPass pass(100);
    feed(pass, samples, 44'100, 1);
    const auto picture = pass.finish();
    CAPTURE(seconds, picture.columns);
    CHECK(picture.columns <= 100);
    CHECK(picture.columns >= 40);
    CHECK(picture.seconds == Approx(seconds));
    CHECK(picture.highest == 22'050);
    REQUIRE(picture.levels.size() == picture.columns * TimeSpectrum::rows);
    const auto level = [&](std::size_t column, double hertz) {
        const auto row = static_cast<std::size_t>(std::lround(hertz / 22'050 * TimeSpectrum::rows));
        return picture.levels[column * TimeSpectrum::rows + row];
    };
    CHECK(level(picture.columns / 4, 5000) < -20);
    CHECK(level(picture.columns * 3 / 4, 5000) > 90);
    CHECK(level(picture.columns * 3 / 4, 15'000) < 30);
    TimeSpectrumPass none(10);
    CHECK(none.finish().columns == 0);
}
