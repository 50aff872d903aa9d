#include "core/audit/plan_places.h"
#include "core/catalogue/holding_writer.h"
#include "core/remedy/docket/review.h"
#include "core/transfer/layout.h"
#include "core/transfer/reorder.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const std::string byAlbum = R"(albumartist|artist / album / disc "-" track.2 " " title)";

/// Tagged files in a heap, as FFmpeg writes their tags.
struct Heap : PlayerCollection {
    void add(const BytePath& name, const std::map<std::string, std::string>& tags, std::uint32_t content) {
        writeFile(*this / "plain.wav", smallWav(content));
        fs::create_directories(fs::path(*this / name).parent_path());
        std::vector<std::string> words{"ffmpeg", "-v", "error", "-y", "-i", *this / "plain.wav"};
        for (const auto& [field, value] : tags) {
            words.insert(words.end(), {"-metadata", field + "=" + value});
        }
        words.push_back(*this / name);
        const auto made = run(words);
        INFO(made.err);
        REQUIRE(made.code == 0);
    }
    std::vector<BytePath> order(const std::string& layout, const BytePath& folder = "V/heap") {
        const auto parsed = Layout::parse(layout);
        REQUIRE(parsed.ok());
        const auto reordered = reorder(catalogue(), *this / folder, layout);
        INFO((reordered ? std::string() : reordered.error().sentence));
        REQUIRE(reordered.ok());
        std::vector<BytePath> targets;
        std::vector<std::pair<HoldingId, BytePath>> moves;
        for (const auto& each : *reordered) {
            targets.push_back(*relativeTo(each.to, *this / folder));
            moves.emplace_back(each.holding, each.to);
        }
        REQUIRE(planMovesTo(catalogue(), moves, "ordered").ok());
        std::ranges::sort(targets);
        return targets;
    }
};

} // namespace

TEST_CASE("a heap is put in order by its tags, with its references, and back") {
    Heap heap;
    heap.add("V/heap/a.flac", {{"title", "One"}, {"artist", "Maud"}, {"album", "Tides"}, {"track", "1/9"}},
             1);
    heap.add("V/heap/b.flac", {{"title", "Two"}, {"artist", "Maud"}, {"album", "Tides"}, {"track", "02"}}, 2);
    // Two discs: the number counts; one that says "1/1" has only one.
    heap.add("V/heap/c.flac",
             {{"title", "X"}, {"album_artist", "Band"}, {"album", "Set"}, {"track", "1"}, {"disc", "1/2"}},
             3);
    heap.add("V/heap/d.flac",
             {{"title", "Y"}, {"album_artist", "Band"}, {"album", "Set"}, {"track", "1"}, {"disc", "2/2"}},
             4);
    heap.add("V/heap/e.flac",
             {{"title", "Z"}, {"artist", "Solo"}, {"album", "Single"}, {"track", "1"}, {"disc", "1/1"}}, 5);
    // Discs in folders of their own.
    heap.add("V/heap/CD1/1.flac",
             {{"title", "P"}, {"artist", "Duo"}, {"album", "Pair"}, {"track", "1"}, {"disc", "1"}}, 11);
    heap.add("V/heap/CD2/1.flac",
             {{"title", "P"}, {"artist", "Duo"}, {"album", "Pair"}, {"track", "1"}, {"disc", "2"}}, 12);
    // Several artists and none of the album.
    heap.add("V/heap/fair/f.flac", {{"title", "F"}, {"artist", "Ann"}, {"album", "Fair"}, {"track", "1"}}, 6);
    heap.add("V/heap/fair/g.flac", {{"title", "G"}, {"artist", "Bea"}, {"album", "Fair"}, {"track", "2"}}, 7);
    // Tags that no name can hold, or that say nothing.
    heap.add("V/heap/h.flac", {{"title", "A/B"}, {"artist", ".."}, {"album", "..."}, {"track", "x"}}, 8);
    heap.add("V/heap/i.flac", {{"title", "Two"}, {"artist", "MAUD"}, {"album", "Tides"}, {"track", "2"}}, 9);
    writeFile(heap / "V/heap/plain.wav", smallWav(10));
    heap.survey("V");
    writeFile(heap / "lists/all.m3u",
              m3u({"../V/heap/a.flac", "../V/heap/fair/g.flac", "../V/heap/plain.wav"}));
    heap.addPlayer("lantern", "lists");
    heap.read();

    const std::vector<BytePath> expected{
        "Band/Set/1-01 X.flac",           "Band/Set/2-01 Y.flac",   "Duo/Pair/1-01 P.flac",
        "Duo/Pair/2-01 P.flac",           "MAUD/Tides/02 Two.flac", "Maud/Tides/01 One.flac",
        "Maud/Tides/02 Two.flac",         "Solo/Single/01 Z.flac",  "Various Artists/Fair/01 F.flac",
        "Various Artists/Fair/02 G.flac", "_/.../x A-B.flac"};
    const auto targets = heap.order(byAlbum);
    CHECK(targets == expected);
    CHECK(fs::exists(heap / "V/heap/a.flac")); // nothing has changed yet
    const auto carried = heap.carryOutAll();
    CHECK(carried.done == targets.size());
    CHECK(carried.refused.empty());
    for (const auto& target : expected) {
        CHECK(fs::exists(heap / ("V/heap/" + target)));
    }
    CHECK(fs::exists(heap / "V/heap/plain.wav"));
    CHECK(heap.figures("lantern").resolved == 3);
    // In order already: nothing is left to do.
    CHECK(heap.order(byAlbum).empty());
    heap.undoLast();
    CHECK(fs::exists(heap / "V/heap/a.flac"));
    CHECK(fs::exists(heap / "V/heap/fair/g.flac"));
    CHECK(heap.figures("lantern").resolved == 3);
}

