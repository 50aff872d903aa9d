#include "core/base/file_handle.h"
#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>
#include <sys/wait.h>

#include <csignal>
#include <filesystem>
#include <spawn.h>
#include <thread>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct Answer {
    int code;
    json document;
    std::string err;
};

Answer ask(const std::string& catalogue, std::vector<std::string> words) {
    words.emplace_back("--json");
    const auto result = sober::test::sober(catalogue, words);
    INFO(result.out << result.err);
    return {result.code, json::parse(result.out), result.err};
}

} // namespace

TEST_CASE("wrong usage ends with 2 and says what is right") {
    const TempFolder folder;
    const auto words = GENERATE(values<std::vector<std::string>>({{},
                                                                  {"sing"},
                                                                  {"survey"},
                                                                  {"survey", "--effort", "heroic", "/tmp"},
                                                                  {"docket", "add"},
                                                                  {"docket", "add", "retire"},
                                                                  {"docket", "add", "suggested", "/x"},
                                                                  {"docket", "add", "burn", "/x"},
                                                                  {"undo"},
                                                                  {"undo", "yesterday"}}));
    const auto result = sober::test::sober(folder / "c.sqlite", words);
    CHECK(result.code == 2);
    CHECK(result.out.empty());
    CHECK_FALSE(result.err.empty());
}

TEST_CASE("what could not be done ends with 1 and a sentence") {
    const TempFolder folder;
    CHECK(sober::test::sober(folder / "c.sqlite", {"condition"}).err.find("no catalogue") !=
          std::string::npos);
    CHECK(sober::test::sober(folder / "c.sqlite", {"condition"}).code == 1);
    const auto nowhere = sober::test::sober(folder / "c.sqlite", {"survey", folder / "nowhere"});
    CHECK(nowhere.code == 1);
    CHECK(nowhere.err.find("There is no folder") != std::string::npos);
    writeFile(folder / "V/a.wav", smallWav(1));
    REQUIRE(sober::test::sober(folder / "c.sqlite", {"survey", folder / "V"}).code == 0);
    CHECK(sober::test::sober(folder / "c.sqlite", {"docket", "add", "retire", folder / "V/none.wav"})
              .err.find("not in the catalogue") != std::string::npos);
    CHECK(sober::test::sober(folder / "c.sqlite", {"docket", "add", "write-off", folder / "V/a.wav"}).code ==
          1);
    CHECK(sober::test::sober(folder / "c.sqlite", {"undo", "last"})
              .err.find("nothing that can be taken back") != std::string::npos);
}

TEST_CASE("the whole way: survey, copies, docket, carry out, ledger, undo") {
    const DemoCopy demo;
    const auto catalogue = demo.cataloguePath();
    const auto surveyed = ask(catalogue, {"survey", demo / "GANNET", demo / "TERN", demo / "PETREL"});
    CHECK(surveyed.code == 3);
    CHECK(surveyed.document["schema"] == "sober.survey/1");
    CHECK(surveyed.document["volumes"].size() == 3);
    CHECK(surveyed.document["seen"] == surveyed.document["added"]);
    const auto truth = demoTruth();
    for (const auto& planted : truth["not_audio"]) {
        const auto& errors = surveyed.document["errors"];
        CHECK(std::any_of(errors.begin(), errors.end(), [&](const json& error) {
            return error["path"] == demo / planted.get<std::string>();
        }));
    }
    const auto reclaimable = ask(catalogue, {"condition"}).document["reclaimable_bytes"];
    const auto before = contentCounts({demo / "GANNET", demo / "TERN", demo / "PETREL"});

    const auto docket = ask(catalogue, {"docket", "add", "suggested"}).document;
    CHECK(docket["schema"] == "sober.docket/1");
    CHECK(docket["frees_bytes"] == reclaimable);
    REQUIRE(docket["actions"].size() > 50);
    CHECK(docket["actions"][0]["refused"].is_null());
    CHECK(contentCounts({demo / "GANNET", demo / "TERN", demo / "PETREL"}) == before);

    const auto carried = ask(catalogue, {"docket", "carry-out"});
    CHECK(carried.code == 0);
    CHECK(carried.document["schema"] == "sober.carried-out/1");
    CHECK(carried.document["done"] == docket["actions"].size());
    CHECK(carried.document["refused"].empty());
    const auto after = contentCounts({demo / "GANNET", demo / "TERN", demo / "PETREL"});
    REQUIRE(after.size() == before.size());
    for (const auto& [content, count] : after) {
        CHECK(count >= 1);
    }
    for (const auto& action : docket["actions"]) {
        CHECK_FALSE(isTaken(action["path"].get<std::string>()));
    }
    CHECK(ask(catalogue, {"condition"}).document["reclaimable_bytes"] == 0);
    CHECK(ask(catalogue, {"docket"}).document["actions"].empty());

    const auto ledger = ask(catalogue, {"ledger"}).document;
    CHECK(ledger["schema"] == "sober.ledger/1");
    CHECK(ledger["entries"][0]["entry"] == carried.document["entry"]);
    CHECK(ledger["entries"][0]["actions"] == docket["actions"].size());
    CHECK(ledger["entries"][0]["undone"] == false);

    CHECK(ask(catalogue, {"undo", "last"}).document["done"] == docket["actions"].size());
    CHECK(contentCounts({demo / "GANNET", demo / "TERN", demo / "PETREL"}) == before);
    CHECK(ask(catalogue, {"ledger"}).document["entries"][1]["undone"] == true);
    CHECK(ask(catalogue, {"condition"}).document["reclaimable_bytes"] == reclaimable);
}

