// Transfers of the demo by the command, and its players at the new place with the old one hidden.
#include "support/demo_copy.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct MovingDemo : DemoCopy {
    MovingDemo() {
        bringLantern();
        tell({"survey", *this / "GANNET", *this / "TERN"});
        tell({"players", "add", *this / "lantern", "--name", "lantern"});
        tell({"players", "add", *this / "TERN/LISTS", "--name", "tern-player", "--ignores-case"});
    }
    ProgramRun tell(const std::vector<std::string>& words) {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue", cataloguePath()};
        line.insert(line.end(), words.begin(), words.end());
        auto ran = run(line);
        INFO(ran.err);
        CHECK(ran.code <= 3);
        return ran;
    }
    json ask(const std::vector<std::string>& words, int code = 0) {
        const auto ran = tell(words);
        INFO(ran.err);
        CHECK(ran.code == code);
        return json::parse(ran.out);
    }
};

} // namespace

TEST_CASE("all that lantern knows plays from the new place alone") {
    MovingDemo demo;
    const auto plan = demo.ask({"transfer", "plan", "--to", demo / "NEW/Music", "--player", "lantern",
                                "--layout", "albumartist|artist / album / track.2 \" \" title|name"});
    CHECK(plan["schema"] == "sober.transfer/1");
    CHECK(plan["state"] == "planned");
    CHECK(plan["fits"] == true);
    CHECK(plan["lists"].size() == 3);
    CHECK(plan["peak_bytes"] <= plan["free_bytes"]);
    CHECK_FALSE(fs::exists(demo / "NEW"));
    for (const auto& item : plan["items"]) {
        CHECK(item["state"] == "waits");
        CHECK(item["target"].get<std::string>().starts_with(demo / "NEW/Music/"));
    }
    const auto number = std::to_string(plan["transfer"].get<int>());
    const auto ran = demo.ask({"transfer", "run", number});
    CHECK(ran["state"] == "copied");
    CHECK(ran["refused"].empty());
    CHECK(ran["done"] == plan["items"].size() + plan["lists"].size() + plan["own_lists"].size());
    const auto proven = demo.ask({"transfer", "prove", number});
    CHECK(proven["state"] == "proven");
    CHECK(proven["proof"]["files"] == plan["items"].size());
    CHECK(proven["proof"]["playable"] == proven["proof"]["entries"]);
    CHECK(proven["proof"]["wrong"].empty());
    CHECK(fs::exists(proven["proof"]["report"].get<std::string>()));

    fs::rename(demo / "GANNET", demo / "hidden");
    const auto played = run({LANTERN, demo / "NEW/Music"});
    INFO(played.out);
    CHECK(played.code == 0);
    CHECK(played.out.find(" 0 do not") != std::string::npos);
    fs::rename(demo / "hidden", demo / "GANNET");

    const auto before = contentCounts({demo / "GANNET"});
    const auto released = demo.ask({"transfer", "release", number, "--carry-out"});
    CHECK(released["state"] == "released");
    CHECK(released["refused"].empty());
    CHECK(run({LANTERN, demo / "NEW/Music"}).code == 0);
    demo.ask({"undo", "last"});
    CHECK((contentCounts({demo / "GANNET"}) == before));
    CHECK(demo.ask({"transfer", "list", number})["state"] == "proven");
    CHECK(demo.ask({"transfer", "list"})["transfers"].size() == 1);
    // Something else is chosen the next time: the rest can go from there by the docket, and comes back.
    const auto there = contentCounts({demo / "NEW"});
    const auto fewer = demo.ask({"transfer", "plan", "--to", demo / "NEW/Music", "--folder",
                                 demo / "GANNET/Tapes, labelled", "--retire-rest"});
    CHECK_FALSE(fewer["no_longer"].empty());
    CHECK(demo.ask({"docket"})["actions"].size() == fewer["no_longer"].size());
    CHECK(demo.ask({"docket", "carry-out"})["refused"].empty());
    CHECK(contentCounts({demo / "NEW"}).size() < there.size());
    demo.ask({"undo", "last"});
    CHECK((contentCounts({demo / "NEW"}) == there));
    demo.ask({"transfer", "forget", std::to_string(fewer["transfer"].get<int>())});
    CHECK(demo.ask({"transfer", "forget", number})["transfers"].empty());
    CHECK(fs::exists(demo / "NEW/Music"));
}

