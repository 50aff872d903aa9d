// What a holding is to a survey from one to the next: left out, back, missing, drifted; and what a location
// in a list has to say to be read back as what is meant.
#include "core/audit/refresh_findings.h"
#include "core/exchange/playlist.h"
#include "core/players/location.h"
#include "core/survey/verify.h"
#include "support/collection.h"
#include "support/small_audio.h"

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

SurveyChoices leaving(const std::string& pattern) {
    SurveyChoices choices;
    choices.leavePatterns = {pattern};
    return choices;
}

} // namespace

TEST_CASE(
    "a holding that the choices leave out is neither missing nor a copy, and is known when it is back") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/samples/b.wav", smallWav(1));
    collection.survey("V");
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    CHECK(Findings(collection.catalogue()).setTotals()->sets == 1);

    const auto left = collection.survey("V", leaving("samples"));
    CHECK(left.leftOut == 1);
    CHECK(left.missing == 0);
    CHECK(left.seen == 1);
    const auto id = collection.holding("V", "samples/b.wav")->id;
    CHECK(collection.holding("V", "samples/b.wav")->state == HoldingState::leftOut);
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    CHECK(Findings(collection.catalogue()).setTotals()->sets == 0);
    CHECK(Holdings(collection.catalogue()).missing()->empty());
    CHECK(Holdings(collection.catalogue()).carrying(collection.holding("V", "a.wav")->checksum)->size() == 1);

    // The next survey by the same choices says it again, and changes nothing.
    CHECK(collection.survey("V").leftOut == 1);

    const auto back = collection.survey("V", SurveyChoices{});
    CHECK(back.leftOut == 0);
    CHECK(back.unchanged == 2);
    CHECK(back.bytesRead == 0);
    CHECK(collection.holding("V", "samples/b.wav")->id == id);
    CHECK(collection.holding("V", "samples/b.wav")->state == HoldingState::present);
}

TEST_CASE("what went while it was left out is missing once it is looked for again") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/samples/b.wav", smallWav(2));
    collection.survey("V");
    collection.survey("V", leaving("samples"));
    fs::remove(collection / "V/samples/b.wav");
    CHECK(collection.survey("V").missing == 0);
    collection.survey("V", SurveyChoices{});
    const auto state = collection.holding("V", "samples/b.wav")->state;
    CHECK(state != HoldingState::present);
    writeFile(collection / "V/samples/b.wav", smallWav(2));
    collection.survey("V");
    CHECK(collection.holding("V", "samples/b.wav")->state == HoldingState::present);
}

TEST_CASE("what was missing before and is left out now is not missed") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/samples/b.wav", smallWav(2));
    collection.survey("V");
    fs::remove(collection / "V/samples/b.wav");
    CHECK(collection.survey("V").missing == 1);
    CHECK(collection.survey("V", leaving("samples")).leftOut == 1);
    CHECK(Holdings(collection.catalogue()).missing()->empty());
}

TEST_CASE("sizes between which nothing lies are refused, and nothing is read") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    SurveyChoices none;
    none.minSize = 100;
    none.maxSize = 10;
    RunControl control;
    const auto refused = surveyVolume(collection.catalogue(), {collection / "V", {}, none, {}}, control,
                                      [](const Progress&) {});
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().cause == Cause::invalid);
    CHECK(refused.error().sentence.find("everything would be left out") != std::string::npos);
    CHECK(Volumes(collection.catalogue()).all()->empty());
}

TEST_CASE("choices are changed one by one") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V", leaving("x*"));
    RunControl control;
    SurveyRequest request{collection / "V", {}, {}, {}};
    request.changeChoices = [](SurveyChoices& choices) { choices.leaveHidden = true; };
    REQUIRE(surveyVolume(collection.catalogue(), request, control, [](const Progress&) {}).ok());
    const auto kept = collection.volume("V").choices;
    CHECK(kept.leaveHidden);
    CHECK(kept.leavePatterns == std::vector<std::string>{"x*"});
}

