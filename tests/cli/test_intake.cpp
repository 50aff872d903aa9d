// Arrivals by the command: what is held, better, worse, false or damaged is told, filed and let go of; the
// disk is looked at afterwards. Encodings by ffmpeg and lame, tags read by ffprobe and metaflac.
#include "support/run_program.h"
#include "support/sound.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A collection with two recordings and an inbox with one arrival of each kind, made once.
struct ArrivalsMade {
    ArrivalsMade() {
        for (const auto* name : {"V/Music", "in", "made"}) {
            fs::create_directories(folder / name);
        }
        for (const auto& [name, seed] :
             {std::pair("one", 41U), {"two", 42U}, {"new", 43U}, {"false", 44U}, {"hurt", 45U}}) {
            writeMusic(folder / (std::string("made/") + name + ".wav"), seed, 14);
        }
        encode("one", {"-metadata", "title=One", "-metadata", "artist=Ensemble"}, "V/Music/One.flac");
        encode("two", {"-b:a", "128k", "-metadata", "title=Two", "-metadata", "artist=Ensemble"},
               "V/Music/Two.mp3");
        encode("one", {"-metadata", "title=First"}, "in/same sound.flac");
        encode("one", {"-b:a", "160k"}, "in/worse.mp3");
        encode("two", {"-metadata", "title=Two", "-metadata", "artist=Ensemble", "-metadata", "album=Tides"},
               "in/better.flac");
        encode("new", {}, "in/03 - Ensemble - Slack  Water.flac");
        encode("false", {"-b:a", "96k"}, "made/false.mp3");
        ffmpeg({"-i", folder / "made/false.mp3", folder / "in/false.flac"});
        encode("hurt", {}, "in/hurt.flac");
        auto content = readFile(folder / "in/hurt.flac");
        content.replace(content.size() / 2, 3'000, std::string(3'000, '\x55'));
        writeFile(folder / "in/hurt.flac", content);
        for (const auto& entry : fs::directory_iterator(folder / "in")) {
            fs::last_write_time(entry.path(), fs::file_time_type::clock::now() - std::chrono::hours(2));
        }
    }
    void encode(const std::string& name, const std::vector<std::string>& words, const std::string& to) const {
        std::vector<std::string> line{"-i", folder / ("made/" + name + ".wav")};
        line.insert(line.end(), words.begin(), words.end());
        line.push_back(folder / to);
        ffmpeg(line);
    }
    TempFolder folder;
};

struct Arriving {
    Arriving() {
        static const ArrivalsMade made;
        copyFolder(made.folder / "V", folder / "V");
        copyFolder(made.folder / "in", folder / "in");
        CHECK(tell({"survey", folder / "V", "--effort", "full"}).code == 0);
        CHECK(tell({"intake", "add", folder / "in", "--into", folder / "V/Taken in"}).code == 0);
    }
    ProgramRun tell(const std::vector<std::string>& words) const {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue", folder / "c.sqlite"};
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    }
    std::map<std::string, json> arrivals() const {
        const auto ran = tell({"intake"});
        INFO(ran.err);
        REQUIRE(ran.code == 0);
        std::map<std::string, json> all;
        const auto answer = json::parse(ran.out);
        for (const auto& each : answer["arrivals"]) {
            all[fs::path(each["path"].get<std::string>()).filename()] = each;
        }
        return all;
    }
    bool isThere(const std::string& path) const { return fs::exists(folder / path); }
    TempFolder folder;
};

} // namespace

TEST_CASE("Arrivals are told by what is held of them") {
    const Arriving arriving;
    const auto arrivals = arriving.arrivals();
    REQUIRE(arrivals.size() == 6);
    const auto& same = arrivals.at("same sound.flac");
    CHECK(same["advice"] == "retire");
    CHECK(same["held"][0]["better"] == "equal");
    CHECK(same["held"][0]["path"] == arriving.folder / "V/Music/One.flac");
    const auto& worse = arrivals.at("worse.mp3");
    CHECK(worse["advice"] == "retire");
    CHECK(worse["held"][0]["better"] == "held");
    CHECK(worse["held"][0]["sameness"] == "lossy-copy");
    const auto& better = arrivals.at("better.flac");
    INFO(better.dump());
    CHECK(better["advice"] == "replace");
    CHECK(better["held"][0]["better"] == "arrival");
    const auto& fresh = arrivals.at("03 - Ensemble - Slack  Water.flac");
    CHECK(fresh["advice"] == "take-in");
    CHECK(fresh["held"].empty());
    CHECK(fresh["verdict"] == "genuine");
    CHECK(arrivals.at("false.flac")["advice"] == "leave");
    CHECK(arrivals.at("false.flac")["verdict"] == "transcoded");
    CHECK(arrivals.at("hurt.flac")["advice"] == "leave");
    CHECK(arrivals.at("hurt.flac")["sound"] == false);
    std::map<std::string, std::string> proposed;
    for (const auto& proposal : fresh["proposals"]) {
        proposed[proposal["field"]] = proposal["shall"];
    }
    CHECK(proposed == std::map<std::string, std::string>{
                          {"TITLE", "Slack Water"}, {"ARTIST", "Ensemble"}, {"TRACKNUMBER", "3"}});
}

