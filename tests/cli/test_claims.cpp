#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A volume with an honest file, a false lossless, a low MP3, something cut short and something that is
/// no audio.
struct Volume {
    Volume() {
        fs::create_directories(folder / "V");
        writeMusic(folder / "V/honest.wav", 61, 8);
        ffmpeg({"-i", folder / "V/honest.wav", "-c:a", "libmp3lame", "-b:a", "128k", folder / "V/low.mp3"});
        ffmpeg({"-i", folder / "V/low.mp3", "-sample_fmt", "s16", folder / "V/false.flac"});
        ffmpeg({"-i", folder / "V/honest.wav", folder / "V/cut.flac"});
        fs::resize_file(folder / "V/cut.flac", fs::file_size(folder / "V/cut.flac") / 2);
        writeFile(folder / "V/letter.mp3", "Dear Sir");
    }
    json ask(std::vector<std::string> words, int expected = 0) {
        words.emplace_back("--json");
        const auto result = sober::test::sober(folder / "c.sqlite", words);
        INFO(result.out << result.err);
        REQUIRE(result.code == expected);
        return json::parse(result.out);
    }
    std::string say(const std::vector<std::string>& words) {
        const auto result = sober::test::sober(folder / "c.sqlite", words);
        INFO(result.err);
        REQUIRE(result.code == 0);
        return result.out;
    }
    TempFolder folder;
};

} // namespace

TEST_CASE("claims answers in the contract's shape, the worst first, from the catalogue") {
    Volume volume;
    const auto surveyed = volume.ask({"survey", volume.folder / "V", "--effort", "full"}, 3);
    CHECK(surveyed["added"] == 4);
    CHECK(surveyed["errors"].size() == 1);
    const auto claims = volume.ask({"claims"});
    CHECK(claims["schema"] == "sober.claims/1");
    REQUIRE(claims["holdings"].size() == 1);
    const auto& holding = claims["holdings"][0];
    CHECK(holding["path"] == volume.folder / "V/false.flac");
    CHECK(holding["claimed"]["codec"] == "flac");
    CHECK(holding["claimed"]["lossless"] == true);
    CHECK(holding["verdict"]["class"] == "transcoded");
    CHECK(holding["verdict"]["source_codec"] == "mp3");
    CHECK(holding["measured"]["trace"]["codec"] == "mp3");
    CHECK(holding["measured"]["trace"]["strength"] > 12);
    CHECK(holding["soundness"]["sound"] == true);
    // What examine says of the file itself is the same: the catalogue keeps it whole.
    const auto fresh =
        json::parse(run({SOBER_PROGRAM, "examine", "--json", volume.folder / "V/false.flac"}).out);
    for (const auto* part : {"claimed", "verdict", "soundness", "checksums"}) {
        CAPTURE(part);
        CHECK(holding[part] == fresh["holdings"][0][part]);
    }
    CHECK(holding["measured"]["cutoff_hz"] == fresh["holdings"][0]["measured"]["cutoff_hz"]);
    CHECK(volume.say({"claims"}).find("1 holding whose evidence contradicts") != std::string::npos);

    // A second survey at full effort reads nothing but what could not be examined.
    const auto again = volume.ask({"survey", volume.folder / "V", "--effort", "full"}, 3);
    CHECK(again["unchanged"] == 4);
    CHECK(again["bytes_read"] <= fs::file_size(volume.folder / "V/cut.flac") + 16);
}

TEST_CASE("before anything was examined claims is empty; condition says what is not sound") {
    Volume volume;
    volume.ask({"survey", volume.folder / "V"}, 3);
    CHECK(volume.ask({"claims"})["holdings"].empty());
    CHECK(volume.ask({"condition"})["findings"]["damaged"] == 0);
    volume.ask({"survey", volume.folder / "V", "--effort", "full"}, 3);
    const auto condition = volume.ask({"condition"});
    CHECK(condition["findings"]["claims"] == 1);
    CHECK(condition["findings"]["damaged"] == 1);
}

TEST_CASE("an acceptance by the headless command holds for every copy, and is taken back") {
    Volume volume;
    volume.ask({"survey", volume.folder / "V", "--effort", "full"}, 3);
    const auto before = readFile(volume.folder / "V/false.flac");
    const auto docket = volume.ask(
        {"docket", "add", "accept", volume.folder / "V/false.flac", "--reason", "the only one there is"});
    REQUIRE(docket["actions"].size() == 1);
    CHECK(docket["actions"][0]["kind"] == "accept");
    CHECK(docket["actions"][0]["refused"].is_null());
    CHECK(docket["frees_bytes"] == 0);
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(volume.ask({"claims"})["holdings"].empty());
    CHECK(readFile(volume.folder / "V/false.flac") == before);

    // Under other tags, in another place, it is the same recording.
    REQUIRE(run({"metaflac", "--set-tag=TITLE=Another", volume.folder / "V/false.flac"}).code == 0);
    fs::rename(volume.folder / "V/false.flac", volume.folder / "V/renamed.flac");
    volume.ask({"survey", volume.folder / "V", "--effort", "full"}, 3);
    CHECK(volume.ask({"claims"})["holdings"].empty());

    CHECK(volume.ask({"undo", "last"})["done"] == 1);
    REQUIRE(volume.ask({"claims"})["holdings"].size() == 1);
    CHECK(volume.ask({"claims"})["holdings"][0]["path"] == volume.folder / "V/renamed.flac");
}

TEST_CASE("an acceptance that makes no sense is refused with a sentence") {
    Volume volume;
    volume.ask({"survey", volume.folder / "V"}, 3);
    const auto refused = sober::test::sober(
        volume.folder / "c.sqlite",
        {"docket", "add", "accept", volume.folder / "V/honest.wav", "--reason", "why not"});
    const auto document = volume.ask({"docket"});
    const bool saidAtOnce = refused.code == 1 && refused.err.find("examined") != std::string::npos;
    const bool saidOnDocket = !document["actions"].empty() && document["actions"][0]["refused"].is_string();
    CHECK((saidAtOnce || saidOnDocket));
}
