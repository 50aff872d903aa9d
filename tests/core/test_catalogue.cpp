#include "core/catalogue/player_store.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;

TEST_CASE("a catalogue that cannot be used is refused with a sentence and left untouched") {
    const TempFolder folder;
    const BytePath path = folder / "catalogue.sqlite";
    { REQUIRE(Catalogue::openForWriting(path).ok()); }
    std::string content = readFile(path);
    Cause expected{};
    SECTION("written by a newer program") {
        content[63] = 99; // user version, big-endian at offset 60 (SQLite file format 1.3)
        expected = Cause::newer;
    }
    SECTION("another program's database") {
        content[71] = 'x'; // application id at offset 68
        expected = Cause::damaged;
    }
    SECTION("no database at all") {
        content = "Dear Sir, this is a letter and no catalogue.";
        expected = Cause::damaged;
    }
    SECTION("cut off") {
        content.resize(60);
        expected = Cause::damaged;
    }
    writeFile(path, content);
    for (const auto open : {&Catalogue::openForWriting, &Catalogue::openForReading}) {
        const auto opened = open(path);
        REQUIRE_FALSE(opened.ok());
        CHECK(opened.error().cause == expected);
        CHECK(opened.error().sentence.find("untouched") != std::string::npos);
    }
    CHECK(readFile(path) == content);
}

TEST_CASE("pages overwritten within a catalogue are met with a sentence, not an end") {
    Collection collection;
    for (int i = 0; i < 300; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"),
                  smallWav(static_cast<std::uint32_t>(i), 0.01));
    }
    collection.survey("V");
    BytePath path = collection.cataloguePath();
    collection.whileClosed([&] {
        std::string content = readFile(path);
        const std::string whole = content;
        for (std::size_t at = 8192; at + 4096 < content.size(); at += 8192) {
            content.replace(at, 2048, std::string(2048, '\x5A'));
        }
        writeFile(path, content);
        const auto condition = sober::test::sober(path, {"condition"});
        CHECK(condition.code == 1);
        CHECK(condition.err.find("damaged") != std::string::npos);
        writeFile(path, whole);
    });
}

TEST_CASE("a catalogue has one writer, readers may join") {
    const TempFolder folder;
    const auto writer = Catalogue::openForWriting(folder / "c.sqlite");
    REQUIRE(writer.ok());
    const auto second = Catalogue::openForWriting(folder / "c.sqlite");
    REQUIRE_FALSE(second.ok());
    CHECK(second.error().cause == Cause::busy);
    CHECK(Catalogue::openForReading(folder / "c.sqlite").ok());
    CHECK(Catalogue::openBeside(*writer).ok());
    CHECK(sober::test::sober(folder / "c.sqlite", {"survey", folder.path()})
              .err.find("another Sober Archivist") != std::string::npos);
    CHECK(sober::test::sober(folder / "c.sqlite", {"condition"}).code == 0);
}

TEST_CASE("what is written together is given up together, whatever became of a part of it") {
    const TempFolder folder;
    const auto catalogue = Catalogue::openForWriting(folder / "c.sqlite");
    REQUIRE(catalogue.ok());
    const PlayerStore players(*catalogue);
    const auto add = [&](const char* name) { return players.add({0, name, {folder.path()}}).ok(); };
    const auto written = catalogue->together([&] {
        CHECK(add("first"));
        CHECK_FALSE(catalogue
                        ->together([&] {
                            CHECK(add("second"));
                            return Outcome(Error{Cause::refused, {}, "Not this part."});
                        })
                        .ok());
        CHECK(add("after it"));
        return done(); // as if nothing had been
    });
    CHECK_FALSE(written.ok());
    CHECK(players.all()->empty());
    CHECK(catalogue->together([&] { return add("third") ? done() : Outcome(Error{}); }).ok());
    CHECK(players.all()->size() == 1);
}

TEST_CASE("a full disk under the catalogue ends a survey with a sentence and keeps what was there") {
    const TempFolder folder;
    for (int i = 0; i < 400; ++i) {
        writeFile(folder / ("V/" + std::to_string(i) + ".wav"),
                  smallWav(static_cast<std::uint32_t>(i), 0.005));
    }
    const BytePath path = folder / "c.sqlite";
    writeFile(folder / "W/a.wav", smallWav(9999));
    REQUIRE(sober::test::sober(path, {"survey", folder / "W"}).code == 0);
    // A limit on file size stands in for the full disk: the same refusal, at a chosen place.
    const auto full = run({"sh", "-c", "trap '' XFSZ; ulimit -f 64; exec \"$0\" \"$@\"", SOBER_PROGRAM,
                           "--catalogue", path, "--quiet", "survey", folder / "V"});
    CHECK(full.code == 1);
    CHECK(full.err.find("What was recorded before stays") != std::string::npos);
    const auto condition = sober::test::sober(path, {"condition", "--json"});
    CHECK(condition.code == 0);
    CHECK(condition.out.find("\"label\": \"W\"") != std::string::npos);
    const auto again = sober::test::sober(path, {"survey", "--json", folder / "V"});
    CHECK(again.code == 0);
    CHECK(again.out.find("\"seen\": 400") != std::string::npos);
}
