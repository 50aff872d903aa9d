#include "demo/encode.h"
#include "demo/repertoire.h"
#include "demo/synth.h"
#include "support/demo_copy.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <set>

using namespace sober;
using namespace sober::test;
using demo::Voice;

namespace {

/// Energy above a frequency relative to all, by the plainest means: a first difference repeated,
/// compared with the ffmpeg tool's own high-pass filter.
double loudness(const BytePath& path, const std::string& filter) {
    const auto result =
        run({"ffmpeg", "-nostdin", "-i", path, "-af", filter + "volumedetect", "-f", "null", "-"});
    const auto at = result.err.find("mean_volume: ");
    return at == std::string::npos ? -999 : std::stod(result.err.substr(at + 13));
}

} // namespace

TEST_CASE("the demo's voices are full-band, alive and different from one another") {
    const TempFolder folder;
    std::set<long> levels;
    for (const auto voice : {Voice::choir, Voice::brass, Voice::harmonium, Voice::bells, Voice::plucked,
                             Voice::surf, Voice::fogSignal, Voice::speech}) {
        const auto samples = demo::synthesise({voice, 5, 4, 96});
        REQUIRE(samples.size() == 4 * 44100 * 2);
        const auto loudest =
            std::ranges::max(samples, {}, [](std::int16_t sample) { return std::abs(int{sample}); });
        CHECK(std::abs(int{loudest}) > 20'000);
        CHECK(std::abs(int{loudest}) < 32'767);
        const BytePath path = folder / (std::to_string(static_cast<int>(voice)) + ".wav");
        REQUIRE(demo::encode(samples, {"t", "a", "b", 1, 2000}, path));
        const double all = loudness(path, "");
        const double high = loudness(path, "highpass=f=16000,highpass=f=16000,");
        CAPTURE(static_cast<int>(voice));
        CHECK(all > -40);
        CHECK(high > -91); // 16-bit silence is -91 dB: something real lies above 16 kHz
        levels.insert(std::lround(high * 10) * 100'000 + std::lround(all * 10));
    }
    CHECK(levels.size() == 8);
}

TEST_CASE("the same seed gives the same samples and the same bytes, another seed others") {
    const auto one = demo::synthesise({Voice::brass, 7, 2, 90});
    CHECK(one == demo::synthesise({Voice::brass, 7, 2, 90}));
    CHECK(one != demo::synthesise({Voice::brass, 8, 2, 90}));
    const TempFolder folder;
    for (const auto* ending : {"wav", "flac", "mp3", "m4a", "ogg", "opus"}) {
        const BytePath a = folder / ("a." + std::string(ending));
        const BytePath b = folder / ("b." + std::string(ending));
        REQUIRE(demo::encode(one, {"Title", "Artist", "Album", 3, 1998}, a));
        REQUIRE(demo::encode(one, {"Title", "Artist", "Album", 3, 1998}, b));
        CAPTURE(ending);
        CHECK(readFile(a) == readFile(b));
    }
}

TEST_CASE("the repertoire is large and varied enough") {
    const auto all = demo::repertoire();
    std::set<std::string> titles, endings;
    std::set<std::uint32_t> seeds;
    for (const auto& recording : all) {
        titles.insert(recording.tags.title);
        endings.insert(recording.ending);
        seeds.insert(recording.piece.seed);
        CHECK(recording.piece.seconds >= 5);
        CHECK(recording.piece.seconds <= 40);
    }
    CHECK(all.size() >= 90);
    CHECK(titles.size() == all.size());
    CHECK(seeds.size() == all.size());
    CHECK(endings == std::set<std::string>{"flac", "m4a", "mp3", "ogg", "opus", "wav"});
}

TEST_CASE("make-demo throws away its own folder only") {
    const TempFolder folder;
    writeFile(folder / "mine/letter.txt", "Dear Sir");
    const auto refused = run({MAKE_DEMO, folder / "mine", SOBER_PROGRAM});
    CHECK(refused.code == 1);
    CHECK(refused.err.find("something else") != std::string::npos);
    CHECK(readFile(folder / "mine/letter.txt") == "Dear Sir");
    CHECK(run({MAKE_DEMO}).code == 2);
}

TEST_CASE("everything that the truth names is as the truth says") {
    const auto truth = demoTruth();
    const auto there = [](const nlohmann::json& path) {
        return run({"test", "-e", TEST_DEMO "/" + path.get<std::string>()}).code == 0;
    };
    for (const auto& gone : truth["missing"]) {
        CHECK_FALSE(there(gone["path"]));
    }
    for (const auto& moved : truth["moved"]) {
        CHECK_FALSE(there(moved["from"]));
        CHECK(there(moved["to"]));
    }
    for (const auto& added : truth["added_later"]) {
        CHECK(there(added));
    }
    for (const auto& set : truth["copy_sets"]) {
        const auto& members = set["members"];
        if (set["sameness"] != "bytes") {
            continue;
        }
        for (const auto& member : members) {
            CHECK(run({"cmp", "-s", TEST_DEMO "/" + members[0].get<std::string>(),
                       TEST_DEMO "/" + member.get<std::string>()})
                      .code == 0);
        }
        if (!set["hard_links"].empty()) {
            CHECK(run({"find", TEST_DEMO "/" + set["hard_links"][0].get<std::string>(), "-samefile",
                       TEST_DEMO "/" + set["hard_links"][1].get<std::string>()})
                      .out.size() > 1);
        }
    }
}
