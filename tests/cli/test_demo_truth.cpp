#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <map>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;

namespace {

json answer(const std::vector<std::string>& words) {
    auto all = words;
    all.emplace_back("--json");
    const auto result = sober::test::sober(demoCatalogue, all);
    INFO(result.err);
    REQUIRE(result.code == 0);
    return json::parse(result.out);
}

/// Paths of the truth are relative to the demo's folder.
std::string inDemo(const json& path) {
    return TEST_DEMO "/" + path.get<std::string>();
}

} // namespace

TEST_CASE("the copy sets found in the demo are those that were planted") {
    std::map<std::set<std::string>, std::string> found;
    std::map<std::string, std::string> suggested;
    const auto answered = answer({"copies"});
    for (const auto& set : answered["sets"]) {
        std::set<std::string> members;
        int keepers = 0;
        std::uint64_t freed = 0;
        for (const auto& member : set["members"]) {
            members.insert(member["path"]);
            CHECK_FALSE(member["reasons"].empty());
            keepers += member["suggestion"] == "keep" ? 1 : 0;
            freed += member["suggestion"] == "retire" ? member["bytes"].get<std::uint64_t>() : 0;
            suggested[member["path"]] = member["suggestion"];
        }
        CHECK(keepers == 1);
        CHECK(freed == set["reclaimable_bytes"]);
        found[members] = set["sameness"];
    }
    std::map<std::set<std::string>, std::string> planted;
    const auto truth = demoTruth();
    for (const auto& set : truth["copy_sets"]) {
        std::set<std::string> members;
        for (const auto& member : set["members"]) {
            members.insert(inDemo(member));
        }
        planted[members] = set["sameness"];
    }
    CHECK(found == planted);
    for (const auto& keeper : truth["keepers"]) {
        CAPTURE(keeper[1].get<std::string>());
        CHECK(suggested[inDemo(keeper[0])] == "keep");
    }
    std::set<std::set<std::string>> alike;
    for (const auto& set : answered["only_tags_alike"]) {
        std::set<std::string> members;
        for (const auto& member : set["members"]) {
            members.insert(member["path"]);
            CHECK_FALSE(suggested.contains(member["path"]));
        }
        alike.insert(members);
    }
    std::set<std::set<std::string>> plantedAlike;
    for (const auto& set : truth["only_tags_alike"]) {
        plantedAlike.insert({inDemo(set[0]), inDemo(set[1])});
    }
    CHECK(alike == plantedAlike);
}

TEST_CASE("the demo's condition agrees with its truth and with other tools' counts") {
    const auto condition = answer({"condition"});
    const auto truth = demoTruth();
    CHECK(condition["schema"] == "sober.condition/1");
    CHECK(condition["findings"]["copies"] == truth["copy_sets"].size());
    CHECK(condition["findings"]["missing"] == truth["missing"].size());
    CHECK(condition["volumes"].size() == 3);
    std::uint64_t bytes = 0;
    std::uint64_t files = 0;
    for (const auto& volume : condition["volumes"]) {
        CHECK(volume["at_hand"] == true);
        bytes += volume["bytes"].get<std::uint64_t>();
        files += volume["holdings"].get<std::uint64_t>();
    }
    CHECK(bytes == condition["bytes"]);
    CHECK(files == condition["holdings"]);
    // Everything that is a regular file, in no trash, no list and no archive, less what is planted as no
    // audio or has no permission.
    const auto found = run({"find",
                            TEST_DEMO "/GANNET",
                            TEST_DEMO "/TERN",
                            TEST_DEMO "/PETREL",
                            "-type",
                            "f",
                            "!",
                            "-name",
                            "*.m3u8",
                            "!",
                            "-name",
                            "*.zip",
                            "!",
                            "-path",
                            "*/.Trash-*",
                            "!",
                            "-path",
                            "*/$RECYCLE.BIN/*",
                            "-printf",
                            "x"})
                           .out.size();
    const bool root = geteuid() == 0;
    CHECK(files == found - truth["not_audio"].size() - 1 - (root ? 0 : truth["no_permission"].size()));
}