TEST_CASE("What is advised is done: filed with mended tags, replaced, let go of, and taken back") {
    const Arriving arriving;
    const auto better = readFile(arriving.folder / "in/better.flac");
    const auto taken = arriving.tell({"intake", "take", "--advised", "--with-proposals"});
    INFO(taken.err);
    REQUIRE(taken.code == 0);
    CHECK(json::parse(taken.out)["refused"].empty());
    // Filed by its tags as they are now; its audio is the same.
    const auto filed = arriving.folder / "V/Taken in/Ensemble/03 Slack Water.flac";
    REQUIRE(fs::exists(filed));
    CHECK(run({"metaflac", "--show-tag=TITLE", "--show-tag=ARTIST", "--show-tag=TRACKNUMBER", filed}).out ==
          "TITLE=Slack Water\nARTIST=Ensemble\nTRACKNUMBER=3\n");
    CHECK(run({"flac", "-t", "-s", filed}).code == 0);
    // The better one is there, the lower one is not.
    CHECK((readFile(arriving.folder / "V/Taken in/Ensemble/Tides/Two.flac") == better));
    CHECK_FALSE(arriving.isThere("V/Music/Two.mp3"));
    CHECK(arriving.isThere("V/Music/One.flac"));
    // What is held, and what was filed, has left the inbox; what is to be looked at lies there.
    std::set<std::string> left;
    for (const auto& entry : fs::directory_iterator(arriving.folder / "in")) {
        if (entry.is_regular_file()) {
            left.insert(entry.path().filename());
        }
    }
    CHECK(left == std::set<std::string>{"false.flac", "hurt.flac"});
    CHECK(arriving.arrivals().size() == 2);
}

TEST_CASE("A picture that is far too large is made smaller in every kind of tag, the audio data untouched") {
    const Arriving arriving;
    fs::remove_all(arriving.folder / "in");
    fs::create_directories(arriving.folder / "in");
    ffmpeg({"-f", "lavfi", "-i", "nullsrc=s=1600x1300,geq=random(1)*255:128:128", "-frames:v", "1",
            arriving.folder / "noise.png"});
    const auto size = [&](const std::string& name) {
        return run({"ffprobe", "-v", "error", "-select_streams", "v", "-show_entries",
                    "stream=codec_name,width", "-of", "csv=p=0", arriving.folder / name})
            .out;
    };
    const auto audio = [&](const std::string& name) {
        return run({"ffmpeg", "-v", "error", "-i", arriving.folder / name, "-map", "0:a", "-c", "copy", "-f",
                    "md5", "-"})
            .out;
    };
    const std::vector<std::pair<std::string, std::vector<std::string>>> kinds{
        {"flac", {"-c:a", "flac"}}, {"mp3", {"-b:a", "128k"}}, {"m4a", {"-c:a", "aac"}}};
    std::map<std::string, std::string> before;
    unsigned seed = 90;
    for (const auto& [ending, options] : kinds) {
        const auto name = "in/large." + ending;
        writeMusic(arriving.folder / "piece.wav", ++seed, 8);
        std::vector<std::string> line{"-i",
                                      arriving.folder / "piece.wav",
                                      "-i",
                                      arriving.folder / "noise.png",
                                      "-map",
                                      "0",
                                      "-map",
                                      "1",
                                      "-c:v",
                                      "copy",
                                      "-disposition:v",
                                      "attached_pic",
                                      "-metadata",
                                      "title=Large " + ending,
                                      "-metadata",
                                      "artist=Ensemble"};
        line.insert(line.end(), options.begin(), options.end());
        line.push_back(arriving.folder / name);
        ffmpeg(line);
        CHECK(size(name) == "png,1600\n");
        before[ending] = audio(name);
        fs::last_write_time(arriving.folder / name, fs::file_time_type::clock::now() - std::chrono::hours(2));
    }
    for (const auto& [name, arrival] : arriving.arrivals()) {
        CAPTURE(name);
        REQUIRE(arrival["proposals"].size() == 1);
        CHECK(arrival["proposals"][0]["reason"] == "large-picture");
    }
    CHECK(arriving.tell({"intake", "take", "--advised", "--with-proposals"}).code == 0);
    for (const auto& [ending, options] : kinds) {
        const auto name = "V/Taken in/Ensemble/Large " + ending + "." + ending;
        CAPTURE(name);
        CHECK(size(name) == "mjpeg,1200\n");
        CHECK(audio(name) == before[ending]);
    }
}

