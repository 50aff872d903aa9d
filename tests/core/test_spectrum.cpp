#include "core/evidence/fourier.h"
#include "core/evidence/spectrum.h"
#include "support/examined.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>

using namespace sober;
using namespace sober::test;

namespace {

Spectrum spectrumOf(const std::vector<float>& samples, int channels = 1) {
    SpectrumPass pass;
    feed(pass, samples, 44100, channels);
    auto spectrum = pass.finish();
    REQUIRE(spectrum.has_value());
    return *spectrum;
}

} // namespace

TEST_CASE("Fourier transforms agree with the sum that defines them") {
    constexpr std::size_t length = 64;
    const auto noise = whiteNoise(2 * length, 1, 3);
    RealFourier real(length);
    ComplexFourier whole(length);
    for (std::size_t i = 0; i < length; ++i) {
        real.input()[i] = noise[i];
        whole.input()[i] = {noise[i], noise[length + i]};
    }
    const auto realBins = real.transform();
    const auto wholeBins = whole.transform();
    REQUIRE(realBins.size() == length / 2 + 1);
    for (std::size_t k = 0; k <= length / 2; ++k) {
        std::complex<double> realSum;
        std::complex<double> wholeSum;
        for (std::size_t n = 0; n < length; ++n) {
            const auto turn = std::polar(1.0, -2 * std::numbers::pi * static_cast<double>(k * n) / length);
            realSum += turn * static_cast<double>(noise[n]);
            wholeSum += turn * std::complex<double>(noise[n], noise[length + n]);
        }
        CHECK(std::abs(std::complex<double>(realBins[k]) - realSum) < 1e-3);
        CHECK(std::abs(std::complex<double>(wholeBins[k]) - wholeSum) < 1e-3);
    }
}

// White noise of variance v has the same power v in every bin of a transform scaled to be unitary.
TEST_CASE("white noise stands at its variance in every bin") {
    const float deviation = GENERATE(0.25F, 0.01F);
    for (const int channels : {1, 2}) {
        const auto spectrum = spectrumOf(whiteNoise(44100 * 12, deviation), channels);
        const double expected = 20 * std::log10(static_cast<double>(deviation) * 32768);
        double sum = 0;
        for (std::size_t bin = 10; bin < 2000; ++bin) {
            sum += static_cast<double>(spectrum.mean[bin]);
            CHECK(spectrum.high[bin] > spectrum.mean[bin]);
        }
        CHECK(sum / 1990 == Approx(expected).margin(0.4));
        // The 95th percentile of an exponential distribution is ln 20 times its mean: 4.77 dB more.
        if (channels == 1) {
            CHECK(static_cast<double>(spectrum.high[1000] - spectrum.mean[1000]) == Approx(4.77).margin(1.5));
        }
    }
}

TEST_CASE("a tone stands in its bin") {
    std::vector<float> tone;
    for (int i = 0; i < 44100 * 3; ++i) {
        tone.push_back(static_cast<float>(0.5 * std::sin(2 * std::numbers::pi * 5000 * i / 44100)));
    }
    const auto spectrum = spectrumOf(tone);
    const auto loudest = std::ranges::max_element(spectrum.mean) - spectrum.mean.begin();
    CHECK(static_cast<double>(loudest) * spectrum.binWidth == Approx(5000).margin(spectrum.binWidth));
}

TEST_CASE("a recording shorter than one frame has no spectrum") {
    SpectrumPass pass;
    feed(pass, whiteNoise(4095, 0.1F), 44100, 1);
    CHECK_FALSE(pass.finish().has_value());
}

// A test signal whose bandwidth is exact: a sum of sines of equal level and random phase up to the edge
// and none above, over the faintest noise.
TEST_CASE("a dead stop is found where the signal ends") {
    constexpr std::size_t length = 1U << 18;
    const int edge = GENERATE(10'500, 12'000, 15'000, 16'000, 18'000, 19'500);
    ComplexFourier synthesis(length);
    const auto bins = synthesis.input();
    std::ranges::fill(bins, std::complex<float>());
    const auto last = static_cast<std::size_t>(static_cast<double>(edge) / 44100 * length);
    const auto phases = whiteNoise(last + 1, 10, 7);
    for (std::size_t k = 1; k <= last; ++k) {
        bins[k] = std::polar(3e-4F, phases[k]);
        bins[length - k] = std::conj(bins[k]);
    }
    std::vector<float> signal = whiteNoise(length, 0.5F / 32768);
    const auto sines = synthesis.transform();
    for (std::size_t i = 0; i < length; ++i) {
        signal[i] += sines[i].real();
    }
    const auto bandwidth = bandwidthOf(spectrumOf(signal));
    CAPTURE(edge);
    CHECK(bandwidth.brickwall);
    CHECK(bandwidth.cutoff == Approx(edge).margin(40));
}

TEST_CASE("a dead stop without a grid raises doubt and accuses nobody") {
    const TempFolder folder;
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=duration=6:sample_rate=44100:amplitude=0.4:seed=5", "-f", "lavfi",
            "-i", "sinc=r=44100:lp=15000:n=4097", "-filter_complex", "[0][1]afir", folder / "a.wav"});
    const auto examination = examined(folder / "a.wav");
    REQUIRE(examination.ok());
    CHECK(examination->bandwidth->brickwall);
    CHECK(examination->verdict.verdict == VerdictClass::doubtful);
    CHECK(examination->verdict.sourceCodec.empty());
}

TEST_CASE("full-band and gently falling sounds have no dead stop") {
    const TempFolder folder;
    const std::string filter =
        GENERATE("anull", "lowpass=f=9000:p=1", "highshelf=f=6000:g=-12", "lowpass=f=12000:p=2");
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=duration=6:sample_rate=44100:amplitude=0.4:seed=6", "-af", filter,
            folder / "a.wav"});
    const auto examination = examined(folder / "a.wav");
    REQUIRE(examination.ok());
    CAPTURE(filter);
    CHECK_FALSE(examination->bandwidth->brickwall);
    CHECK(examination->bandwidth->cutoff > 20'000);
    CHECK(examination->verdict.verdict == VerdictClass::genuine);
}

// Common practice, no source: a rate above 48 kHz is for what lies above 22 kHz.
TEST_CASE("a high rate that holds nothing above 22 kHz is said to come from less") {
    const TempFolder folder;
    writeMusic(folder / "cd.wav", 8, 4);
    ffmpeg({"-i", folder / "cd.wav", "-ar", "96000", "-c:a", "pcm_s24le", folder / "up.wav"});
    ffmpeg({"-f", "lavfi", "-i", "anoisesrc=duration=4:sample_rate=96000", "-c:a", "pcm_s24le",
            folder / "real.wav"});
    const auto up = examined(folder / "up.wav");
    CAPTURE(up->bandwidth->cutoff, up->bandwidth->brickwall, up->verdict.reasons.at(0));
    CHECK(up->verdict.verdict == VerdictClass::doubtful);
    CHECK(up->verdict.reasons.at(0).find("it was made from less") != std::string::npos);
    CHECK(examined(folder / "real.wav")->verdict.verdict == VerdictClass::genuine);
}