TEST_CASE("flattening folders tells their files apart and never stands on what is there") {
    Heap heap;
    heap.add("V/heap/A/01.flac", {{"album", "Tides"}}, 1);
    heap.add("V/heap/B/01.flac", {{"album", "Ebb"}}, 2);
    heap.add("V/heap/C/02.flac", {}, 3);
    heap.add("V/heap/D/02.flac", {}, 4);
    writeFile(heap / "V/heap/02.flac", "no audio, and somebody's");
    heap.survey("V");
    const std::vector<BytePath> expected{"01 (Ebb).flac", "01 (Tides).flac", "02 (2).flac", "02 (3).flac"};
    CHECK(heap.order("name") == expected);
    CHECK(heap.carryOutAll().done == 4);
    CHECK(readFile(heap / "V/heap/02.flac") == "no audio, and somebody's");
    CHECK(reorder(heap.catalogue(), heap / "V/none", "flat").error().cause == Cause::notFound);
    CHECK(reorder(heap.catalogue(), "/nowhere", "flat").error().cause == Cause::notFound);
}

TEST_CASE("of several with one name those that have it keep it") {
    Heap heap;
    heap.add("V/heap/b.flac", {{"title", "Same"}, {"artist", "Vol. 1:"}}, 1);
    heap.add("V/heap/c.flac", {{"title", "Same"}, {"artist", "Vol. 1:"}}, 2);
    heap.add("V/heap/d.flac", {{"title", "Same"}, {"artist", "Vol. 1:"}}, 3);
    heap.survey("V");
    const std::vector<BytePath> expected{"Same (2).flac", "Same (3).flac", "Same.flac"};
    CHECK(heap.order("title") == expected);
    CHECK(heap.carryOutAll().done == 3);
    CHECK(heap.order("title").empty());
}

TEST_CASE("a folder whose name was altered is said too") {
    Heap heap;
    heap.add("V/heap/b.flac", {{"title", "Same"}, {"artist", ".."}}, 1);
    heap.survey("V");
    const auto reordered = reorder(heap.catalogue(), heap / "V/heap", "artist / title");
    REQUIRE(reordered->size() == 1);
    CHECK(reordered->front().to == heap / "V/heap/_/Same.flac");
    CHECK(reordered->front().altered == "of its folder \"..\", it is no name");
}

TEST_CASE("the command puts a folder in order by the docket") {
    Heap heap;
    heap.add("V/heap/a.flac", {{"title", "One"}, {"artist", "Maud"}, {"track", "1"}}, 1);
    heap.survey("V");
    heap.whileClosed([&] {
        const auto path = heap.cataloguePath();
        CHECK(
            sober::test::sober(path, {"docket", "add", "move", heap / "V/heap", "--layout", "singer"}).code ==
            2);
        CHECK(sober::test::sober(path, {"docket", "add", "retire", heap / "V/heap", "--layout", "title"})
                  .code == 2);
        const auto added = sober::test::sober(path, {"docket", "add", "move", heap / "V/heap", "--layout",
                                                     R"(artist / track.2 " " title)", "--json"});
        INFO(added.err);
        CHECK(added.code == 0);
        CHECK(added.out.find("V/heap/Maud/01 One.flac") != std::string::npos);
        CHECK(sober::test::sober(path, {"docket", "carry-out"}).code == 0);
    });
    CHECK(fs::exists(heap / "V/heap/Maud/01 One.flac"));
}
