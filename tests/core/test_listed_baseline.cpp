#include "core/catalogue/fixity_store.h"
#include "core/exchange/listed_baseline.h"
#include "core/exchange/premis.h"
#include "core/survey/verify.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A list that another tool made years before the survey, a file that changed in between, and a healthy copy
/// elsewhere.
struct Inherited : Collection {
    explicit Inherited(const std::string& tool = "sha256sum") {
        fs::create_directories(*this / "V");
        fs::create_directories(*this / "W");
        for (const std::string name : {"good.wav", "bad.wav", "gone.wav"}) {
            writeFile(*this / ("V/" + name), smallWav(static_cast<unsigned>(name.size() + name[0])));
        }
        recorded = readFile(*this / "V/bad.wav");
        text = run({"sh", "-c", "cd " + (*this / "V") + " && " + tool + " *.wav"}).out;
        fs::copy(*this / "V/bad.wav", *this / "W/bad.wav");
        auto content = recorded;
        content[5000] = static_cast<char>(content[5000] ^ 1);
        writeFile(*this / "V/bad.wav", content);
        for (const std::string volume : {"V", "W"}) {
            RunControl control;
            REQUIRE(surveyVolume(catalogue(), {*this / volume, {}, {}, Effort::full}, control,
                                 [](const Progress&) {})
                        .ok());
        }
        fs::remove(*this / "V/gone.wav");
        survey("V");
    }
    ListedBaseline take(Nanoseconds listed) {
        RunControl control;
        auto taken = takeListedBaseline(catalogue(), *parseChecksumList(text, "list"), *this / "V", listed,
                                        control, [](const Progress&) {});
        INFO((taken ? std::string() : taken.error().sentence));
        REQUIRE(taken.ok());
        return *taken;
    }
    std::vector<FoundDrift> drift() {
        RunControl control;
        return verifyHoldings(catalogue(), {}, control, [](const Progress&) {})->drift;
    }

    std::string recorded;
    std::string text;
};

} // namespace

TEST_CASE("a list made years ago says what has drifted since, and from where it can be mended") {
    Inherited collection;
    collection.text += std::string(64, 'c') + "  never.wav\n";
    const bool writtenSince = GENERATE(false, true);
    const auto taken = collection.take(writtenSince ? 1 : timeNow());
    CHECK(taken.asListed == 1);
    CHECK(taken.drifted == std::vector<BytePath>{collection / "V/bad.wav"});
    CHECK(taken.missing == std::vector<BytePath>{collection / "V/gone.wav"});
    CHECK(taken.uncatalogued == std::vector<BytePath>{"never.wav"});

    auto drift = collection.drift();
    std::erase_if(drift, [](const FoundDrift& each) { return each.kind == DriftKind::missing; });
    REQUIRE(drift.size() == 1);
    CHECK(drift[0].kind == (writtenSince ? DriftKind::audioAltered : DriftKind::silentChange));
    CHECK(drift[0].blocks.empty()); // a list knows of no blocks
    CHECK(drift[0].healthy == std::vector<BytePath>{collection / "W/bad.wav"});

    collection.putOnDocket(ActionKind::restore, "V", "bad.wav");
    RunControl control;
    CHECK(carryOut(collection.catalogue(), control, {})->done == 1);
    CHECK(readFile(collection / "V/bad.wav") == collection.recorded);
    CHECK(collection.drift().size() == 1); // the missing one
}

TEST_CASE("lists of other checksums tell drift too, which can be accepted") {
    Inherited collection(GENERATE(as<std::string>(), "md5sum", "b2sum --tag", "sha1sum"));
    CHECK(collection.take(timeNow()).drifted.size() == 1);
    CHECK(collection.drift().size() == 2);
    collection.putOnDocket(ActionKind::acceptChange, "V", "bad.wav");
    RunControl control;
    CHECK(carryOut(collection.catalogue(), control, {})->done == 1);
    CHECK(collection.drift().size() == 1);
}

// The schema of PREMIS is not in Debian; what is checked is that it is well-formed XML for an independent
// parser (xmllint) and which events it holds.
TEST_CASE("the ledger is told as PREMIS events") {
    Inherited collection;
    collection.take(timeNow());
    collection.putOnDocket(ActionKind::restore, "V", "bad.wav");
    RunControl control;
    REQUIRE(carryOut(collection.catalogue(), control, {})->done == 1);
    const auto text = premisOfLedger(collection.catalogue());
    REQUIRE(text.ok());
    writeFile(collection / "events.xml", *text);
    const auto count = [&](const std::string& what) {
        const auto out =
            run({"xmllint", "--xpath", "string(count(" + what + "))", collection / "events.xml"});
        CHECK(out.code == 0);
        return out.out.substr(0, out.out.find('\n'));
    };
    const auto events = [&](const std::string& term) {
        return count("//*[local-name()='eventType'][.='" + term + "']");
    };
    CHECK(events("message digest calculation") == "3"); // surveys
    CHECK(events("fixity check") == "1");
    CHECK(events("recovery") == "1");
    CHECK(count("//*[local-name()='originalName'][contains(.,'V/bad.wav')]") == "1");
    CHECK(count("/*[local-name()='premis']/*[local-name()='agent']") == "1");
}
