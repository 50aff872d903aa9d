// What could be better, what may take its place and why the rest may not, by the command; the disk is looked
// at afterwards. Encodings by ffmpeg and lame, tags by metaflac and ffprobe, a real HTTP exchange with the
// stand-in.
#include "support/run_program.h"
#include "support/running_service.h"
#include "support/sound.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A low copy that a list leads to, and beside it what looks as if it were better: made once.
struct BetterMade {
    BetterMade() {
        for (const auto* name : {"V/Music", "B", "made", "S"}) {
            fs::create_directories(folder / name);
        }
        writeMusic(folder / "made/low.wav", 61, 26);
        writeMusic(folder / "made/other.wav", 63, 26);
        const std::vector<std::string> named{"-metadata", "title=Low Water", "-metadata", "artist=Ensemble"};
        const auto make = [&](const std::string& from, std::vector<std::string> words,
                              const std::string& to) {
            words.insert(words.begin(), {"-i", folder / from});
            words.insert(words.end(), named.begin(), named.end());
            words.push_back(folder / to);
            ffmpeg(words);
        };
        make("made/low.wav", {"-b:a", "96k", "-metadata", "genre=Shanty"}, "V/Music/Low Water.mp3");
        make("made/low.wav", {"-metadata", "genre=Folk", "-metadata", "composer=E. Marl"}, "B/whole.flac");
        make("made/low.wav", {"-af", "volume=-6dB"}, "B/quieter.flac");
        make("made/low.wav", {"-t", "20"}, "B/shorter.flac");
        make("made/low.wav", {"-af", "aselect='not(between(t,8,15))',asetpts=N/SR/TB"}, "B/edit.flac");
        make("made/other.wav", {}, "B/other.flac");
        make("V/Music/Low Water.mp3", {"-b:a", "320k"}, "B/raised.mp3");
        make("made/low.wav", {}, "B/hurt.flac");
        auto content = readFile(folder / "B/hurt.flac");
        content.replace(content.size() / 2, 3'000, std::string(3'000, '\x55'));
        writeFile(folder / "B/hurt.flac", content);
        // Of another recording, which is offered alone; one of the offers is not what it promises.
        writeMusic(folder / "made/far.wav", 67, 20);
        const std::vector<std::string> far{"-metadata", "title=Far Light", "-metadata", "artist=Ensemble"};
        const auto makeFar = [&](std::vector<std::string> words, const std::string& from,
                                 const std::string& to) {
            words.insert(words.begin(), {"-i", folder / from});
            words.insert(words.end(), far.begin(), far.end());
            words.push_back(folder / to);
            ffmpeg(words);
        };
        makeFar({"-b:a", "96k"}, "made/far.wav", "V/Music/Far Light.mp3");
        makeFar({}, "made/far.wav", "S/far.flac");
        makeFar({"-b:a", "320k"}, "V/Music/Far Light.mp3", "S/raised.mp3");
        makeFar({}, "made/other.wav", "S/another.flac");
        json offers = json::array();
        for (const auto& [file, codec, bitrate] : {std::tuple("far.flac", "flac", 900'000),
                                                   {"raised.mp3", "mp3", 320'000},
                                                   {"another.flac", "flac", 900'000}}) {
            offers.push_back({{"file", file},
                              {"title", "Far Light"},
                              {"artist", "ensemble"},
                              {"seconds", 20},
                              {"codec", codec},
                              {"lossless", std::string(codec) == "flac"},
                              {"bitrate", bitrate}});
        }
        writeFile(folder / "S/offers.json", offers.dump());
    }
    TempFolder folder;
};

struct Replacing {
    Replacing() {
        static const BetterMade made;
        for (const auto* name : {"V", "B", "S"}) {
            copyFolder(made.folder / name, folder / name);
        }
        writeFile(folder / "V/lists/all.m3u8", "#EXTM3U\n../Music/Far Light.mp3\n../Music/Low Water.mp3\n");
        CHECK(tell({"survey", folder / "V", folder / "B", "--effort", "full"}).code == 0);
        CHECK(tell({"players", "add", folder / "V/lists"}).code == 0);
    }
    ProgramRun tell(const std::vector<std::string>& words) const {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue", folder / "c.sqlite"};
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    }
    json wanted(const std::string& name) const {
        const auto ran = tell({"replace"});
        INFO(ran.err);
        REQUIRE(ran.code == 0);
        const auto answer = json::parse(ran.out);
        for (const auto& each : answer["wanted"]) {
            if (fs::path(each["path"].get<std::string>()).filename() == name) {
                return each;
            }
        }
        return {};
    }
    static std::map<std::string, std::string> refusedOf(const json& wanted) {
        std::map<std::string, std::string> refused;
        for (const auto& each : wanted["refused"]) {
            refused[fs::path(each["path"].get<std::string>()).filename()] = each["reason"];
        }
        return refused;
    }
    TempFolder folder;
};

} // namespace

TEST_CASE("What could be better is listed with what is better, and the rest with the reason why not") {
    const Replacing scene;
    const auto low = scene.wanted("Low Water.mp3");
    INFO(low.dump(1));
    CHECK(low["why"].get<std::string>().starts_with("under-limit"));
    REQUIRE(low["candidates"].size() == 1);
    CHECK(low["candidates"][0]["path"] == scene.folder / "B/whole.flac");
    CHECK(low["candidates"][0]["source"] == "volume");
    CHECK(Replacing::refusedOf(low) == std::map<std::string, std::string>{{"quieter.flac", "other-master"},
                                                                          {"shorter.flac", "other-length"},
                                                                          {"edit.flac", "other-edit"},
                                                                          {"other.flac", "only-tags"},
                                                                          {"raised.mp3", "not-better"},
                                                                          {"hurt.flac", "unsound"}});
    // What was accepted as it is is not asked about again.
    CHECK(scene.tell({"docket", "add", "accept", scene.folder / "V/Music/Low Water.mp3"}).code == 0);
    CHECK(scene.tell({"docket", "carry-out"}).code == 0);
    CHECK(scene.wanted("Low Water.mp3").is_null());
}

TEST_CASE("A replacement keeps place, tags, lists and history, and is taken back") {
    const Replacing scene;
    const auto old = readFile(scene.folder / "V/Music/Low Water.mp3");
    const auto list = readFile(scene.folder / "V/lists/all.m3u8");
    const auto done = scene.tell(
        {"replace", scene.folder / "V/Music/Low Water.mp3", "--by", scene.folder / "B/whole.flac"});
    INFO(done.err);
    REQUIRE(done.code == 0);
    CHECK(json::parse(done.out)["done"] == 1);
    const auto fresh = scene.folder / "V/Music/Low Water.flac";
    CHECK_FALSE(fs::exists(scene.folder / "V/Music/Low Water.mp3"));
    CHECK(readFile(scene.folder / "V/lists/all.m3u8") ==
          "#EXTM3U\n../Music/Far Light.mp3\n../Music/Low Water.flac\n");
    // What the old one said stays; what only the new one knows is left to it.
    CHECK(run({"metaflac", "--show-tag=GENRE", "--show-tag=COMPOSER", fresh}).out ==
          "GENRE=Shanty\nCOMPOSER=E. Marl\n");
    CHECK(run({"metaflac", "--show-md5sum", fresh}).out ==
          run({"metaflac", "--show-md5sum", scene.folder / "B/whole.flac"}).out);
    CHECK(run({"flac", "-t", "-s", fresh}).code == 0);
    // It is known, examined, and wanted no more; the other is as it was.
    CHECK(scene.wanted("Low Water.flac").is_null());
    CHECK(json::parse(scene.tell({"survey", scene.folder / "V"}).out)["changed"] == 0);
    CHECK(fs::exists(scene.folder / "B/whole.flac"));

    REQUIRE(scene.tell({"undo", "last"}).code == 0);
    CHECK((readFile(scene.folder / "V/Music/Low Water.mp3") == old));
    CHECK(readFile(scene.folder / "V/lists/all.m3u8") == list);
    CHECK_FALSE(fs::exists(fresh));
    CHECK(scene.wanted("Low Water.mp3")["candidates"].size() == 1);
}

TEST_CASE("A replacement goes where a layout says, and its lists with it") {
    const Replacing scene;
    CHECK(scene
              .tell({"replace", scene.folder / "V/Music/Low Water.mp3", "--by", scene.folder / "B/whole.flac",
                     "--layout", "nonsense("})
              .code == 2);
    const auto done = scene.tell({"replace", scene.folder / "V/Music/Low Water.mp3", "--by",
                                  scene.folder / "B/whole.flac", "--layout", "genre / artist / title"});
    INFO(done.err);
    REQUIRE(done.code == 0);
    CHECK(fs::exists(scene.folder / "V/Shanty/Ensemble/Low Water.flac"));
    CHECK(readFile(scene.folder / "V/lists/all.m3u8").ends_with("../Shanty/Ensemble/Low Water.flac\n"));
    CHECK(scene.tell({"undo", "last"}).code == 0);
    CHECK(fs::exists(scene.folder / "V/Music/Low Water.mp3"));
    CHECK(readFile(scene.folder / "V/lists/all.m3u8").ends_with("../Music/Low Water.mp3\n"));
}

TEST_CASE("Hostile words in an offer steer nothing") {
    const Replacing scene;
    auto offers = json::parse(readFile(scene.folder / "S/offers.json"));
    offers[0]["title"] = "Far Light";
    offers[0]["codec"] = "fl\x1b[2Jac\n\xe2\x80\xae";
    writeFile(scene.folder / "S/offers.json", offers.dump());
    const RunningShelf shelf(scene.folder / "S");
    CHECK(scene.tell({"replace", "--shelf", shelf.address()}).code == 0);
    const auto told = run({SOBER_PROGRAM, "--quiet", "--catalogue", scene.folder / "c.sqlite", "replace"});
    CHECK(told.code == 0);
    CHECK(told.out.find('\x1b') == std::string::npos);
    CHECK(told.out.find("\xe2\x80\xae") == std::string::npos);
}

TEST_CASE("What does not fit is refused, whoever names it, and nothing changes") {
    const Replacing scene;
    const auto before = contentsBelow(scene.folder / "V");
    const std::vector<std::pair<std::string, std::string>> wrong{
        {"B/quieter.flac", "other-master"},      {"B/shorter.flac", "other-length"},
        {"B/edit.flac", "other-edit"},           {"B/other.flac", "only-tags"},
        {"B/raised.mp3", "not-better"},          {"B/hurt.flac", "unsound"},
        {"V/Music/Low Water.mp3", "same bytes"}, {"B/none.flac", "is not there"}};
    for (const auto& [by, why] : wrong) {
        const auto told = scene.tell(
            {"docket", "add", "replace", scene.folder / "V/Music/Low Water.mp3", "--to", scene.folder / by});
        CAPTURE(by, told.err);
        CHECK(told.code == 1);
        CHECK(told.err.find(why) != std::string::npos);
    }
    CHECK(scene.tell({"replace", scene.folder / "V/Music/Low Water.mp3"}).code == 2);
    CHECK(scene.tell({"replace", "--shelf", "ftp://127.0.0.1"}).code == 2);
    // The candidate changes after it was chosen.
    CHECK(scene
              .tell({"docket", "add", "replace", scene.folder / "V/Music/Low Water.mp3", "--to",
                     scene.folder / "B/whole.flac"})
              .code == 0);
    writeFile(scene.folder / "B/whole.flac", readFile(scene.folder / "B/other.flac"));
    const auto carried = scene.tell({"docket", "carry-out"});
    CHECK(json::parse(carried.out)["done"] == 0);
    CHECK(carried.err.find("is not what was compared any more") != std::string::npos);
    CHECK((contentsBelow(scene.folder / "V") == before));
}

TEST_CASE("An offer is believed once it was fetched and examined") {
    const Replacing scene;
    const auto before = contentsBelow(scene.folder / "V");
    const auto left = [&] {
        return fs::exists(scene.folder / "c.sqlite.offers") &&
               !fs::is_empty(scene.folder / "c.sqlite.offers");
    };
    CHECK(scene.wanted("Far Light.mp3")["candidates"].empty());
    const RunningShelf shelf(scene.folder / "S");
    const auto set = scene.tell({"replace", "--shelf", shelf.address()});
    CHECK(set.code == 0);
    CHECK(set.err.find("titles, artists and lengths are sent") != std::string::npos);
    const auto far = scene.wanted("Far Light.mp3");
    INFO(far.dump(1));
    REQUIRE(far["candidates"].size() == 3);
    CHECK(far["candidates"][0]["source"] == "offer");
    CHECK(Replacing::refusedOf(scene.wanted("Low Water.mp3")).contains(fs::path(shelf.address()).filename()));
    const auto take = [&](const std::string& name) {
        return scene.tell({"replace", scene.folder / "V/Music/Far Light.mp3", "--by",
                           shelf.address() + "/files/" + name, "--tags", "take"});
    };
    for (const auto& [name, why] : {std::pair("raised.mp3", "not-better"), {"another.flac", "only-tags"}}) {
        const auto told = take(name);
        CAPTURE(name, told.err);
        CHECK(told.code == 1);
        CHECK(told.err.find(why) != std::string::npos);
        CHECK_FALSE(left());
    }
    CHECK((contentsBelow(scene.folder / "V") == before));
    const auto taken = take("far.flac");
    INFO(taken.err);
    REQUIRE(taken.code == 0);
    CHECK((readFile(scene.folder / "V/Music/Far Light.flac") == readFile(scene.folder / "S/far.flac")));
    CHECK_FALSE(left());
    CHECK(scene.tell({"replace", "--no-shelf"}).code == 0);
    CHECK(scene.tell({"undo", "last"}).code == 0);
    CHECK((contentsBelow(scene.folder / "V") == before));
    const auto none = take("far.flac");
    CHECK(none.code == 1);
    CHECK(none.err.find("No offer shelf was set up") != std::string::npos);
}

TEST_CASE("All for which something better is at hand are replaced at once") {
    const Replacing scene;
    const auto done = scene.tell({"replace", "--advised"});
    INFO(done.err);
    REQUIRE(done.code == 0);
    CHECK(json::parse(done.out)["done"] == 1);
    CHECK(fs::exists(scene.folder / "V/Music/Low Water.flac"));
    CHECK(fs::exists(scene.folder / "V/Music/Far Light.mp3"));
}