TEST_CASE("every kind of drift that was planted in the demo is told, and from what it can be mended") {
    const TempFolder folder;
    const auto copied = folder / "catalogue.sqlite";
    std::filesystem::copy(demoCatalogue, copied); // the volumes themselves are not changed by looking
    const auto answered = json::parse(sober::test::sober(copied, {"verify", "--json"}).out);
    std::map<std::string, json> said;
    for (const auto& drift : answered["drift"]) {
        said[drift["path"]] = drift;
    }
    const auto truth = demoTruth();
    CHECK(said.size() == truth["drift"].size() + truth["missing"].size());
    CHECK(answer({"condition"})["findings"]["drift"] == truth["drift"].size());
    for (const auto& planted : truth["drift"]) {
        const auto path = inDemo(planted["path"]);
        CAPTURE(path);
        REQUIRE(said.contains(path));
        CHECK(said[path]["kind"] == planted["kind"]);
        if (planted.contains("block")) {
            CHECK(said[path]["blocks"] == json::array({{planted["block"], planted["block"]}}));
        }
        if (planted.contains("mend")) {
            const auto docket = json::parse(
                sober::test::sober(copied, {"docket", "add", planted["mend"], path, "--json"}).out);
            CHECK(docket["actions"].back()["refused"].is_null());
        }
    }
    for (const auto& odd : truth["odd"]) {
        const auto examined = answer({"examine", inDemo(odd["path"])})["holdings"][0]["soundness"];
        CHECK(examined["sound"] == odd["sound"]);
        CHECK(examined["remarks"][0]["kind"] == odd["kind"]);
    }
}

TEST_CASE("odd names appear in the JSON as the contract has them") {
    std::set<std::string> names;
    const DemoCopy demo;
    REQUIRE(sober::test::sober(demo.cataloguePath(), {"survey", demo / "GANNET"}).code == 3);
    std::filesystem::create_directories(demo / "GANNET/again");
    for (const auto& entry : std::filesystem::directory_iterator(demo / "GANNET/Odd names")) {
        if (entry.is_regular_file() && !entry.is_symlink()) {
            std::filesystem::copy_file(entry.path(),
                                       (demo / "GANNET/again/") + entry.path().filename().native());
        }
    }
    REQUIRE(sober::test::sober(demo.cataloguePath(), {"survey", demo / "GANNET"}).code == 3);
    const auto sets = json::parse(sober::test::sober(demo.cataloguePath(), {"copies", "--json"}).out)["sets"];
    for (const auto& set : sets) {
        for (const auto& member : set["members"]) {
            names.insert(member["path"]);
            const bool encoded = member["path"].get<std::string>().find("Caf%E9") != std::string::npos;
            CHECK(member.contains("path_encoding") == encoded);
        }
    }
    const auto truth = demoTruth();
    for (const auto& name : truth["odd_names"]) {
        CHECK(names.contains(demo / name.get<std::string>()));
    }
}

TEST_CASE("the claims that were planted in the demo are seen through, and nothing else is accused") {
    std::map<std::string, json> said;
    const auto answered = answer({"claims"});
    for (const auto& holding : answered["holdings"]) {
        said[holding["path"]] = holding["verdict"];
    }
    std::size_t planted = 0;
    const auto truth = demoTruth();
    for (const auto& claim : truth["claims"]) {
        const auto path = inDemo(claim["path"]);
        CAPTURE(path, claim["what"].get<std::string>());
        const auto verdicts = claim["verdict"].get<std::set<std::string>>();
        const bool accused = verdicts.contains("transcoded") || verdicts.contains("doubtful");
        REQUIRE(said.contains(path) == accused);
        if (accused) {
            ++planted;
            CHECK(verdicts.contains(said[path]["class"]));
            CHECK(said[path]["source_codec"] == claim["source_codec"]);
            CHECK_FALSE(said[path]["reasons"].empty());
        }
    }
    CHECK(said.size() == planted);
    CHECK(answer({"condition"})["findings"]["claims"] == planted);
    for (const auto& claim : truth["claims"]) {
        const auto result = run({SOBER_PROGRAM, "examine", "--json", inDemo(claim["path"])});
        REQUIRE(result.code == 0);
        const auto verdict = json::parse(result.out)["holdings"][0]["verdict"];
        CAPTURE(claim["path"].get<std::string>());
        CHECK(claim["verdict"].get<std::set<std::string>>().contains(verdict["class"]));
    }
}
