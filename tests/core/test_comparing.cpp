#include "core/audit/sameness.h"
#include "core/evidence/compare_decodes.h"
#include "core/evidence/fingerprint_index.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

#include <random>

using namespace sober;
using namespace sober::test;

namespace {

/// Half a minute of real loops from Debian's sonic-pi-samples, one after the other.
void writeJoinedLoops(const BytePath& path, const std::vector<std::string>& names) {
    std::vector<std::string> words;
    std::string graph;
    std::string inputs;
    for (std::size_t i = 0; i < names.size(); ++i) {
        words.insert(words.end(), {"-i", realSample(names[i])});
        graph += fmt::format("[{0}]aformat=sample_rates=44100:channel_layouts=stereo[a{0}];", i);
        inputs += fmt::format("[a{}]", i);
    }
    graph += fmt::format("{}concat=n={}:v=0:a=1", inputs, names.size());
    words.insert(words.end(), {"-filter_complex", graph, "-sample_fmt", "s16", path});
    ffmpeg(words);
}

const std::vector<std::string> loops{"loop_amen_full", "loop_garzul",   "loop_mika",
                                     "ambi_choir",     "loop_electric", "loop_tabla"};

Fingerprint randomWords(std::size_t count, unsigned seed) {
    std::mt19937 random(seed);
    Fingerprint words(count);
    for (auto& word : words) {
        word = static_cast<std::uint32_t>(random());
    }
    return words;
}

/// Flips a share of all bits.
Fingerprint disturbed(Fingerprint words, double share, unsigned seed) {
    std::mt19937 random(seed);
    std::bernoulli_distribution flip(share);
    for (auto& word : words) {
        for (int bit = 0; bit < 32; ++bit) {
            word ^= flip(random) ? 1U << bit : 0U;
        }
    }
    return words;
}

std::vector<FingerprintCandidate> candidatesOf(const std::vector<Fingerprint>& all) {
    FingerprintIndex index;
    index.add(0, all);
    return index.candidates();
}

} // namespace

TEST_CASE("comparing two decodes finds offset, gain and what is left, and tells other recordings apart") {
    const TempFolder folder;
    writeJoinedLoops(folder / "a.flac", loops);
    static constexpr double whole = 22;
    struct Case {
        const char* name;
        std::vector<std::string> options; // what the ffmpeg tool does to it
        double coarse, offset, gain;
        std::optional<Sameness> sameness;
        double seconds = whole;
    };
    const std::vector<Case> cases{
        {"same.wav", {}, 0, 0, 0, Sameness::lossyCopy},
        {"high.mp3", {"-b:a", "320k"}, 0, 0, 0, Sameness::lossyCopy},
        {"low.mp3", {"-b:a", "96k"}, 0, 0, 0, Sameness::lossyCopy},
        {"o.opus", {"-c:a", "libopus", "-b:a", "96k"}, 0, 0, 0, Sameness::lossyCopy},
        {"v.ogg", {"-c:a", "libvorbis", "-q:a", "3"}, 0, 0, 0, Sameness::lossyCopy},
        {"rate.flac", {"-ar", "48000"}, 0, 0, 0, Sameness::lossyCopy},
        {"quiet.flac", {"-af", "volume=-3dB", "-sample_fmt", "s16"}, 0, 0, -3, Sameness::otherMaster},
        {"loud.mp3", {"-af", "volume=-6dB", "-b:a", "192k"}, 0, 0, -6, Sameness::otherMaster},
        {"speed.flac", {"-af", "asetrate=44122,aresample=44100"}, 0, 0, 0, Sameness::otherMaster},
        {"late.flac", {"-af", "adelay=1000:all=1"}, -1.1, -1, 0, Sameness::lossyCopy},
        {"cut.mp3", {"-ss", "3", "-t", "12", "-b:a", "160k"}, 3.2, 3, 0, Sameness::part, 12},
        // The silence before the next track, and the end of another edit.
        {"gap.flac", {"-af", "apad=pad_dur=2.5"}, 0, 0, 0, Sameness::lossyCopy, whole + 2.5},
        {"gap.mp3",
         {"-af", "adelay=2500:all=1,apad=pad_dur=2", "-b:a", "96k"},
         -2.5,
         -2.5,
         0,
         Sameness::lossyCopy,
         whole + 4.5},
        {"edit.flac", {"-t", "18"}, 0, 0, 0, Sameness::part, 18},
        {"both.flac",
         {"-filter_complex",
          "sine=f=440:r=44100:d=1.2,aformat=channel_layouts=stereo:sample_fmts=s16,asplit[h][t];"
          "[h][0:a][t]concat=n=3:v=0:a=1"},
         -1.2,
         -1.2,
         0,
         Sameness::part,
         whole + 2.4},
        {"tempo.flac", {"-af", "atempo=1.03"}, 0, 0, 0, std::nullopt},
        {"pitch.flac", {"-af", "asetrate=46000,aresample=44100"}, 0, 0, 0, std::nullopt},
    };
    for (const auto& each : cases) {
        CAPTURE(each.name);
        std::vector<std::string> words{"-i", folder / "a.flac"};
        words.insert(words.end(), each.options.begin(), each.options.end());
        words.push_back(folder / each.name);
        ffmpeg(words);
        RunControl control;
        const auto compared = compareDecodes(folder / "a.flac", folder / each.name, each.coarse, control);
        REQUIRE(compared.ok());
        CHECK(samenessOf({{}, {}, 0.01, each.coarse, *compared}, whole, each.seconds) == each.sameness);
        if (each.sameness) {
            CHECK(compared->offset == Approx(each.offset).margin(0.003));
            CHECK(compared->gain == Approx(each.gain).margin(0.7));
            CHECK(compared->agreeing > 0.9);
        } else {
            CHECK(compared->agreeing < 0.3);
        }
    }
    RunControl control;
    const auto same = compareDecodes(folder / "a.flac", folder / "same.wav", 0, control);
    CHECK(same->residual < -100);
    const auto high = compareDecodes(folder / "a.flac", folder / "high.mp3", 0, control);
    const auto low = compareDecodes(folder / "a.flac", folder / "low.mp3", 0, control);
    CHECK(high->residual < low->residual - 3);
    CHECK(comparisonWords(*compareDecodes(folder / "a.flac", folder / "quiet.flac", 0, control))
              .starts_with("3.0 dB quieter"));
}

