#include "core/players/location.h"
#include "core/remedy/docket/review.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>
#include <fmt/format.h>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A volume and one player's list of it; the volume is surveyed before or only after things were moved.
struct Moving : PlayerCollection {
    /// A file of its own content and length, and its entry in the list.
    void add(const BytePath& path, double seconds, bool told = true) {
        writeFile(*this / ("V/" + path), smallWav(++seed, seconds));
        std::string entry = told ? fmt::format("#EXTINF:{:.0f},{}\n", seconds, stemOf(nameOf(path))) : "";
        lines.push_back(entry + (*this / ("V/" + path)));
    }
    void listAll() {
        writeFile(*this / "L/all.m3u8", m3u(lines));
        addPlayer("one", "L");
    }
    void move(const BytePath& from, const BytePath& to) {
        const BytePath target = *this / ("V/" + to);
        fs::create_directories(parentOf(target));
        fs::rename(*this / ("V/" + from), target);
    }
    /// From lost path to target, both below V.
    std::map<BytePath, BytePath> linksOf(const Relinking& relinking) const {
        std::map<BytePath, BytePath> links;
        for (const auto& link : relinking.links) {
            links[below(relinking.lost[link.lost].path)] = below(link.target);
        }
        return links;
    }
    BytePath below(const BytePath& path) const { return relativeTo(path, *this / "V").value_or(path); }

    std::uint32_t seed = 0;
    std::vector<std::string> lines;
};

using Links = std::map<BytePath, BytePath>;

} // namespace

TEST_CASE("what the catalogue has seen is linked by content, and says which rule it is") {
    Moving all;
    for (const auto* name : {"a/one.wav", "a/two.wav", "a/deep/three.wav", "b/four.wav", "c/five.wav"}) {
        all.add(name, 1);
    }
    all.listAll();
    all.survey("V");
    all.read();
    all.move("a", "renamed/a, old");
    all.move("b/four.wav", "flat/four.wav");
    all.move("c/five.wav", "flat/five (2).wav");
    all.survey("V");
    const auto relinking = all.relinked();
    CHECK(all.linksOf(relinking) == Links{{"a/one.wav", "renamed/a, old/one.wav"},
                                          {"a/two.wav", "renamed/a, old/two.wav"},
                                          {"a/deep/three.wav", "renamed/a, old/deep/three.wav"},
                                          {"b/four.wav", "flat/four.wav"},
                                          {"c/five.wav", "flat/five (2).wav"}});
    CHECK(relinking.resolvedBefore == 0);
    CHECK(relinking.resolvedAfter == 5);
    REQUIRE_FALSE(relinking.rules.empty());
    CHECK(relinking.rules.front().from == all / "V/a");
    CHECK(relinking.rules.front().to == all / "V/renamed/a, old");
    CHECK(relinking.rules.front().count == 3);
    for (const auto& link : relinking.links) {
        CHECK(link.confidence == 1);
    }
    // A rule that is switched off links nothing of its own; content still does.
    const auto without = all.relinked({{}, {}, {relinking.rules.front()}});
    CHECK(without.links.size() == 5);
    // Carried out through the docket, and undone.
    const auto before = readFile(all / "L/all.m3u8");
    REQUIRE(planLinks(all.catalogue(), relinking, relinking.links).ok());
    CHECK(all.carryOutAll().references == 5);
    CHECK(all.figures("one").broken == 0);
    CHECK(all.undoLast().refused.empty());
    CHECK(readFile(all / "L/all.m3u8") == before);
}

