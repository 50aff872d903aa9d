#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <set>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

json found(const std::string& where, std::vector<std::string> words) {
    words.insert(words.begin(), "find");
    words.emplace_back("--json");
    const auto answer = sober::test::sober(where, words);
    INFO(answer.err);
    REQUIRE(answer.code == 0);
    return json::parse(answer.out);
}

std::set<std::string> pathsOf(const json& answer) {
    std::set<std::string> paths;
    for (const auto& holding : answer["holdings"]) {
        paths.insert(holding["path"]);
    }
    return paths;
}

/// A path as its words are searched: every byte that the demo's tools tell of, ASCII lowered.
std::string lowered(std::string text) {
    std::ranges::transform(text, text.begin(),
                           [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

/// The path of a holding as its bytes are.
std::string pathIn(const json& holding) {
    std::string path = holding["path"];
    if (holding.contains("path_encoding")) {
        for (auto at = path.find('%'); at != std::string::npos; at = path.find('%', at + 1)) {
            path.replace(at, 3, 1, static_cast<char>(std::stoi(path.substr(at + 1, 2), nullptr, 16)));
        }
    }
    return path;
}

} // namespace

TEST_CASE("find meets what an independent look at the demo's names and tags meets") {
    const auto all = found(demoCatalogue, {});
    REQUIRE(all["count"].get<std::size_t>() == all["holdings"].size());
    for (const std::string word : {"evening", "fog", "hymn", ".ogg", "1998", "harmonium", "inbox/", "zzz"}) {
        CAPTURE(word);
        std::set<std::string> expected;
        for (const auto& holding : all["holdings"]) {
            // The part of the path within its volume, which is named after its folder here.
            const auto place = holding["path"].get<std::string>();
            const auto root = std::string(TEST_DEMO "/") + holding["volume"].get<std::string>() + "/";
            std::string text = place.starts_with(root) ? place.substr(root.size()) : place;
            for (const auto* field : {"title", "artist", "album", "date"}) {
                text += "\n" + holding["tags"][field].get<std::string>();
            }
            if (lowered(text).find(word) != std::string::npos) {
                expected.insert(place);
            }
        }
        const auto answer = found(demoCatalogue, {word});
        CHECK(answer["count"] == expected.size());
        CHECK(pathsOf(answer) == expected);
    }
}

TEST_CASE("find is narrowed, limited, and kept as a standing list") {
    DemoCopy demo;
    const auto path = demo.cataloguePath();
    REQUIRE(sober::test::sober(path, {"survey", demo / "TERN"}).code == 0);
    REQUIRE(sober::test::sober(path, {"players", "add", demo / "TERN/LISTS", "--name", "t", "--ignores-case"})
                .code == 0);
    const auto all = found(path, {});
    const auto listed = found(path, {"--codec", "mp3"});
    CHECK(listed["count"].get<std::size_t>() > 0);
    const auto unlisted = found(path, {"--unlisted"});
    CHECK(unlisted["count"].get<std::size_t>() < all["count"].get<std::size_t>());
    for (const auto& holding : all["holdings"]) {
        CHECK(holding["lists"].empty() == (pathsOf(unlisted).contains(holding["path"])));
    }
    const auto limited = found(path, {"--limit", "2"});
    CHECK(limited["count"] == all["count"]);
    CHECK(limited["holdings"].size() == 2);
    CHECK(found(path, {"--years", "2003", "--volume", "TERN"})["count"].get<std::size_t>() > 0);
    CHECK(found(path, {"--bitrate", "-1"})["count"] == 0);
    found(path, {"polka", "--keep-as", "polkas"});

    // The card is pulled: everything is found as before, and how to reach it is said.
    fs::rename(demo / "TERN", demo / "pulled");
    const auto away = found(path, {"polka"});
    REQUIRE(away["count"].get<std::size_t>() > 0);
    CHECK_FALSE(away["holdings"][0]["at_hand"].get<bool>());
    CHECK(sober::test::sober(path, {"find", "polka"}).out.find("), away since ") != std::string::npos);

    CHECK(sober::test::sober(path, {"find", "--volume", "NONE"}).code == 1);
    for (const auto* bad : {"5-x", "9-3", "-", "x"}) {
        CHECK(sober::test::sober(path, {"find", "--length", bad}).code == 2);
    }
    CHECK(sober::test::sober(path, {"find", "--verdict", "fine"}).code == 2);
}

TEST_CASE("browse adds up, folder by folder") {
    const auto browsed = [&](const std::string& place) {
        const auto answer = sober::test::sober(demoCatalogue, {"browse", place, "--json"});
        INFO(answer.err);
        REQUIRE(answer.code == 0);
        return json::parse(answer.out);
    };
    const auto top = browsed("GANNET");
    CHECK(top["schema"] == "sober.browse/1");
    std::size_t holdings = 0;
    for (const auto& folder : top["folders"]) {
        holdings += folder["holdings"].get<std::size_t>();
        const auto below = browsed("GANNET/" + folder["name"].get<std::string>() + "/");
        std::size_t within = 0;
        std::uint64_t bytes = 0;
        for (const auto& deeper : below["folders"]) {
            within += deeper["holdings"].get<std::size_t>();
            bytes += deeper["bytes"].get<std::uint64_t>();
        }
        for (const auto& holding : below["holdings"]) {
            within += holding["state"] == "present" ? 1 : 0;
            bytes += holding["state"] == "present" ? fs::file_size(pathIn(holding)) : 0;
        }
        CHECK(within == folder["holdings"]);
        CHECK(bytes == folder["bytes"]);
    }
    CHECK(holdings > 100);
    CHECK(sober::test::sober(demoCatalogue, {"browse", "NONE"}).code == 1);
    CHECK(sober::test::sober(demoCatalogue, {"browse", "GANNET/none"}).code == 1);
}