TEST_CASE("a passage that two recordings share does not make them one") {
    RecordingPair pair;
    pair.comparison.emplace();
    pair.comparison->agreeing = 1;
    pair.comparison->compared = 30;
    struct Case {
        double first, second, offset;
        std::optional<Sameness> sameness;
    };
    for (const auto& each : {Case{50, 50, 0, Sameness::lossyCopy}, Case{50, 50, 12, std::nullopt},
                             Case{50, 50, -12, std::nullopt}, Case{50, 44, 3, Sameness::part},
                             Case{50, 20, 28, Sameness::part}, Case{50, 20, 40, std::nullopt},
                             Case{50, 51, -1, Sameness::lossyCopy}, Case{20, 50, -10, Sameness::part}}) {
        CAPTURE(each.first, each.second, each.offset);
        pair.comparison->offset = each.offset;
        CHECK(samenessOf(pair, each.first, each.second) == each.sameness);
    }
}

TEST_CASE("a comparison that is cancelled or cannot be decoded is an error") {
    const TempFolder folder;
    writeMusic(folder / "a.wav", 5, 6);
    writeFile(folder / "b.wav", "no audio at all");
    RunControl control;
    CHECK_FALSE(compareDecodes(folder / "a.wav", folder / "b.wav", 0, control).ok());
    control.cancel();
    CHECK(compareDecodes(folder / "a.wav", folder / "a.wav", 0, control).error().cause == Cause::interrupted);
}

TEST_CASE("the index meets disturbed, shifted and cut fingerprints, and none that are unrelated") {
    const auto whole = randomWords(2000, 1);
    std::vector<Fingerprint> all{whole, disturbed(whole, 0.02, 2),
                                 Fingerprint(whole.begin() + 400, whole.begin() + 900),
                                 disturbed(Fingerprint(whole.begin() + 100, whole.end()), 0.01, 3)};
    for (unsigned seed = 10; seed < 40; ++seed) {
        all.push_back(randomWords(2000, seed));
    }
    const auto found = candidatesOf(all);
    const auto pair = [&](std::uint32_t first, std::uint32_t second) {
        const auto at = std::ranges::find_if(found, [&](const FingerprintCandidate& candidate) {
            return candidate.first == first && candidate.second == second;
        });
        return at != found.end() ? std::optional(*at) : std::nullopt;
    };
    REQUIRE(pair(0, 1));
    CHECK(pair(0, 1)->offset == 0);
    REQUIRE(pair(0, 2));
    CHECK(pair(0, 2)->offset == 400);
    REQUIRE(pair(0, 3));
    CHECK(pair(0, 3)->offset == 100);
    CHECK(std::ranges::none_of(found,
                               [](const FingerprintCandidate& candidate) { return candidate.second > 3; }));
    CHECK(agreementNear(all[0], all[1], 0)->bitErrors == Approx(0.02).margin(0.003));
    CHECK(agreementNear(all[0], all[3], 101)->offset == 100);
    CHECK(agreementNear(all[0], all[20], 0)->bitErrors == Approx(0.5).margin(0.02));
    CHECK_FALSE(agreementNear(all[0], all[1], 1500).has_value());
}

TEST_CASE("silence and steady tones meet nothing; four hundred copies stay one affair") {
    Fingerprint tone(1000, 0x12345678U);
    for (std::size_t at = 0; at < tone.size(); at += 50) {
        tone[at] ^= 1U << (at / 50 % 3);
    }
    CHECK_FALSE(isTelling(tone));
    CHECK_FALSE(isTelling(randomWords(10, 1)));
    CHECK(candidatesOf(std::vector<Fingerprint>(200, tone)).empty());

    const auto recording = randomWords(1500, 9);
    std::vector<Fingerprint> copies;
    for (unsigned i = 0; i < 400; ++i) {
        copies.push_back(disturbed(recording, 0.005, i));
    }
    const auto found = candidatesOf(copies);
    CHECK(found.size() < 30'000); // of 79,800 pairs
    std::vector<std::uint32_t> group(copies.size());
    for (std::uint32_t i = 0; i < group.size(); ++i) {
        group[i] = i;
    }
    for (bool changed = true; changed;) {
        changed = false;
        for (const auto& candidate : found) {
            const auto least = std::min(group[candidate.first], group[candidate.second]);
            changed = changed || group[candidate.first] != group[candidate.second];
            group[candidate.first] = group[candidate.second] = least;
        }
    }
    CHECK(std::ranges::count(group, 0U) == 400);
}