TEST_CASE("what was never catalogued is linked where many names agree, and only there") {
    // Every row: what became of a tree, and the links that may be made.
    struct Row {
        std::string what;
        std::vector<std::pair<BytePath, BytePath>> moves;
        Links links;
        RelinkRuleKind rule;
    };
    const std::vector<BytePath> files{"m/x/alpha wave.wav", "m/x/beta wave.wav", "m/y/gamma wave.wav",
                                      "m/y/delta wave.wav"};
    const std::vector<Row> rows{
        {"renamed",
         {{"m", "n"}},
         {{files[0], "n/x/alpha wave.wav"},
          {files[1], "n/x/beta wave.wav"},
          {files[2], "n/y/gamma wave.wav"},
          {files[3], "n/y/delta wave.wav"}},
         RelinkRuleKind::folder},
        {"flattened",
         {{files[0], "f/alpha wave.wav"},
          {files[1], "f/beta wave.wav"},
          {files[2], "f/gamma wave.wav"},
          {files[3], "f/delta wave.wav"}},
         {{files[0], "f/alpha wave.wav"},
          {files[1], "f/beta wave.wav"},
          {files[2], "f/gamma wave.wav"},
          {files[3], "f/delta wave.wav"}},
         RelinkRuleKind::flattened},
        {"letter case",
         {{"m", "M"}},
         {{"M/x/alpha wave.wav", "M/x/alpha wave.wav"},
          {"M/x/beta wave.wav", "M/x/beta wave.wav"},
          {"M/y/gamma wave.wav", "M/y/gamma wave.wav"},
          {"M/y/delta wave.wav", "M/y/delta wave.wav"}},
         RelinkRuleKind::spelling},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        Moving all;
        double seconds = 1;
        for (const auto& file : files) {
            all.add(file, seconds += 4);
        }
        for (const auto& [from, to] : row.moves) {
            all.move(from, to);
        }
        all.survey("V");
        all.listAll();
        const auto relinking = all.relinked();
        CHECK(all.linksOf(relinking) == row.links);
        REQUIRE(relinking.rules.size() == 1);
        CHECK(relinking.rules.front().kind == row.rule);
        CHECK(relinking.rules.front().count == 4);
        const auto off = all.relinked({{}, {}, relinking.rules});
        CHECK(off.rules.empty());
    }
}

TEST_CASE("another recording of the same name is refused, and what is not certain is asked") {
    Moving all;
    for (int i = 1; i <= 6; ++i) {
        all.add(fmt::format("old/song {}.wav", i), 3.0 * i);
    }
    all.add("old/track.wav", 30);
    all.add("old/twice.wav", 40);
    all.add("old/seen.wav", 50);
    all.survey("V");
    all.listAll();
    all.move("old", "new");
    // The catalogue has seen these; it forgets them, so that only names and the list are left, but for one.
    Moving fresh;
    fs::remove_all(fresh / "V");
    fs::copy(all / "V", fresh / "V", fs::copy_options::recursive);
    std::string text = readFile(all / "L/all.m3u8");
    for (auto at = text.find(all / "V"); at != std::string::npos; at = text.find(all / "V")) {
        text.replace(at, (all / "V").size(), fresh / "V");
    }
    writeFile(fresh / "L/all.m3u8", text);
    writeFile(fresh / "V/new/song 2.wav", smallWav(902, 60));               // its name taken by a longer one
    fs::remove(fresh / "V/new/song 3.wav");                                 // gone, and a namesake elsewhere
    writeFile(fresh / "V/elsewhere/song 3.wav", smallWav(903, 9));          // of the same length
    fs::rename(fresh / "V/new/song 4.wav", fresh / "V/new/song 4 (2).wav"); // a numbered twin is not it
    fs::remove(fresh / "V/new/twice.wav");
    writeFile(fresh / "V/p/twice.wav", smallWav(904, 40));
    writeFile(fresh / "V/q/twice.wav", smallWav(905, 40));
    fresh.survey("V");
    fresh.addPlayer("one", "L");
    const auto relinking = fresh.relinked();
    CHECK(fresh.linksOf(relinking) == Links{{"old/song 1.wav", "new/song 1.wav"},
                                            {"old/song 5.wav", "new/song 5.wav"},
                                            {"old/song 6.wav", "new/song 6.wav"},
                                            {"old/track.wav", "new/track.wav"},
                                            {"old/seen.wav", "new/seen.wav"}});
    std::map<BytePath, std::size_t> asked;
    for (const auto& choice : relinking.ambiguous) {
        asked[fresh.below(relinking.lost[choice.lost].path)] = choice.candidates.size();
    }
    CHECK(asked == std::map<BytePath, std::size_t>{{"old/song 3.wav", 1}, {"old/twice.wav", 2}});
    std::map<BytePath, bool> reasons;
    for (const auto& each : relinking.unresolved) {
        reasons[fresh.below(relinking.lost[each.lost].path)] = !each.reason.empty();
    }
    CHECK(reasons == std::map<BytePath, bool>{{"old/song 2.wav", true}, {"old/song 4.wav", false}});

    // In the collection that was seen all the time, content decides, whatever the names say.
    all.read();
    writeFile(all / "V/new/seen.wav", smallWav(906, 50));
    all.survey("V");
    const auto seen = all.relinked();
    CHECK_FALSE(all.linksOf(seen).contains("old/seen.wav"));
    CHECK(all.linksOf(seen).size() == 8);
}