TEST_CASE("the same set told to retire in whole stays in whole") {
    const TempFolder folder;
    const auto catalogue = folder / "c.sqlite";
    writeFile(folder / "V/a.wav", smallWav(1));
    writeFile(folder / "V/b.wav", smallWav(1));
    REQUIRE(sober::test::sober(catalogue, {"survey", folder / "V"}).code == 0);
    const auto docket =
        ask(catalogue, {"docket", "add", "retire", folder / "V/a.wav", folder / "V/b.wav"}).document;
    CHECK(docket["frees_bytes"] == 0);
    for (const auto& action : docket["actions"]) {
        CHECK(action["refused"].is_string());
    }
    const auto carried = ask(catalogue, {"docket", "carry-out"});
    CHECK(carried.code == 1);
    CHECK(carried.document["refused"].size() == 2);
    CHECK(contentsBelow(folder / "V").size() == 2);
    CHECK(ask(catalogue, {"docket", "clear"}).document["actions"].empty());
}

TEST_CASE("full effort adds SHA-256, a changed label and choices are kept") {
    const TempFolder folder;
    const auto catalogue = folder / "c.sqlite";
    writeFile(folder / "V/a.wav", smallWav(1));
    writeFile(folder / "V/.b.wav", smallWav(2));
    const auto first = ask(catalogue, {"survey", folder / "V", "--label", "SHEARWATER", "--effort", "full",
                                       "--leave-hidden"})
                           .document;
    CHECK(first["volume"] == "SHEARWATER");
    CHECK(first["seen"] == 1);
    CHECK(ask(catalogue, {"survey", folder / "V"}).document["seen"] == 1);
    CHECK(ask(catalogue, {"survey", folder / "V", "--take-all"}).document["seen"] == 2);
}

TEST_CASE("an interrupted survey ends with 130 and keeps its state") {
    const TempFolder folder;
    const auto catalogue = folder / "c.sqlite";
    for (std::uint32_t i = 0; i < 1500; ++i) {
        writeFile(folder / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 0.3));
    }
    std::vector<std::string> words{SOBER_PROGRAM, "--catalogue", catalogue,
                                   "--quiet",     "survey",      folder / "V"};
    std::vector<char*> arguments;
    for (auto& word : words) {
        arguments.push_back(word.data());
    }
    arguments.push_back(nullptr);
    pid_t child = 0;
    REQUIRE(posix_spawn(&child, SOBER_PROGRAM, nullptr, nullptr, arguments.data(), environ) == 0);
    for (int waited = 0; waited < 5000 && !isTaken(catalogue + "-wal"); ++waited) {
        std::this_thread::sleep_for(std::chrono::milliseconds(1));
    }
    std::this_thread::sleep_for(std::chrono::milliseconds(40));
    kill(child, SIGINT);
    int status = 0;
    waitpid(child, &status, 0);
    REQUIRE(WIFEXITED(status));
    CHECK((WEXITSTATUS(status) == 130 || WEXITSTATUS(status) == 0)); // 0: this machine was quicker
    const auto rest = ask(catalogue, {"survey", folder / "V"}).document;
    CHECK(rest["seen"] == 1500);
    CHECK(rest["missing"] == 0);
    CHECK(rest["added"].get<int>() + rest["unchanged"].get<int>() == 1500);
}
