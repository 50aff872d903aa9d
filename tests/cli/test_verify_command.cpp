#include "core/catalogue/catalogue.h"
#include "core/catalogue/policies.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// Two copies and a tagged file on one volume, recorded.
struct OneVolume : TempFolder {
    OneVolume() {
        writeFile(*this / "V/a.wav", smallWav(1, 8));
        writeFile(*this / "V/sub/copy.wav", smallWav(1, 8));
        ffmpeg({"-i", *this / "V/a.wav", "-metadata", "title=Slipway", *this / "V/c.flac"});
        CHECK(ask({"survey", *this / "V", "--effort", "full"})["added"] == 3);
    }
    json ask(std::vector<std::string> words, int code = 0) const {
        words.emplace_back("--json");
        const auto result = sober::test::sober(*this / "c.sqlite", words);
        INFO(result.out << result.err);
        CHECK(result.code == code);
        return json::parse(result.out);
    }
    void damage(const BytePath& path) const {
        auto content = readFile(path);
        content.replace(50'000, 6, "damage");
        writeFile(path, content);
    }
};

/// What a stand-in hears on a session bus of its own while the command runs beside it.
std::string heardBeside(const char* standIn, const OneVolume& volume, const std::vector<std::string>& words) {
    const std::string heard = volume / "heard";
    fs::remove(heard);
    std::vector<std::string> line{
        "dbus-run-session",
        "--",
        "sh",
        "-c",
        "service=$1; heard=$2; shift 2; \"$service\" \"$heard\" > \"$heard.ready\" & until grep -q ready "
        "\"$heard.ready\" 2>/dev/null; do sleep 0.05; done; \"$@\"; code=$?; kill $!; exit $code",
        "sh",
        standIn,
        heard,
        SOBER_PROGRAM,
        "--catalogue",
        volume / "c.sqlite",
        "--quiet"};
    line.insert(line.end(), words.begin(), words.end());
    const auto result = run(line);
    INFO(result.err);
    CHECK(result.code == 0);
    return readFile(heard);
}

} // namespace

TEST_CASE("verify answers in the contract's shape, and drift is no failure") {
    const OneVolume volume;
    const auto whole = volume.ask({"verify"});
    CHECK(whole["schema"] == "sober.verify/1");
    CHECK(whole["checked"] == 3);
    CHECK(whole["unchanged"] == 3);
    CHECK(whole["bytes_read"] == fs::file_size(volume / "V/a.wav") * 2 + fs::file_size(volume / "V/c.flac"));
    CHECK(whole["drift"].empty());
    CHECK(whole["errors"].empty());

    volume.damage(volume / "V/a.wav");
    const auto after = volume.ask({"verify", "--strong"});
    REQUIRE(after["drift"].size() == 1);
    const auto& drift = after["drift"][0];
    CHECK(drift["path"] == volume / "V/a.wav");
    CHECK(drift["kind"] == "audio-altered");
    CHECK(drift["blocks"] == json::parse("[[0,0]]"));
    CHECK(drift["healthy_copies"] == json(std::vector<std::string>{volume / "V/sub/copy.wav"}));
    CHECK(volume.ask({"condition"})["findings"]["drift"] == 1);
    CHECK(volume.ask({"verify", volume / "V/sub"})["checked"] == 1);
    CHECK(volume.ask({"verify", volume / "V/c.flac"})["drift"].empty());
    CHECK(volume.ask({"verify", "--due"})["checked"] == 0);
    CHECK(volume.ask({"verify", "--sample", "50"})["checked"] == 2);
    CHECK(volume.ask({"verify", "--slowly", "1000", "--from-memory"})["checked"] == 3);
    const auto spoken = sober::test::sober(volume / "c.sqlite", {"verify"});
    CHECK(spoken.out.find("audio-altered  " + (volume / "V/a.wav")) != std::string::npos);
    CHECK(spoken.out.find("healthy copy: " + (volume / "V/sub/copy.wav")) != std::string::npos);
}

TEST_CASE("what drifted is restored, and taken back, by the headless command") {
    const OneVolume volume;
    const auto before = readFile(volume / "V/a.wav");
    volume.damage(volume / "V/a.wav");
    const auto damaged = readFile(volume / "V/a.wav");
    volume.ask({"verify"});
    const auto docket = volume.ask({"docket", "add", "restore", volume / "V/a.wav"});
    CHECK(docket["actions"][0]["kind"] == "restore");
    CHECK(docket["actions"][0]["refused"].is_null());
    CHECK(docket["frees_bytes"] == 0);
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(readFile(volume / "V/a.wav") == before);
    CHECK(volume.ask({"condition"})["findings"]["drift"] == 0);
    CHECK(volume.ask({"ledger"})["entries"][0]["kind"] == "carry-out");
    CHECK(volume.ask({"undo", "last"})["done"] == 1);
    CHECK(readFile(volume / "V/a.wav") == damaged);

    CHECK(volume.ask({"docket", "add", "accept", volume / "V/a.wav", "--reason",
                      "I did it"})["actions"][0]["kind"] == "accept-change");
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(volume.ask({"verify"})["drift"].empty());
    const auto nothing = volume.ask({"docket", "add", "restore", volume / "V/a.wav"}, 1);
    CHECK(nothing["actions"][0]["refused"].get<std::string>().find("nothing to mend") != std::string::npos);
}