TEST_CASE("one example is enough for its whole tree, inside or outside of the catalogue") {
    Moving all;
    all.add("old/a/track 1.wav", 3, false);
    all.add("old/a/track 2.wav", 4, false);
    all.add("old/b/track 1.wav", 5, false);
    all.add("stays.wav", 5, false);
    all.listAll();
    all.survey("V");
    // A machine that was never catalogued: the files are elsewhere, under names that anything has.
    writeFile(all / "L/all.m3u8", m3u({"C:\\Audio\\a\\track 1.wav", "C:\\Audio\\a\\track 2.wav",
                                       "C:\\Audio\\b\\track 1.wav", "C:\\Audio\\b\\track 9.wav"}));
    fs::rename(all / "V/old", all / "outside");
    all.survey("V");
    CHECK(all.relinked().links.empty());
    const auto relinking =
        all.relinked({{}, {{"C:/Audio/a/track 1.wav", all / "outside/a/track 1.wav"}}, {}});
    CHECK(relinking.links.size() == 3);
    CHECK(relinking.unresolved.size() == 1);
    REQUIRE(relinking.rules.size() == 1);
    CHECK(relinking.rules.front().from == "C:/Audio");
    CHECK(relinking.rules.front().to == all / "outside");
    REQUIRE(planLinks(all.catalogue(), relinking, relinking.links).ok());
    CHECK(all.carryOutAll().done == 3);
    CHECK(readFile(all / "L/all.m3u8") == m3u({all / "outside/a/track 1.wav", all / "outside/a/track 2.wav",
                                               all / "outside/b/track 1.wav", "C:\\Audio\\b\\track 9.wav"}));
}

TEST_CASE("folders that are shown are searched by name, the nearest first, and opened for nothing else") {
    Moving all;
    for (int i = 1; i <= 4; ++i) {
        all.add(fmt::format("old/nocturne {}.wav", i), 3.0 + 4 * i);
    }
    all.listAll();
    all.survey("V");
    all.read();
    fs::create_directories(all / "near");
    fs::create_directories(all / "far");
    for (int i = 1; i <= 4; ++i) {
        const auto name = fmt::format("nocturne {}.wav", i);
        fs::copy(all / ("V/old/" + name), all / ("far/" + name));
        fs::rename(all / ("V/old/" + name), all / ("near/" + name));
    }
    writeFile(all / "near/nocturne 9.wav", smallWav(99));
    writeFile(all / "near/other.wav", "no audio");
    all.survey("V");
    CHECK(all.relinked().links.empty());
    const auto relinking = all.relinked({{all / "near", all / "far"}, {}, {}});
    REQUIRE(relinking.links.size() == 4);
    for (const auto& link : relinking.links) {
        CHECK(isWithin(link.target, all / "near"));
        CHECK(link.confidence ==
              1); // of the size that was catalogued, so read, and found to be the same bytes
    }
}

