// The demo's wiped card and trash by the command; the shapes are those of the contract. What comes out is
// held against general-purpose tools: cmp, file, ffprobe.
#include "support/demo_copy.h"
#include "support/run_program.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// The demo's own catalogue, copied; its volumes stay as they are.
struct WipedCard {
    WipedCard() {
        fs::copy_file(demoCatalogue, catalogue);
        fs::copy_file(TEST_DEMO "/RECORDER.img", image);
    }
    ProgramRun tell(const std::vector<std::string>& words) const {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue", catalogue};
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    }
    json ask(const std::vector<std::string>& words, int code = 0) const {
        const auto ran = tell(words);
        INFO(ran.err);
        CHECK(ran.code == code);
        return json::parse(ran.out);
    }
    TempFolder folder;
    BytePath catalogue = folder / "catalogue.sqlite";
    BytePath image = folder / "RECORDER.img";
};

/// By the name that the truth file gives it.
const json* findCalled(const json& scan, const std::string& name) {
    for (const auto& find : scan["finds"]) {
        const auto& known = find["recognised"];
        if (find["title"] == name ||
            (!known.is_null() && known["path"].get<std::string>().ends_with("/" + name))) {
            return &find;
        }
    }
    return nullptr;
}

} // namespace

TEST_CASE("Everything that was planted on the wiped card is found at its place") {
    const WipedCard card;
    const auto scan = card.ask({"salvage", "scan", card.image});
    CHECK(scan["schema"] == "sober.salvage/1");
    CHECK(scan["errors"].empty());
    CHECK(scan["state"] == "done");
    const auto truth = demoTruth()["wiped"];
    CHECK(truth.size() == scan["finds"].size());
    for (const auto& [name, places] : truth.items()) {
        INFO(name);
        const auto* find = findCalled(scan, name);
        REQUIRE(find != nullptr);
        const bool isCut = name == "Rehearsal, door open";
        const bool isOver = name.starts_with("11 The Understudy");
        CHECK(((*find)["extents"] == places || isCut));
        CHECK((*find)["sound"] == !(isCut || isOver));
        CHECK((*find)["duration"].get<double>() > 3);
    }
    CHECK((*findCalled(scan, "07 Evening in the Reading Room.wav"))["recognised"]["how"] == "blocks");
    CHECK((*findCalled(scan, "06 Small Fugue.ogg"))["recognised"]["how"] == "bytes");
    CHECK((*findCalled(scan, "06 Small Fugue.ogg"))["recognised"]["state"] == "missing");
    CHECK((*findCalled(scan, "Fog signal, night.wav"))["recognised"]["state"] == "held");
    CHECK((*findCalled(scan, "Surf, the long take"))["recognised"].is_null());
    CHECK((*findCalled(scan, "11 The Understudy.wav"))["complete"].get<double>() < 0.85);
    CHECK(card.ask({"salvage", "list", card.image})["finds"] == scan["finds"]);

    SECTION("and comes out named and foldered, whole for any player") {
        const auto taken =
            card.ask({"salvage", "take", card.image, "--all", "--to", card.folder / "rescued"}, 0);
        CHECK(taken["taken"].size() == scan["finds"].size());
        CHECK(taken["done"] == scan["finds"].size());
        for (const auto& each : taken["taken"]) {
            const auto path = each["path"].get<std::string>();
            INFO(path);
            CHECK(run({"ffprobe", "-v", "error", path}).code == 0);
            CHECK(run({"file", "-b", path}).out.find("data\n") != 0);
        }
        const auto flac = findCalled(scan, "Bell buoy, unlabelled");
        for (const auto& each : taken["taken"]) {
            if (each["id"] == (*flac)["id"]) {
                CHECK(run({"flac", "-t", "-s", each["path"].get<std::string>()}).code == 0);
            }
        }
        CHECK(card.tell({"undo", "last"}).code == 0);
        CHECK_FALSE(fs::exists(taken["taken"][0]["path"].get<std::string>()));
    }
    SECTION("and is not taken onto what is in the way, nor home where it is held") {
        const auto held = std::to_string((*findCalled(scan, "Fog signal, night.wav"))["id"].get<int>());
        const auto refused = card.tell({"salvage", "take", card.image, held, "--home"});
        CHECK(refused.code == 1);
        CHECK(refused.err.find("held already") != std::string::npos);
    }
}