TEST_CASE("a path that is on no volume, and options that do not go together, are refused with a sentence") {
    const OneVolume volume;
    struct Row {
        std::vector<std::string> words;
        int code;
        const char* says;
    };
    const auto row = GENERATE(values<Row>({
        {{"verify", "/nowhere"}, 1, "on no volume"},
        {{"verify", "--due", "--sample", "5"}, 2, "excludes"},
        {{"verify", "--sample", "0"}, 2, "sample"},
        {{"docket", "add", "suggested", "--policy", "none such"}, 1, "no policy named"},
        {{"docket", "add", "retire", "/x", "--policy", "p"}, 2, "--policy"},
        {{"docket", "add", "retag", "/x"}, 2, "gets tags"},
        {{"docket", "add", "retire", "/x", "--from", "/y"}, 2, "gets tags"},
        {{"list", "check", "/nowhere"}, 1, "nowhere"},
        {{"list", "write", "/nowhere"}, 1, "on no volume"},
        {{"list", "write", "/x", "--kind", "sum"}, 2, "kind"},
    }));
    const auto result = sober::test::sober(volume / "c.sqlite", row.words);
    INFO(result.err);
    CHECK(result.code == row.code);
    CHECK(result.err.find(row.says) != std::string::npos);
    CHECK(result.out.empty());
}

TEST_CASE("tags are taken over by the headless command, conflicts left alone") {
    const OneVolume volume;
    ffmpeg({"-i", volume / "V/a.wav", "-metadata", "title=Slip Way", "-metadata", "genre=Polka", "-metadata",
            "artist=Band", volume / "V/d.flac"});
    ffmpeg({"-i", volume / "V/a.wav", "-metadata", "artist=Another", volume / "V/e.flac"});
    volume.ask({"survey", volume / "V"});
    const auto docket = volume.ask(
        {"docket", "add", "retag", volume / "V/c.flac", "--from", volume / "V/d.flac", volume / "V/e.flac"});
    REQUIRE(docket["actions"].size() == 1);
    CHECK(docket["actions"][0]["kind"] == "retag");
    CHECK(docket["actions"][0]["reason"].get<std::string>().starts_with("GENRE: Polka; from "));
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    const auto tags = run({"metaflac", "--export-tags-to=-", volume / "V/c.flac"}).out;
    CHECK(tags.find("GENRE=Polka") != std::string::npos);
    CHECK(tags.find("TITLE=Slipway") != std::string::npos);
    CHECK(tags.find("ARTIST") == std::string::npos); // the others disagree
    CHECK(run({"flac", "--test", "--silent", volume / "V/c.flac"}).code == 0);
    CHECK(volume.ask({"verify"})["drift"].empty()); // our own doing is no drift
    const auto again = sober::test::sober(
        volume / "c.sqlite", {"docket", "add", "retag", volume / "V/c.flac", "--from", volume / "V/d.flac"});
    CHECK(again.code == 0); // the artist is still to be had from one alone
}

TEST_CASE("a kept policy decides what the headless command suggests") {
    const OneVolume volume;
    {
        const auto catalogue = Catalogue::openForWriting(volume / "c.sqlite");
        REQUIRE(Policies(*catalogue)
                    .keep({0, "below sub", {{PreferenceKind::inFolder, 0, "sub"}}, Sameness::bytes, true})
                    .ok());
    }
    const auto plain = volume.ask({"docket", "add", "suggested"});
    const auto has = [](const json& docket, const BytePath& path) {
        return std::ranges::any_of(docket["actions"],
                                   [&](const json& action) { return action["path"] == path; });
    };
    CHECK(has(plain, volume / "V/sub/copy.wav"));
    volume.ask({"docket", "clear"});
    const auto preferred = volume.ask({"docket", "add", "suggested", "--policy", "below sub"});
    CHECK_FALSE(has(preferred, volume / "V/sub/copy.wav"));
}

TEST_CASE("a scheduled check tells the desktop of what is new, once") {
    const OneVolume volume;
    const auto told = [&] { return heardBeside(NOTIFICATION_SERVICE, volume, {"verify", "--notify"}); };
    CHECK(told().empty());
    volume.damage(volume / "V/a.wav");
    fs::remove(volume / "V/c.flac");
    const auto heard = told();
    CHECK(heard.starts_with("Sober Archivist: 2 holdings are not what was recorded\n3 holdings read."));
    CHECK(heard.find("The desk Fixity shows all of it.") != std::string::npos);
    CHECK(told().empty());
    // Without a desktop the check is made all the same.
    const auto alone = run({"env", "-u", "DBUS_SESSION_BUS_ADDRESS", SOBER_PROGRAM, "--catalogue",
                            volume / "c.sqlite", "--quiet", "verify", "--notify"});
    CHECK(alone.code == 0);
}

