#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <functional>
#include <set>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// The demo with both players as they were before anything happened to it, then what happened.
struct PlayedDemo : DemoCopy {
    PlayedDemo() {
        bringLantern();
        eachMoved([&](const std::string& before, const std::string& now) { rename(now, before); });
        survey();
        CHECK(ask({"players", "add", *this / "lantern", "--name", "lantern"})["players"].size() == 1);
        ask({"players", "add", *this / "TERN/LISTS", "--name", "tern-player", "--ignores-case"});
        eachMoved([&](const std::string& before, const std::string& now) { rename(before, now); });
        survey();
    }
    json ask(std::vector<std::string> words) {
        words.emplace_back("--json");
        const auto answer = sober::test::sober(cataloguePath(), words);
        INFO(answer.err);
        REQUIRE(answer.code == 0);
        return json::parse(answer.out);
    }
    void survey() {
        for (const auto* volume : {"GANNET", "TERN", "PETREL"}) {
            const auto code = sober::test::sober(cataloguePath(), {"survey", *this / volume}).code;
            REQUIRE((code == 0 || code == 3));
        }
    }
    void eachMoved(const std::function<void(const std::string&, const std::string&)>& take) {
        const json truth = demoTruth()["references"]["links"];
        for (const auto& [before, now] : truth.items()) {
            if (before[0] != '/') {
                take(before, now.get<std::string>());
            }
        }
    }
    void rename(const std::string& from, const std::string& to) {
        fs::create_directories(fs::path(*this / to).parent_path());
        fs::rename(*this / from, *this / to);
    }
    std::string absolute(const std::string& path) { return path[0] == '/' ? path : *this / path; }
    int failuresOf(const std::string& player, const std::string& place) {
        const auto played = run({player, *this / place});
        const auto comma = played.out.rfind(", ");
        return std::stoi(played.out.substr(comma + 2));
    }
};

} // namespace

TEST_CASE("in the demo every broken reference is linked to what was planted, asked, or honestly not found") {
    PlayedDemo demo;
    const auto truth = demoTruth()["references"];
    const auto relinked = demo.ask({"relink"});
    CHECK(relinked["schema"] == "sober.relink/1");
    std::map<std::string, std::string> links;
    for (const auto& link : relinked["links"]) {
        links[link["reference"]] = link["target"];
        CHECK(link["confidence"].get<double>() >= 0.9);
        CHECK_FALSE(link["evidence"].empty());
    }
    for (const auto& [before, now] : truth["links"].items()) {
        CAPTURE(before);
        const auto found = links.find(demo.absolute(before));
        if (now.is_null()) {
            CHECK(found == links.end());
        } else {
            REQUIRE(found != links.end());
            CHECK(found->second == demo.absolute(now.get<std::string>()));
        }
    }
    for (const auto& [reference, namesakes] : truth["ambiguous"].items()) {
        const auto asked =
            std::find_if(relinked["ambiguous"].begin(), relinked["ambiguous"].end(),
                         [name = reference](const json& choice) { return choice["reference"] == name; });
        REQUIRE(asked != relinked["ambiguous"].end());
        std::set<std::string> candidates;
        for (const auto& candidate : namesakes) {
            candidates.insert(demo.absolute(candidate.get<std::string>()));
        }
        CHECK((*asked)["candidates"].get<std::set<std::string>>() == candidates);
    }
    std::uint64_t counted = 0;
    for (const auto& rule : relinked["rules"]) {
        counted += rule["count"].get<std::uint64_t>();
    }
    CHECK(relinked["rules"].size() >= 5);
    CHECK(counted >= 35);

    // The players themselves are the judges, before and after; what does not play is what was not found.
    CHECK(demo.failuresOf(LANTERN, "lantern") > 50);
    CHECK(demo.failuresOf(TERN_PLAYER, "TERN") == 6);
    const auto before = contentsBelow(demo / "lantern");
    const auto card = contentsBelow(demo / "TERN/LISTS");
    const auto written = demo.ask({"relink", "--write"});
    CHECK(written["resolved_after"] == relinked["resolved_after"]);
    CHECK(demo.ask({"docket"})["actions"].empty());
    CHECK(demo.failuresOf(TERN_PLAYER, "TERN") == 0);
    const auto players = demo.ask({"players"});
    const auto& lantern = players["players"][0];
    CHECK(lantern["name"] == "lantern");
    CHECK(demo.failuresOf(LANTERN, "lantern") == lantern["broken"].get<int>());
    // Ten to be asked (what happened before the first survey is known by name alone), six gone for good, one
    // that nobody misses.
    CHECK(lantern["broken"].get<int>() == 17);
    CHECK(lantern["streams"] == truth["streams"]);
    CHECK(players["players"][1]["broken"] == 0);
    CHECK(players["holdings_in_no_list"].get<int>() > 0);
    std::map<std::string, int> findings;
    for (const auto& finding : players["findings"]) {
        ++findings[finding["kind"]];
    }
    CHECK(findings["passing-place"] == truth["passing_places"].get<int>());
    CHECK(findings["twice"] == truth["twice"].get<int>());
    CHECK(demo.ask({"condition"})["findings"]["broken_references"] == 17);

    // Every list is still well-formed, and its locations are URIs (XSPF version 1 asks
    // for those of RFC 2396: no blank, no bracket, nothing beyond ASCII); taken back, each is what it was.
    for (const auto& [path, text] : contentsBelow(demo / "lantern")) {
        CHECK(run({"xmllint", "--noout", path}).code == 0);
        for (auto at = text.find("<location>"); at != std::string::npos;
             at = text.find("<location>", at + 1)) {
            const auto location = text.substr(at + 10, text.find('<', at + 1) - at - 10);
            CHECK(location.find_first_not_of(
                      "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-._~/:%") ==
                  std::string::npos);
        }
    }
    CHECK(demo.ask({"undo", "last"})["done"].get<int>() > 0);
    CHECK(contentsBelow(demo / "lantern") == before);
    CHECK(contentsBelow(demo / "TERN/LISTS") == card);
}