TEST_CASE("Mended tags are what the tools of each format read") {
    const Arriving arriving;
    fs::remove_all(arriving.folder / "in");
    fs::create_directories(arriving.folder / "in");
    const std::vector<std::pair<std::string, std::vector<std::string>>> kinds{
        {"ogg", {"-c:a", "libvorbis"}}, {"mp3", {"-b:a", "160k"}}, {"m4a", {"-c:a", "aac"}}};
    unsigned seed = 130;
    for (const auto& [ending, options] : kinds) {
        writeMusic(arriving.folder / "piece.wav", ++seed, 8);
        std::vector<std::string> line{"-i",        arriving.folder / "piece.wav",
                                      "-metadata", "title=F\u00c3\u00bcr  " + ending,
                                      "-metadata", "artist=Ensemble [www.songs.example.com]"};
        line.insert(line.end(), options.begin(), options.end());
        line.push_back(arriving.folder / ("in/x." + ending));
        ffmpeg(line);
        fs::last_write_time(arriving.folder / ("in/x." + ending),
                            fs::file_time_type::clock::now() - std::chrono::hours(2));
    }
    CHECK(arriving.tell({"intake", "take", "--advised", "--with-proposals"}).code == 0);
    const auto placed = [&](const std::string& ending) {
        return arriving.folder / ("V/Taken in/Ensemble/F\u00fcr " + ending + "." + ending);
    };
    const auto comments = run({"vorbiscomment", "-R", "-l", placed("ogg")}).out;
    CHECK(comments.find("F\u00fcr ogg\n") != std::string::npos);
    CHECK(comments.find("=Ensemble\n") != std::string::npos);
    for (const std::string ending : {"mp3", "m4a"}) {
        CHECK(run({"ffprobe", "-v", "error", "-show_entries", "format_tags=title,artist", "-of", "csv=p=0",
                   placed(ending)})
                  .out == "Ensemble,F\u00fcr " + ending + "\n");
    }
}

TEST_CASE("An inbox within a volume that is only indexed is examined in full") {
    const Arriving arriving;
    fs::create_directories(arriving.folder / "P/arriving");
    fs::copy_file(arriving.folder / "in/worse.mp3", arriving.folder / "P/arriving/worse.mp3");
    fs::copy_file(arriving.folder / "in/better.flac", arriving.folder / "P/better.flac");
    fs::last_write_time(arriving.folder / "P/arriving/worse.mp3",
                        fs::file_time_type::clock::now() - std::chrono::hours(2));
    CHECK(arriving.tell({"survey", arriving.folder / "P", "--effort", "index"}).code == 0);
    CHECK(
        arriving
            .tell({"intake", "add", arriving.folder / "P/arriving", "--into", arriving.folder / "V/Taken in"})
            .code == 0);
    const auto arrivals = arriving.arrivals();
    CHECK(arrivals.at("worse.mp3")["advice"] == "retire");
    const auto answer = json::parse(arriving.tell({"condition"}).out);
    CHECK(answer["volumes"].size() == 3); // and no volume of its own for it
}

TEST_CASE("A list of the latest arrivals is kept for a player, and what others wrote is left") {
    const Arriving arriving;
    const auto list = arriving.folder / "V/latest.xspf";
    CHECK(arriving
              .tell({"intake", "add", arriving.folder / "in", "--into", arriving.folder / "V/Taken in",
                     "--latest", arriving.folder / "V/latest.txt"})
              .code == 2);
    CHECK(arriving
              .tell({"intake", "add", arriving.folder / "in", "--into", arriving.folder / "V/Taken in",
                     "--latest", list})
              .code == 0);
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/better.flac"}).code == 0);
    CHECK(run({"xmllint", "--noout", list}).code == 0);
    CHECK(readFile(list).find("Two.flac") != std::string::npos);
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/03 - Ensemble - Slack  Water.flac"}).code ==
          0);
    const auto both = readFile(list);
    CHECK(both.find("Slack") < both.find("Two.flac"));
    CHECK(both.find("Two.flac") != std::string::npos);
    // Its player has written to it since.
    writeFile(list, both + "<!-- mine -->");
    const auto taken = arriving.tell({"intake", "take", arriving.folder / "in/false.flac"});
    CHECK(taken.code == 3);
    CHECK(taken.err.find("was changed since") != std::string::npos);
    CHECK(readFile(list) == both + "<!-- mine -->");
    CHECK(json::parse(arriving.tell({"docket"}).out)["actions"].empty());
}