TEST_CASE("a card's lists go to another card that calls its folder by a name of its own") {
    MovingDemo demo;
    const auto plan = demo.ask({"transfer", "plan", "--to", demo / "CARD", "--player", "tern-player",
                                "--rules", "fat32", "--layout", "flat", "--relative"});
    const auto number = std::to_string(plan["transfer"].get<int>());
    // What stands for a character can be said.
    const auto colons = demo.ask({"transfer", "plan", "--to", demo / "COLONS", "--player", "lantern",
                                  "--rules", "fat32", "--replace", ":= -"});
    int replaced = 0;
    for (const auto& item : colons["items"]) {
        replaced +=
            item["target"].get<std::string>().find(" - ") != std::string::npos && !item["altered"].is_null()
                ? 1
                : 0;
    }
    CHECK(replaced > 0);
    CHECK(demo.ask({"transfer", "run", number})["state"] == "copied");
    CHECK(demo.ask({"transfer", "prove", number})["state"] == "proven");
    fs::rename(demo / "TERN", demo / "hidden");
    const auto played = run({TERN_PLAYER, demo / "CARD"});
    INFO(played.out);
    CHECK(played.code == 0);
    fs::rename(demo / "hidden", demo / "TERN");
    // A player of another make: every path as that says it, and all that is lossless in a form that it reads.
    const auto prefixed =
        demo.ask({"transfer", "plan", "--to", demo / "OTHER", "--player", "tern-player", "--lists", "pls",
                  "--prefix", "D:\\Music", "--form", "lossless=mp3:V4", "--rules", "exfat"});
    const auto other = std::to_string(prefixed["transfer"].get<int>());
    CHECK(demo.ask({"transfer", "run", other})["state"] == "copied");
    const auto proof = demo.ask({"transfer", "prove", other})["proof"];
    CHECK(proof["playable"] == proof["entries"]);
    const auto list = readFile(prefixed["lists"][0].get<std::string>());
    CHECK(list.find("File1=D:\\Music\\") != std::string::npos);
    CHECK(list.find(".flac") == std::string::npos);
    const auto heard = run({CURLEW, demo / "OTHER", "D:\\Music"});
    INFO(heard.out);
    CHECK(heard.code == 0);
}

TEST_CASE("what makes no sense to plan is said, with the contract's codes") {
    MovingDemo demo;
    writeFile(demo / "truth.m3u8", std::string("\0\0no list", 9));
    const std::vector<std::pair<std::vector<std::string>, int>> cases{
        {{"transfer", "plan", "--to", demo / "NEW"}, 2},
        {{"transfer", "plan", "--volume", "GANNET"}, 2},
        {{"transfer", "plan", "--to", demo / "NEW", "--volume", "NOBODY"}, 1},
        {{"transfer", "plan", "--to", demo / "NEW", "--volume", "GANNET", "--layout", "artist /"}, 2},
        {{"transfer", "plan", "--to", demo / "NEW", "--volume", "GANNET", "--room", "1000"}, 1},
        {{"transfer", "plan", "--to", demo / "NEW", "--list", demo / "no.m3u8"}, 1},
        {{"transfer", "plan", "--to", demo / "NEW", "--volume", "GANNET", "--form", "mp3"}, 2},
        {{"transfer", "plan", "--to", demo / "NEW", "--volume", "GANNET", "--replace", ":=/"}, 2},
        {{"transfer", "plan", "--to", demo / "NEW", "--list", demo / "truth.m3u8"}, 1},
        {{"transfer", "forget", "7"}, 1},
        {{"transfer", "run", "7"}, 1},
        {{"transfer", "prove", "x"}, 1},
        {{"transfer", "release", "7"}, 1},
        {{"transfer"}, 2}};
    for (const auto& [words, code] : cases) {
        CAPTURE(words);
        const auto ran = demo.tell(words);
        CHECK(ran.code == code);
        CHECK((ran.code == 1 || ran.out.empty()));
    }
    CHECK_FALSE(fs::exists(demo / "NEW"));
}