TEST_CASE("what the docket moves and retires keeps playing") {
    PlayedDemo demo;
    demo.ask({"relink", "--write"});
    const int broken = demo.failuresOf(LANTERN, "lantern");
    demo.ask({"docket", "add", "move", demo / "GANNET/Tapes, labelled", "--to", demo / "GANNET/Tapes"});
    demo.ask({"docket", "add", "retire", demo / "GANNET/Desktop/for Wilfred/spring tide.flac"});
    const auto docket = demo.ask({"docket"});
    CHECK(docket["references_touched"].get<int>() >= 26); // library and Sunday, and the desktop's one
    const auto carried = demo.ask({"docket", "carry-out"});
    CHECK(carried["refused"].empty());
    CHECK(carried["references_touched"] == docket["references_touched"]);
    CHECK_FALSE(fs::exists(demo / "GANNET/Tapes, labelled/Side 1/Opening Hymn.mp3"));
    CHECK(demo.failuresOf(LANTERN, "lantern") == broken);
    demo.ask({"undo", "last"});
    CHECK(demo.failuresOf(LANTERN, "lantern") == broken);
    CHECK(fs::exists(demo / "GANNET/Tapes, labelled/Side 1/Opening Hymn.mp3"));
}

TEST_CASE("wrong words about players get a sentence on what is right") {
    const TempFolder folder;
    const auto catalogue = folder / "c.sqlite";
    const struct {
        std::vector<std::string> words;
        int code;
        std::string sentence;
    } rows[] = {{{"players", "add", folder / "nowhere"}, 1, "is not there"},
                {{"players", "add", folder.path()}, 1, "holds no list"},
                {{"players", "remove", "nobody"}, 1, "no player named"},
                {{"players", "add", folder.path(), "--prefix", "C:"}, 2, "--stands-for"},
                {{"docket", "add", "move", folder / "a"}, 2, "--to TARGET"},
                {{"docket", "add", "repoint", "/x", "--to", "/y"}, 1, "No list of a player points at"},
                {{"relink", "--example", "/only one"}, 2, "--example"}};
    for (const auto& row : rows) {
        CAPTURE(row.words);
        const auto answer = sober::test::sober(catalogue, row.words);
        CHECK(answer.code == row.code);
        CHECK(answer.err.find(row.sentence) != std::string::npos);
    }
}