TEST_CASE("What is named is filed, whatever was advised, and what is no arrival is refused") {
    const Arriving arriving;
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/false.flac"}).code == 0);
    CHECK_FALSE(arriving.isThere("in/false.flac"));
    CHECK(arriving.isThere("V/Taken in/false.flac"));
    CHECK(arriving.tell({"intake", "take", arriving.folder / "V/Music/One.flac"}).code == 1);
    CHECK(arriving.tell({"intake", "take"}).code == 2);
    CHECK(arriving.isThere("in/better.flac"));
}

TEST_CASE("Inboxes do not lie within each other, and nothing is filed into one") {
    const Arriving arriving;
    const auto add = [&](const BytePath& folder, const BytePath& into, const std::string& layout = "") {
        std::vector<std::string> words{"intake", "add", folder, "--into", into};
        if (!layout.empty()) {
            words.insert(words.end(), {"--layout", layout});
        }
        return arriving.tell(words).code;
    };
    CHECK(add(arriving.folder / "in/deeper", arriving.folder / "V") == 1);
    CHECK(add(arriving.folder / "", arriving.folder / "V") == 1);
    CHECK(add(arriving.folder / "other", arriving.folder / "in/here") == 1);
    CHECK(add(arriving.folder / "other", arriving.folder / "other/here") == 1);
    CHECK(add(arriving.folder / "other", arriving.folder / "V", "no such field") == 2);
    CHECK(add(arriving.folder / "in", arriving.folder / "V/Elsewhere", "artist / title|name") == 0);
    CHECK(arriving.arrivals().at("better.flac")["target"] ==
          arriving.folder / "V/Elsewhere/Ensemble/Two.flac");
    CHECK(arriving.tell({"intake", "remove", arriving.folder / "in"}).code == 0);
    CHECK(arriving.tell({"intake", "remove", arriving.folder / "in"}).code == 1);
    CHECK(arriving.arrivals().empty());
}

TEST_CASE("A file that is still being written is left until it rests") {
    const Arriving arriving;
    fs::last_write_time(arriving.folder / "in/better.flac", fs::file_time_type::clock::now());
    const auto arrival = arriving.arrivals().at("better.flac");
    CHECK(arrival["advice"] == "leave");
    CHECK(arrival["reasons"][0] == "It is still arriving.");
    CHECK(arriving.tell({"intake", "take", "--advised"}).code == 0);
    CHECK(arriving.isThere("in/better.flac"));
}

TEST_CASE("Of several arrivals of one recording the best is filed, the others are judged against it then") {
    const Arriving arriving;
    // The new recording came a second time, as an MP3, and once more with other tags.
    const auto fresh = arriving.folder / "in/03 - Ensemble - Slack  Water.flac";
    ffmpeg({"-i", fresh, "-b:a", "160k", arriving.folder / "in/again.mp3"});
    ffmpeg({"-i", fresh, "-c:a", "copy", "-metadata", "title=Twice", arriving.folder / "in/twice.flac"});
    for (const auto* name : {"in/again.mp3", "in/twice.flac"}) {
        fs::last_write_time(arriving.folder / name, fs::file_time_type::clock::now() - std::chrono::hours(1));
    }
    const auto arrivals = arriving.arrivals();
    std::size_t takenIn = 0;
    for (const auto* name : {"03 - Ensemble - Slack  Water.flac", "again.mp3", "twice.flac"}) {
        const auto& arrival = arrivals.at(name);
        const bool isTaken = arrival["advice"] == "take-in";
        takenIn += isTaken ? 1 : 0;
        CHECK((isTaken || arrival["advice"] == "leave"));
        CHECK((isTaken ||
               arrival["reasons"][0].get<std::string>().find("has arrived too") != std::string::npos));
        CHECK(arrival["held"].empty());
    }
    CHECK(takenIn == 1);
    CHECK(arrivals.at("again.mp3")["advice"] == "leave");
    CHECK(arriving.tell({"intake", "take", "--advised"}).code == 0);
    // What was left is held already now, or the same sound.
    const auto after = arriving.arrivals();
    CHECK(after.at("again.mp3")["advice"] == "retire");
    CHECK(after.at("again.mp3")["held"][0]["better"] == "held");
}