TEST_CASE("what is missing comes back from a folder that is no volume") {
    const OneVolume volume;
    const auto before = readFile(volume / "V/c.flac");
    fs::create_directories(volume / "backup");
    fs::rename(volume / "V/c.flac", volume / "backup/x");
    volume.ask({"survey", volume / "V"});
    CHECK(volume.ask({"docket", "add", "restore", volume / "V/c.flac"}, 1)["actions"][0]["refused"]
              .is_string());
    const auto sought = volume.ask({"seek", volume / "backup"});
    CHECK(sought["schema"] == "sober.seek/1");
    CHECK(sought["found"][0]["path"] == volume / "backup/x");
    const auto verified = volume.ask({"verify"});
    CHECK(verified["drift"][0]["kind"] == "missing");
    CHECK(verified["drift"][0]["healthy_copies"][0] == volume / "backup/x");
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    CHECK((readFile(volume / "V/c.flac") == before));
    CHECK(sober::test::sober(volume / "c.sqlite", {"seek", volume / "nowhere"}).code == 1);
}

TEST_CASE("a list made before is taken for what files should be") {
    const OneVolume volume;
    const auto list = run({"sh", "-c", "cd " + (volume / "V") + " && sha256sum a.wav c.flac"}).out;
    writeFile(volume / "V/list.sha256", list + "rubbish\n");
    volume.damage(volume / "V/a.wav");
    volume.ask({"survey", volume / "V", "--effort", "full"});
    const auto taken = volume.ask({"list", "take", volume / "V/list.sha256"}, 3); // a line could not be used
    CHECK(taken["as_listed"] == 1);
    CHECK(taken["drifted"][0]["path"] == volume / "V/a.wav");
    CHECK(volume.ask({"docket", "add", "restore", volume / "V/a.wav"})["actions"][0]["refused"].is_null());
}

TEST_CASE("a bag is written, checked, and found wanting") {
    const OneVolume volume;
    CHECK(volume.ask({"bag", "write", volume / "V", "--to", volume / "bag"})["files"] == 3);
    CHECK(volume.ask({"bag", "check", volume / "bag"})["valid"] == true);
    volume.damage(volume / "bag/data/a.wav");
    const auto checked = volume.ask({"bag", "check", volume / "bag"});
    CHECK(checked["complete"] == true);
    CHECK(checked["valid"] == false);
    CHECK(checked["problems"][0]["path"] == "data/a.wav");
    CHECK(sober::test::sober(volume / "c.sqlite", {"bag", "check", volume / "V"}).code == 1);
    CHECK(sober::test::sober(volume / "c.sqlite", {"bag", "write", volume / "V", "--to", volume / "bag"})
              .code == 1);
    const auto events = sober::test::sober(volume / "c.sqlite", {"ledger", "--premis"});
    CHECK(events.code == 0);
    CHECK(events.out.starts_with("<?xml"));
}

TEST_CASE("junk is left out of a file on request, and the schedule is shown before it is installed") {
    const OneVolume volume;
    ffmpeg({"-i", volume / "V/a.wav", volume / "V/d.mp3"});
    const auto sound = readFile(volume / "V/d.mp3");
    writeFile(volume / "V/d.mp3", sound + std::string(500, 'x'));
    volume.ask({"survey", volume / "V", "--effort", "full"});
    const auto said = volume.ask({"examine", volume / "V/d.mp3"})["holdings"][0]["soundness"];
    CHECK(said["sound"] == true);
    CHECK(said["remarks"][0]["kind"] == "junk");
    CHECK(volume.ask({"docket", "add", "repair", volume / "V/d.mp3"})["actions"][0]["kind"] == "rewrite");
    CHECK(volume.ask({"docket", "carry-out"})["done"] == 1);
    CHECK((readFile(volume / "V/d.mp3") == sound));

    const auto shown = sober::test::sober(volume / "c.sqlite", {"schedule", "show", "--every", "month"});
    CHECK(shown.out.find("OnCalendar=monthly") != std::string::npos);
    CHECK(shown.out.find("systemctl --user disable --now") != std::string::npos);
    CHECK(sober::test::sober(volume / "c.sqlite", {"schedule", "often"}).code == 2);
}

TEST_CASE("a schedule begins and ends by asking the manager of the person's units") {
    const OneVolume volume;
    const std::string timer = "sober-archivist-check.timer";
    CHECK(heardBeside(UNIT_MANAGER, volume, {"schedule", "install"}) ==
          "Reload\nEnableUnitFiles " + timer + "\nReload\nStartUnit " + timer + "\n");
    CHECK(heardBeside(UNIT_MANAGER, volume, {"schedule", "remove"}) ==
          "DisableUnitFiles " + timer + "\nStopUnit " + timer + "\nReload\n");
}
