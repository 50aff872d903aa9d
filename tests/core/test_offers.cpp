// The form of offers, and a real HTTP exchange with the stand-in: what is slow, cut, too long, too short,
// leads in a circle or to another host costs one sentence, and nothing is left of it. Checksums by sha256sum.
#include "core/intake/offer_shelf.h"
#include "core/remedy/fetch_offer.h"
#include "support/run_program.h"
#include "support/running_service.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <filesystem>

using namespace sober;
using namespace sober::test;
using Json = nlohmann::json;
namespace fs = std::filesystem;

namespace {

Json wholeOffer() {
    return {{"for", 0},
            {"address", "files/a.flac"},
            {"title", "A"},
            {"artist", "B"},
            {"seconds", 61.5},
            {"codec", "flac"},
            {"lossless", true},
            {"bitrate", 900'000},
            {"bytes", 12},
            {"sha256", std::string(64, 'a')},
            {"fingerprint", {1U, 4'294'967'295U}}};
}

std::vector<Offer> read(const Json& offer) {
    const auto offers =
        offersFrom(Json{{"schema", "sober.offers/1"}, {"offers", Json::array({offer})}}.dump(), 1);
    REQUIRE(offers.ok());
    return *offers;
}

/// A shelf with one file to each way to behave badly.
struct Shelved {
    Shelved() {
        Json listed = Json::array();
        for (const auto* fault :
             {"", "slow", "cut", "wrong-length", "wrong-checksum", "circle", "huge", "elsewhere", "gone"}) {
            const auto name = "of" + std::string(fault) + ".flac";
            writeFile(folder / name, std::string(300'000, 'x') + fault);
            listed.push_back({{"file", name},
                              {"title", "T " + std::string(fault)},
                              {"artist", "Wren"},
                              {"seconds", 60},
                              {"codec", "flac"},
                              {"lossless", true},
                              {"bitrate", 900'000},
                              {"fault", fault}});
        }
        writeFile(folder / "offers.json", listed.dump());
        shelf.emplace(folder.path());
    }
    TempFolder folder;
    std::optional<RunningShelf> shelf;
};

} // namespace

TEST_CASE("An offer that lacks what it must say is left out, and what is no answer is refused") {
    REQUIRE(read(wholeOffer()).size() == 1);
    const auto offer = read(wholeOffer()).front();
    CHECK(offer.claims.duration == 61.5);
    CHECK(offer.claims.lossless);
    CHECK(offer.fingerprint == Fingerprint{1, 4'294'967'295U});
    CHECK(offer.sha256[0] == 0xAA);
    for (const auto* field : {"for", "address", "seconds", "bytes", "sha256"}) {
        auto lacking = wholeOffer();
        lacking.erase(field);
        CHECK(read(lacking).empty());
    }
    const std::vector<std::pair<const char*, Json>> wrong{
        {"for", 1},     {"for", -1},         {"for", "0"},       {"bytes", 0},
        {"bytes", -5},  {"bytes", "12"},     {"sha256", "abc"},  {"sha256", std::string(64, 'G')},
        {"seconds", 0}, {"seconds", -3},     {"seconds", 1e300}, {"seconds", "61"},
        {"address", 7}, {"address", Json()}, {"address", ""},    {"address", std::string(5'000, 'a')}};
    for (const auto& [field, value] : wrong) {
        auto bad = wholeOffer();
        bad[field] = value;
        CAPTURE(field, value.dump().substr(0, 40));
        CHECK(read(bad).empty());
    }
    // Odd words in the rest are not believed, and the offer is still one.
    for (const auto& [field, value] : std::vector<std::pair<const char*, Json>>{{"fingerprint", {1, "x"}},
                                                                                {"fingerprint", {-1}},
                                                                                {"title", 7},
                                                                                {"lossless", "yes"},
                                                                                {"bitrate", -1}}) {
        auto odd = wholeOffer();
        odd[field] = value;
        CAPTURE(field, value.dump());
        REQUIRE(read(odd).size() == 1);
        CHECK((read(odd).front().fingerprint.empty() || std::string(field) != "fingerprint"));
    }
    for (const auto* text :
         {"", "{", "[]", "null", R"({"schema":"sober.offers/2","offers":[]})",
          R"({"schema":"sober.offers/1"})", R"({"schema":"sober.offers/1","offers":{}})"}) {
        CHECK(offersFrom(text, 1).error().cause == Cause::damaged);
    }
    CHECK(offersFrom(std::string(200'000, '['), 1).error().cause == Cause::damaged);
}

TEST_CASE("A shelf's address is one of HTTP, without a password") {
    for (const auto* good : {"http://127.0.0.1:8700", "https://shelf.example/path", "http://[::1]:99"}) {
        CHECK(isShelfAddress(good).ok());
    }
    for (const auto* bad : {"", "shelf", "ftp://127.0.0.1", "file:///etc/passwd", "http://",
                            "http://a:b@host", "javascript:alert(1)"}) {
        CAPTURE(bad);
        CHECK_FALSE(isShelfAddress(bad).ok());
    }
}

TEST_CASE("What a shelf offers is fetched whole, or not at all") {
    const Shelved shelved;
    HttpLimits limits;
    limits.silentSeconds = 1;
    const OfferShelf shelf(shelved.shelf->address(), limits);
    RunControl control;
    std::vector<OfferQuestion> questions;
    const std::vector<std::string> titles{
        "T",        "T slow", "T cut",       "T wrong-length", "T wrong-checksum",
        "T circle", "T huge", "T elsewhere", "T gone",         "unknown"};
    for (std::size_t i = 0; i < titles.size(); ++i) {
        questions.push_back({i, titles[i], "wren", 60});
    }
    const auto offers = shelf.ask(questions, control);
    REQUIRE(offers.ok());
    REQUIRE(offers->size() == 9);
    const TempFolder into;
    const std::map<std::string, std::string> expected{{"T slow", "has stopped answering"},
                                                      {"T cut", "broke off"},
                                                      {"T wrong-length", "of the"},
                                                      {"T wrong-checksum", "SHA-256 is another"},
                                                      {"T circle", "leads in a circle"},
                                                      {"T huge", "that is no recording"},
                                                      {"T elsewhere", "lies on another host"},
                                                      {"T gone", "status 404"}};
    for (const auto& offer : *offers) {
        std::uint64_t told = 0;
        const auto fetched =
            fetchOffer(shelf, offer, into / "kept", control, [&](std::uint64_t bytes) { told += bytes; });
        CAPTURE(offer.title);
        const auto why = expected.find(offer.title);
        if (why == expected.end()) {
            REQUIRE(fetched.ok());
            CHECK(told == 300'000);
            CHECK(run({"sha256sum", *fetched}).out.substr(0, 64) == fs::path(*fetched).stem());
            CHECK(fs::path(*fetched).extension() == ".flac");
        } else {
            REQUIRE_FALSE(fetched.ok());
            CHECK(fetched.error().sentence.find(why->second) != std::string::npos);
        }
    }
    CHECK(std::distance(fs::directory_iterator(into / "kept"), {}) == 1);
    CHECK(forgetFetched(into / "kept", {}).ok());
    CHECK(fs::is_empty(into / "kept"));

    // Stopped in the middle.
    RunControl halfway;
    const auto whole = std::ranges::find(*offers, "T ", &Offer::title);
    REQUIRE(whole != offers->end());
    const auto cut =
        fetchOffer(shelf, *whole, into / "kept", halfway, [&](std::uint64_t /*bytes*/) { halfway.cancel(); });
    REQUIRE_FALSE(cut.ok());
    CHECK(cut.error().cause == Cause::interrupted);
    CHECK(fs::is_empty(into / "kept"));

    RunControl stopped;
    stopped.cancel();
    CHECK(shelf.ask(questions, stopped).error().cause == Cause::interrupted);
    CHECK(
        OfferShelf("http://127.0.0.1:1").ask(questions, control).error().sentence.find("cannot be reached") !=
        std::string::npos);
}