TEST_CASE("a holding whose beginning is destroyed is found drifted by a survey, in whichever way") {
    struct Row {
        const char* what;
        std::function<void(std::string&)> happens;
    };
    const auto row = GENERATE(values<Row>({
        {"zeros", [](std::string& bytes) { std::fill_n(bytes.begin(), 200, '\0'); }},
        {"a text", [](std::string& bytes) { bytes.replace(0, 20, "Dear editor, I write"); }},
        {"a picture", [](std::string& bytes) { bytes.replace(0, 8, "\x89PNG\r\n\x1a\n"); }},
        {"nothing", [](std::string& bytes) { bytes.clear(); }},
        {"one byte", [](std::string& bytes) { bytes.resize(1); }},
    }));
    CAPTURE(row.what);
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    const auto before = collection.holding("V", "a.wav");
    auto bytes = smallWav(1);
    row.happens(bytes);
    writeFile(collection / "V/a.wav", bytes);
    const auto surveyed = collection.survey("V");
    CHECK(surveyed.missing == 0);
    CHECK(surveyed.changed == 1);
    CHECK(surveyed.seen == 1);
    const auto now = collection.holding("V", "a.wav");
    CHECK(now->id == before->id);
    CHECK(now->state == HoldingState::present);
    CHECK(now->size == bytes.size());
    CHECK(now->claims.codec == before->claims.codec);
    CHECK_FALSE(now->problem.empty());
    RunControl control;
    const auto verified = verifyHoldings(collection.catalogue(), {}, control, [](const Progress&) {});
    REQUIRE(verified->drift.size() == 1);
    CHECK(verified->drift.front().kind != DriftKind::missing);
    // A second survey reads nothing again, and says what is wrong again.
    const auto again = collection.survey("V");
    CHECK(again.bytesRead == 0);
    CHECK(again.errors.size() == 1);
    // Written back as it was, it is what was recorded.
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    CHECK(collection.holding("V", "a.wav")->checksum == before->checksum);
    CHECK(verifyHoldings(collection.catalogue(), {}, control, [](const Progress&) {})->drift.empty());
}

TEST_CASE("a file that never was audio stays passed over") {
    Collection collection;
    writeFile(collection / "V/letter.wav", "Dear editor");
    CHECK(collection.survey("V").passedOver == 1);
    CHECK(collection.survey("V").bytesRead == 0);
    CHECK_FALSE(collection.holding("V", "letter.wav").has_value());
}

TEST_CASE("which locations can stand in which kind of list") {
    struct Row {
        std::string location;
        bool m3u;
        bool pls;
        bool cue;
    };
    for (const auto& row : std::vector<Row>{{"plain.wav", true, true, true},
                                            {"trailing ", true, false, false},
                                            {"trailing\t", true, false, false},
                                            {" leading", false, false, false},
                                            {"\tleading", false, false, false},
                                            {"#comment", false, true, true},
                                            {"./#comment", true, true, true},
                                            {"\xEF\xBB\xBFmark", false, true, true},
                                            {"two\nlines", false, false, false},
                                            {"two\rlines", false, false, false},
                                            {"a \"b\" c", true, true, false},
                                            {"", false, false, false}}) {
        CAPTURE(row.location);
        CHECK(canStandIn(PlaylistFormat::m3u, row.location) == row.m3u);
        CHECK(canStandIn(PlaylistFormat::pls, row.location) == row.pls);
        CHECK(canStandIn(PlaylistFormat::cue, row.location) == row.cue);
    }
}

TEST_CASE("what can stand in an M3U is read back as it was written, whatever ends its lines") {
    for (const std::string end : {"\n", "\r\n", "\r"}) {
        for (const std::string location :
             {"plain.wav", "trailing ", "a\tb", "C:\\x.wav", "./ lead", "50%25.wav"}) {
            CAPTURE(end, location);
            const auto text = "#EXTM3U" + end + "#EXTINF:12,Tide" + end + location + end + "other.wav" + end;
            const auto list = parsePlaylist(text, "list.m3u");
            REQUIRE(list.ok());
            REQUIRE(list->entries.size() == 2);
            CHECK(list->entries[0].location == location);
            CHECK(list->entries[0].title == "Tide");
            CHECK(text.substr(list->entries[0].begins, location.size()) == location);
            const auto written = withLocations(text, *list, std::vector<NewLocation>{{0, "new.wav"}});
            REQUIRE(written.ok());
            CHECK(*written ==
                  "#EXTM3U" + end + "#EXTINF:12,Tide" + end + "new.wav" + end + "other.wav" + end);
        }
    }
}

TEST_CASE("a location's readings: the likeliest first, and blanks at its end last") {
    const auto paths = [](const std::string& location) { return meaningOf(location, false, "/l").paths; };
    CHECK(paths("a.wav") == std::vector<BytePath>{"/l/a.wav"});
    CHECK(paths("a.wav ") == std::vector<BytePath>{"/l/a.wav", "/l/a.wav "});
    CHECK(paths("a\\b.wav").front() == "/l/a/b.wav");
    CHECK(paths("a\\b.wav").back() == "/l/a\\b.wav");
    CHECK(paths("caf\xE9.wav") == std::vector<BytePath>{"/l/caf\xE9.wav", "/l/caf\xC3\xA9.wav"});
    CHECK(paths("a%20b.wav").front() == "/l/a%20b.wav");
    CHECK(meaningOf("a%20b.wav ", true, "/l").paths == std::vector<BytePath>{"/l/a b.wav "});
}