TEST_CASE("files that were renamed are known by their size and content in a folder that is shown, and show "
          "the rule") {
    Moving all;
    const auto newName = [](int i) { return fmt::format("flat/Vol {:02} - {:02} Piece.wav", i % 3, i); };
    for (int i = 0; i < 12; ++i) {
        all.add(fmt::format("old/Vol {:02}/{:02} Piece.wav", i % 3, i), 3.0 + 4 * i);
    }
    all.listAll();
    // Four were catalogued; of the others only the list tells.
    fs::create_directories(all / "aside");
    for (int i = 4; i < 12; ++i) {
        fs::rename(all / fmt::format("V/old/Vol {:02}/{:02} Piece.wav", i % 3, i),
                   all / fmt::format("aside/{}.wav", i));
    }
    all.survey("V");
    all.read();
    fs::create_directories(all / "flat");
    for (int i = 0; i < 12; ++i) {
        const auto from =
            i < 4 ? fmt::format("V/old/Vol {:02}/{:02} Piece.wav", i % 3, i) : fmt::format("aside/{}.wav", i);
        fs::rename(all / from, all / newName(i));
    }
    // Another recording has the name of one of them, a twin the size of another.
    writeFile(all / newName(11), smallWav(77, 9));
    writeFile(all / "flat/0 twin.wav", smallWav(78, 3.0));
    all.survey("V");
    CHECK(all.relinked().links.empty());
    const auto relinking = all.relinked({{all / "flat"}, {}, {}});
    Links expected;
    for (int i = 0; i < 11; ++i) {
        expected[fmt::format("old/Vol {:02}/{:02} Piece.wav", i % 3, i)] = all / newName(i);
    }
    CHECK(all.linksOf(relinking) == expected);
    REQUIRE(relinking.rules.size() == 1);
    CHECK(relinking.rules[0].count == 11);
    CHECK(wordsOf(relinking.rules[0]) ==
          fmt::format("{} to {}, named by folder and old name", all / "V/old", all / "flat"));
    REQUIRE(relinking.unresolved.size() == 1);
    CHECK(relinking.unresolved[0].reason.find("another recording") != std::string::npos);
    // Carried out, the list leads to the renamed ones.
    REQUIRE(planLinks(all.catalogue(), relinking, relinking.links).ok());
    CHECK(all.carryOutAll().done == 11);
    CHECK(readFile(all / "L/all.m3u8").find(newName(4)) != std::string::npos);
}

TEST_CASE("another format and folders sorted by tags are rules of their own") {
    // Real files: lengths and tags are read from them.
    Moving all;
    const auto make = [&](const BytePath& path, int number, const std::string& artist,
                          const std::string& album) {
        const BytePath whole = all / ("V/" + path);
        fs::create_directories(parentOf(whole));
        ffmpeg({"-f", "lavfi", "-i",
                fmt::format("sine=frequency={}:duration={}", 200 + 50 * number, 3 + 2 * number), "-metadata",
                fmt::format("title=Piece {}", number), "-metadata", "artist=" + artist, "-metadata",
                "album=" + album, whole});
    };
    std::string xspf = "<playlist version=\"1\" xmlns=\"http://xspf.org/ns/0/\"><trackList>";
    Links expected;
    int number = 0;
    for (const auto* band : {"Pier Band", "Lamp Choir"}) {
        for (const auto* album : {"Summer", "Winter"}) {
            for (int i = 0; i < 2; ++i) {
                ++number;
                const auto name = fmt::format("piece {}", number);
                const BytePath now = fmt::format("sorted/{}/{}/{}.ogg", band, album, name);
                make(now, number, band, album);
                const BytePath old = fmt::format("inbox/{}.mp3", name);
                expected[old] = now;
                xspf +=
                    fmt::format("<track><location>{}</location><title>Piece {}</title><creator>{}</creator>"
                                "<duration>{}</duration></track>",
                                fileUriOf(all / ("V/" + old)), number, band, (3 + 2 * number) * 1000);
            }
        }
    }
    writeFile(all / "L/library.xspf", xspf + "</trackList></playlist>");
    all.survey("V");
    all.addPlayer("one", "L");
    const auto relinking = all.relinked();
    CHECK(all.linksOf(relinking) == expected);
    REQUIRE(relinking.rules.size() == 1);
    CHECK(relinking.rules.front().kind == RelinkRuleKind::sortedByTags);
    CHECK(relinking.rules.front().to == all / "V/sorted");
    CHECK(relinking.rules.front().toEnding == "ogg");

    // Only the ending: the files lie where they lay.
    for (const auto& [old, now] : expected) {
        fs::create_directories(parentOf(all / ("V/" + old)));
        fs::rename(all / ("V/" + now), all / ("V/inbox/" + BytePath(stemOf(nameOf(now))) + ".ogg"));
    }
    all.survey("V");
    PlayerStore(all.catalogue()).remove(PlayerStore(all.catalogue()).all()->front().id).ok();
    all.addPlayer("again", "L");
    const auto format = all.relinked();
    CHECK(format.links.size() == 8);
    REQUIRE(format.rules.size() == 1);
    CHECK(format.rules.front().from == all / "V/inbox");
    CHECK(format.rules.front().to == all / "V/inbox");
    CHECK(format.rules.front().fromEnding == "mp3");
}
