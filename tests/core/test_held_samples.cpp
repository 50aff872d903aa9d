#include "core/evidence/held_samples.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <cmath>

using namespace sober;
using namespace sober::test;

namespace {

constexpr int rate = 44'100;

std::size_t at(double seconds) {
    return static_cast<std::size_t>(seconds * rate);
}

/// A second and a half of stereo noise at -20 dBFS.
struct Noise {
    Noise() {
        const auto left = whiteNoise(at(1.5), 0.1F, 1);
        const auto right = whiteNoise(at(1.5), 0.1F, 2);
        for (std::size_t i = 0; i < left.size(); ++i) {
            samples.push_back(left[i]);
            samples.push_back(right[i]);
        }
    }
    /// Every frame from a second on, for so long, becomes this.
    Noise& hold(double second, double seconds, float left, float right) {
        for (std::size_t frame = at(second); frame < at(second + seconds); ++frame) {
            samples[2 * frame] = left;
            samples[2 * frame + 1] = right;
        }
        return *this;
    }
    Noise& holdOne(std::size_t channel, double second, double seconds, float value) {
        for (std::size_t frame = at(second); frame < at(second + seconds); ++frame) {
            samples[2 * frame + channel] = value;
        }
        return *this;
    }
    /// The level falls evenly to nothing before a second and rises again behind another.
    Noise& fadeAround(double from, double to, double seconds) {
        for (std::size_t frame = 0; frame < samples.size() / 2; ++frame) {
            const double second = static_cast<double>(frame) / rate;
            const double away = second < from ? from - second : second > to ? second - to : 0;
            const auto gain = static_cast<float>(std::min(1.0, away / seconds));
            samples[2 * frame] *= gain;
            samples[2 * frame + 1] *= gain;
        }
        return *this;
    }
    std::vector<DecodeProblem> found() const {
        HeldSamplesPass pass;
        feed(pass, samples, rate, 2);
        return pass.finish();
    }
    std::vector<float> samples;
};

} // namespace

TEST_CASE("only what breaks off in the midst of sound and sets in again is told") {
    struct Row {
        std::string what;
        std::function<void(Noise&)> plant;
        std::string kind; ///< "" where nothing is to be told
        double second = 0;
    };
    const std::vector<Row> rows{
        {"untouched", [](Noise&) {}, ""},
        {"5 ms of nothing", [](Noise& noise) { noise.hold(0.5, 0.005, 0, 0); }, "dropout", 0.5},
        {"a second of nothing", [](Noise& noise) { noise.hold(0.25, 1, 0, 0); }, "dropout", 0.25},
        {"1 ms of nothing", [](Noise& noise) { noise.hold(0.5, 0.001, 0, 0); }, ""},
        {"100 ms of nothing in one channel", [](Noise& noise) { noise.holdOne(0, 0.5, 0.1, 0); }, "dropout",
         0.5},
        {"30 ms at a value in one channel", [](Noise& noise) { noise.holdOne(1, 0.5, 0.03, 0.2F); }, "stuck",
         0.5},
        {"one channel that is never heard", [](Noise& noise) { noise.holdOne(1, 0, 1.5, 0); }, ""},
        {"a side that is switched on and off, as music does",
         [](Noise& noise) {
             for (int i = 1; i < 12; ++i) {
                 noise.holdOne(0, 0.1 * i, 0.05, 0);
             }
         },
         ""},
        {"both sides, one of them a little longer",
         [](Noise& noise) { noise.hold(0.5, 0.02, 0, 0).holdOne(0, 0.5, 0.021, 0); }, "dropout", 0.5},
        {"30 ms at a value", [](Noise& noise) { noise.hold(0.7, 0.03, 0.25F, 0.25F); }, "stuck", 0.7},
        {"10 ms at a value, as low square waves have it",
         [](Noise& noise) { noise.hold(0.7, 0.01, 0.25F, 0.25F); }, ""},
        {"silence with an offset", [](Noise& noise) { noise.hold(0.7, 0.03, 0.0004F, 0.0004F); }, "dropout",
         0.7},
        {"a pause that is faded into and out of", [](Noise& noise) { noise.fadeAround(0.6, 0.9, 0.2); }, ""},
        {"silence before it begins", [](Noise& noise) { noise.hold(0, 0.5, 0, 0); }, ""},
        {"silence to the end", [](Noise& noise) { noise.hold(1, 0.5, 0, 0); }, ""},
        {"two of them", [](Noise& noise) { noise.hold(0.3, 0.01, 0, 0).hold(0.9, 0.01, 0, 0); }, "dropout",
         0.3},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        Noise noise;
        row.plant(noise);
        const auto found = noise.found();
        if (row.kind.empty()) {
            CHECK(found.empty());
            continue;
        }
        REQUIRE_FALSE(found.empty());
        CHECK(found.size() == (row.what == "two of them" ? 2U : 1U));
        CHECK(found.front().kind == row.kind);
        CHECK(std::abs(found.front().at - row.second) <= 33.0 / rate);
        const bool isAlone = row.what.find("one channel") != std::string::npos;
        CHECK((found.front().detail.find("channel alone") != std::string::npos) == isAlone);
    }
}

TEST_CASE("of many dropouts only the first hundred are told") {
    Noise noise;
    for (int i = 1; i < 140; ++i) {
        noise.hold(0.01 * i, 0.006, 0, 0);
    }
    const auto found = noise.found();
    CHECK(found.size() == 100);
    CHECK(std::ranges::is_sorted(found, {}, &DecodeProblem::at));
}