TEST_CASE("Arrivals are filed by another layout where somebody says so, and a wrong one says what is wrong") {
    const Arriving arriving;
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/better.flac", "--layout", "no such field"})
              .code == 2);
    CHECK(arriving.isThere("in/better.flac"));
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/better.flac", "--layout", "album / title"})
              .code == 0);
    CHECK(arriving.isThere("V/Taken in/Tides/Two.flac"));
}

TEST_CASE("An arrival that is gone, a link or no audio is none, and what cannot be filed costs a sentence") {
    const Arriving arriving;
    fs::remove(arriving.folder / "in/hurt.flac");
    fs::create_symlink(arriving.folder / "V/Music/One.flac", arriving.folder / "in/link.flac");
    writeFile(arriving.folder / "in/part.crdownload", std::string(5'000, 'x'));
    writeFile(arriving.folder / "in/archive.zip", "PK\x03\x04");
    const auto arrivals = arriving.arrivals();
    CHECK(arrivals.size() == 5);
    CHECK_FALSE(arrivals.contains("link.flac"));
    // Something stands where it would go: it gets another name, and that stays.
    fs::create_directories(arriving.folder / "V/Taken in/Ensemble/Tides");
    writeFile(arriving.folder / "V/Taken in/Ensemble/Tides/Two.flac", "somebody's");
    CHECK(arriving.tell({"intake", "take", arriving.folder / "in/better.flac"}).code == 0);
    CHECK(readFile(arriving.folder / "V/Taken in/Ensemble/Tides/Two.flac") == "somebody's");
    CHECK_FALSE(arriving.isThere("in/better.flac"));
}

TEST_CASE("An arrival that its program renames while it is taken in, and one with tags of megabytes, cost a "
          "sentence or nothing") {
    const Arriving arriving;
    ffmpeg({"-i", arriving.folder / "in/better.flac", "-c", "copy", "-metadata",
            "comment=" + std::string(100'000, 'x'), arriving.folder / "in/long.flac"});
    writeFile(arriving.folder / "words", std::string(800'000, 'y'));
    for (const auto* field : {"LYRICS", "NOTES", "MORE"}) {
        REQUIRE(
            run({"metaflac", std::string("--set-tag-from-file=") + field + "=" + (arriving.folder / "words"),
                 arriving.folder / "in/long.flac"})
                .code == 0);
    }
    fs::remove(arriving.folder / "in/better.flac");
    fs::last_write_time(arriving.folder / "in/long.flac",
                        fs::file_time_type::clock::now() - std::chrono::hours(2));
    const auto before = arriving.arrivals();
    CHECK(before.at("long.flac")["advice"] == "replace");
    fs::rename(arriving.folder / "in/same sound.flac", arriving.folder / "in/renamed.flac");
    const auto gone = arriving.tell({"intake", "take", arriving.folder / "in/same sound.flac"});
    CHECK(gone.code == 1);
    CHECK(gone.err.find("is no arrival in an inbox") != std::string::npos);
    CHECK(arriving.isThere("in/renamed.flac"));
    const auto taken = arriving.tell({"intake", "take", arriving.folder / "in/long.flac"});
    INFO(taken.err);
    CHECK(taken.code == 0);
    CHECK(arriving.isThere("V/Taken in/Ensemble/Tides/Two.flac"));
}

TEST_CASE("What takes an arrival in can be taken back, step by step") {
    const Arriving arriving;
    const auto mp3 = readFile(arriving.folder / "V/Music/Two.mp3");
    const auto better = readFile(arriving.folder / "in/better.flac");
    REQUIRE(arriving.tell({"intake", "take", arriving.folder / "in/better.flac"}).code == 0);
    CHECK_FALSE(arriving.isThere("V/Music/Two.mp3"));
    for (int i = 0; i < 3 && !arriving.isThere("in/better.flac"); ++i) {
        CHECK(arriving.tell({"undo", "last"}).code == 0);
    }
    CHECK((readFile(arriving.folder / "in/better.flac") == better));
    CHECK((readFile(arriving.folder / "V/Music/Two.mp3") == mp3));
}
