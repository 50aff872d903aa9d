#include "support/sound.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/evidence/checksums.h"
#include "demo/encode.h"
#include "demo/synth.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <cmath>
#include <cstdlib>
#include <map>
#include <numbers>
#include <random>

namespace sober::test {
namespace {

constexpr std::size_t oddBlock = 1009; // frames

/// One channel after the other, as a sink is given them.
std::vector<float> byChannel(std::span<const float> interleaved, std::size_t channels) {
    std::vector<float> planar;
    for (std::size_t channel = 0; channel < channels; ++channel) {
        for (std::size_t at = channel; at < interleaved.size(); at += channels) {
            planar.push_back(interleaved[at]);
        }
    }
    return planar;
}

} // namespace

void feed(SampleSink& sink, const std::vector<float>& interleaved, int sampleRate, int channels) {
    const auto width = static_cast<std::size_t>(channels);
    sink.begin({sampleRate, channels, 0, static_cast<double>(interleaved.size() / width) / sampleRate});
    for (std::size_t at = 0; at < interleaved.size(); at += oddBlock * width) {
        const auto length = std::min(oddBlock * width, interleaved.size() - at);
        sink.take({byChannel(std::span(interleaved).subspan(at, length), width), {}, length / width});
    }
}

void feedIntegers(SampleSink& sink, const std::vector<std::int32_t>& interleaved, int channels,
                  int bitDepth) {
    std::vector<float> floats;
    for (const auto sample : interleaved) {
        floats.push_back(std::ldexp(static_cast<float>(sample), 1 - bitDepth));
    }
    sink.begin({44100, channels, bitDepth, 1});
    const auto width = static_cast<std::size_t>(channels);
    sink.take({byChannel(floats, width), interleaved, interleaved.size() / width});
}

std::vector<float> whiteNoise(std::size_t frames, float deviation, unsigned seed) {
    std::mt19937 random(seed);
    std::vector<float> noise;
    noise.reserve(frames);
    while (noise.size() < frames) {
        // Box and Muller 1958: two normal deviates from two uniform ones.
        const double u = (random() + 1.0) / 4294967297.0;
        const double v = random() / 4294967296.0;
        const double radius = std::sqrt(-2 * std::log(u)) * static_cast<double>(deviation);
        noise.push_back(static_cast<float>(radius * std::cos(2 * std::numbers::pi * v)));
        noise.push_back(static_cast<float>(radius * std::sin(2 * std::numbers::pi * v)));
    }
    noise.resize(frames);
    return noise;
}

bool longForm() {
    return std::getenv("SOBER_LONG_TESTS") != nullptr;
}

namespace {

/// Makes the file unless this process has made the same before: sections that begin alike need not encode
/// alike.
template <typename Make>
void makeOnce(const std::string& recipe, const BytePath& path, Make make) {
    static const TempFolder kept;
    static std::map<std::string, BytePath> made;
    const auto known = made.find(recipe);
    if (known != made.end()) {
        writeFile(path, readFile(known->second));
        return;
    }
    make();
    const auto copy = kept / std::to_string(made.size());
    writeFile(copy, readFile(path));
    made.emplace(recipe, copy);
}

} // namespace

void ffmpeg(std::vector<std::string> words) {
    words.insert(words.begin(), {"ffmpeg", "-nostdin", "-loglevel", "error", "-y"});
    const auto output = words.back();
    std::string recipe = endingOf(output);
    for (std::size_t at = 1; at + 1 < words.size(); ++at) {
        const bool isInput = words[at - 1] == "-i" && isTaken(words[at]);
        const auto content = isInput ? readFile(words[at]) : std::string();
        recipe += "\n" + (isInput ? toHex(checksumOf({reinterpret_cast<const std::uint8_t*>(content.data()),
                                                      content.size()})
                                              .bytes)
                                  : words[at]);
    }
    makeOnce(recipe, output, [&] {
        const auto made = run(words);
        INFO(made.err);
        REQUIRE(made.code == 0);
    });
}

void writeMusic(const BytePath& path, unsigned seed, double seconds) {
    const auto recipe = "music " + std::to_string(seed) + " " + std::to_string(seconds) + endingOf(path);
    makeOnce(recipe, path, [&] {
        const auto voice = static_cast<demo::Voice>(seed % 5);
        REQUIRE(demo::encode(demo::synthesise({voice, seed, seconds, 96}), {}, path));
    });
}

BytePath realSample(const std::string& name) {
    return "/usr/share/sonic-pi/samples/" + name + ".flac";
}

} // namespace sober::test
