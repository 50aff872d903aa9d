#include "core/remedy/docket/review.h"
#include "core/survey/verify.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/examined.h"
#include "support/killing.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const std::string manyStrayBytes(900, 'x');

/// Where a frame in the middle begins: the files are of a constant bitrate and their frames of 626 or 627
/// bytes.
std::size_t middleFrameOf(const std::string& content) {
    const auto header = content.substr(content.find("\xFF\xFB"), 2);
    auto at = content.find(header, content.size() / 2);
    while (content.substr(at + 626, 2) != header && content.substr(at + 627, 2) != header) {
        at = content.find(header, at + 1);
    }
    return at;
}

/// An MP3 with tags and an Ogg file, each with junk before, within or behind its audio.
struct Littered : Collection {
    Littered() {
        fs::create_directories(*this / "V");
        writeMusic(*this / "music.wav", 17, 5);
        for (const std::string name : {"a.mp3", "within.mp3", "b.ogg", "clean.mp3", "c.flac"}) {
            ffmpeg({"-i", *this / "music.wav", "-metadata", "title=Fog", "-write_id3v1", "1", "-b:a", "192k",
                    *this / ("V/" + name)});
            sound[name] = readFile(*this / ("V/" + name));
        }
        auto& mp3 = littered["a.mp3"] = sound["a.mp3"];
        mp3.insert(mp3.size() - 128, manyStrayBytes); // between the last frame and the ID3v1 tag
        littered["within.mp3"] = sound["within.mp3"];
        littered["within.mp3"].insert(middleFrameOf(sound["within.mp3"]), manyStrayBytes);
        auto& ogg = littered["b.ogg"] = sound["b.ogg"] + manyStrayBytes;
        ogg.insert(ogg.find("OggS", ogg.size() / 2), manyStrayBytes);
        for (const auto& [name, content] : littered) {
            writeFile(*this / ("V/" + name), content);
        }
        RunControl control;
        REQUIRE(surveyVolume(catalogue(), {*this / "V", {}, {}, Effort::full}, control, [](const Progress&) {
                }).ok());
    }
    void checkWhole() {
        const auto now = readFile(*this / "V/a.mp3");
        CHECK((now == littered["a.mp3"] || now == sound["a.mp3"]));
    }
    std::map<std::string, std::string> sound;
    std::map<std::string, std::string> littered;
};

struct RewritingScene : Littered {
    RewritingScene() { putOnDocket(ActionKind::rewrite, "V", "a.mp3"); }
};

/// The tool's hash over the packets of the audio stream.
std::string packetsByTool(const BytePath& path) {
    return run({"ffmpeg", "-nostdin", "-v", "quiet", "-i", path, "-map", "0:a", "-c", "copy", "-f",
                "streamhash", "-"})
        .out;
}

} // namespace

TEST_CASE("junk is left out of MP3 and Ogg, the audio and the tags stay, and all of it can be taken back") {
    Littered collection;
    const std::string name = GENERATE(as<std::string>(), "a.mp3", "within.mp3", "b.ogg");
    CAPTURE(name);
    const auto path = collection / ("V/" + name);
    CHECK(examined(path)->junkBytes == (name == "b.ogg" ? 1800 : 900));
    collection.putOnDocket(ActionKind::rewrite, "V", name);
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    INFO((carried->refused.empty() ? std::string() : carried->refused.front().sentence));
    REQUIRE(carried->done == 1);
    // It is byte for byte what the encoder wrote.
    CHECK((readFile(path) == collection.sound[name]));
    const auto evidence = examined(path);
    CHECK(evidence->junkBytes == 0);
    CHECK(evidence->sound());
    writeFile(collection / "as-encoded", collection.sound[name]);
    CHECK(packetsByTool(path) == packetsByTool(collection / "as-encoded"));
    CHECK(verifyHoldings(collection.catalogue(), {}, control, [](const Progress&) {})->drift.empty());

    REQUIRE(undoEntry(collection.catalogue(), carried->entry, control, {})->refused.empty());
    CHECK((readFile(path) == collection.littered[name]));
    CHECK(verifyHoldings(collection.catalogue(), {}, control, [](const Progress&) {})->drift.empty());
}

TEST_CASE("what holds no junk, or is of another kind, is not made anew") {
    Littered collection;
    collection.putOnDocket(ActionKind::rewrite, "V", "clean.mp3");
    collection.putOnDocket(ActionKind::rewrite, "V", "c.flac");
    const auto review = reviewDocket(collection.catalogue());
    CHECK(review->refused == 2);
    RunControl control;
    CHECK(carryOut(collection.catalogue(), control, {})->done == 0);
    CHECK((readFile(collection / "V/clean.mp3") == collection.sound["clean.mp3"]));
}

TEST_CASE("killed at any instant of rewriting, the next start finishes it or takes it back") {
    const int instants = killAtEveryInstant<RewritingScene>(
        "carry-out", [](Collection&) {},
        [](RewritingScene& collection) {
            RunControl control;
            CHECK(carryOut(collection.catalogue(), control, {})->refused.empty());
            CHECK((readFile(collection / "V/a.mp3") == collection.sound["a.mp3"]));
            CHECK(contentsBelow(collection / "V").size() == 5);
        });
    CHECK(instants == 7);
}