TEST_CASE("Only the formats that were asked for are found, and a wrong word says which there are") {
    const WipedCard card;
    const auto oggs = card.ask({"salvage", "scan", card.image, "--kinds", "ogg"});
    for (const auto& find : oggs["finds"]) {
        CHECK((find["format"] == "ogg" || find["source"] == "blocks"));
    }
    const auto wrong = card.tell({"salvage", "scan", card.image, "--kinds", "ogg,wax"});
    CHECK(wrong.code == 2);
    CHECK(wrong.err.find("musepack") != std::string::npos);
    CHECK(card.tell({"salvage", "list", card.folder / "other.img"}).code == 1);
    CHECK(card.tell({"salvage", "take", card.image, "--all"}).code == 2);
    CHECK(card.tell({"salvage", "take", card.image, "99999", "--to", card.folder / "x"}).code == 1);
    CHECK(card.tell({"salvage", "scan", card.folder / "none.img"}).code == 1);
}

TEST_CASE("The trash of a volume is listed with where things were, as they left it there") {
    const WipedCard card;
    const auto trash = card.ask({"salvage", "trash", "--volume", "GANNET"});
    const auto* gone = findCalled(trash, "11 November, Undertow.ogg");
    REQUIRE(gone != nullptr);
    CHECK((*gone)["recognised"]["state"] == "missing");
    CHECK((*gone)["deleted"].get<std::string>().starts_with("2026-10-0"));
    CHECK((*gone)["source"] == "trash");
    const auto* orphan = findCalled(trash, "Message on the machine");
    REQUIRE(orphan != nullptr);
    CHECK((*orphan)["from"].is_null());
    CHECK(trash["lone_notes"].size() >= 1);
    const auto tern = card.ask({"salvage", "trash", "--volume", "TERN"});
    const auto* reed = findCalled(tern, "Reed test");
    REQUIRE(reed != nullptr);
    CHECK((*reed)["from"].get<std::string>().ends_with("/TERN/MUSIC/Reed test.mp3"));
    CHECK(card.tell({"salvage", "trash", "--volume", "HERON"}).code == 1);
}

TEST_CASE("What lies in the trash and is held elsewhere is let go of by the docket, and for good") {
    const DemoCopy demo;
    const auto tell = [&](const std::vector<std::string>& words) {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue",
                                      demo / "catalogue.sqlite"};
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    };
    for (const auto* place : {"PETREL/Wireless", "TERN"}) {
        REQUIRE(tell({"survey", demo / place}).code <= 4);
    }
    // One more of what is held, under the card's own trash.
    const auto held = demo / "PETREL/Wireless/Fog signal, night.wav";
    const auto thrown = demo / "TERN/.Trashes/fog.wav";
    fs::create_directories(fs::path(thrown).parent_path());
    fs::copy_file(held, thrown);
    REQUIRE(tell({"salvage", "trash"}).code <= 4);
    const auto tidied = tell({"salvage", "tidy"});
    REQUIRE(tidied.code == 0);
    const auto left = json::parse(tidied.out)["left"];
    const auto entry = std::ranges::find_if(left, [&](const json& each) { return each["path"] == thrown; });
    REQUIRE(entry != left.end());
    CHECK((*entry)["held_at"] == held);
    CHECK((*entry)["in_trash"] == true);
    CHECK(fs::exists(thrown));

    SECTION("it goes once it is proven to be the same") {
        const auto carried = tell({"docket", "carry-out"});
        INFO(carried.err);
        CHECK(carried.code == 0);
        CHECK_FALSE(fs::exists(thrown));
        CHECK(fs::exists(held));
        const auto undone = tell({"undo", "last"});
        CHECK(undone.code == 1);
        CHECK(undone.err.find("let go of for good") != std::string::npos);
        CHECK_FALSE(fs::exists(thrown));
    }
    SECTION("it stays where what is held has been changed since") {
        auto content = readFile(held);
        content[content.size() / 2] = static_cast<char>(~content[content.size() / 2]);
        writeFile(held, content);
        const auto carried = tell({"docket", "carry-out"});
        CHECK(carried.code != 0);
        CHECK(fs::exists(thrown));
    }
}
