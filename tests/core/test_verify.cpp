#include "core/remedy/actions/mending.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/taking_back.h"
#include "core/survey/seek.h"
#include "core/survey/verify.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <sys/stat.h>

#include <array>
#include <cstdlib>
#include <fcntl.h>
#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

std::pair<timespec, timespec> timesOf(const BytePath& path) {
    struct stat status {};
    REQUIRE(stat(path.c_str(), &status) == 0);
    return {status.st_atim, status.st_mtim};
}

void putTimesBack(const BytePath& path, const std::pair<timespec, timespec>& times) {
    const timespec both[2] = {times.first, times.second};
    REQUIRE(utimensat(AT_FDCWD, path.c_str(), both, 0) == 0);
}

std::string withBytes(std::string content, std::size_t at, const std::string& bytes) {
    return content.replace(at, bytes.size(), bytes);
}

/// Twelve seconds of music in several formats, of which the WAV has more than one block.
struct Recorded : Collection {
    explicit Recorded(Effort effort = Effort::full) : effort_(effort) {
        fs::create_directories(*this / "V");
        writeMusic(*this / "V/a.wav", 31, 14);
        for (const std::string name : {"b.flac", "c.mp3", "d.m4a", "e.ogg"}) {
            ffmpeg({"-i", *this / "V/a.wav", "-metadata", "title=" + name, "-metadata", "artist=Band",
                    *this / ("V/" + name)});
        }
        look();
    }
    void look() {
        RunControl control;
        REQUIRE(
            surveyVolume(catalogue(), {*this / "V", {}, {}, effort_}, control, [](const Progress&) {}).ok());
    }
    VerifyReport verify(VerifyRequest request = {}) {
        RunControl control;
        auto report = verifyHoldings(catalogue(), request, control, [](const Progress&) {});
        INFO((report ? std::string() : report.error().sentence));
        REQUIRE(report.ok());
        return *report;
    }
    std::map<BytePath, std::string> kinds(const VerifyReport& report) const {
        std::map<BytePath, std::string> kinds;
        for (const auto& drift : report.drift) {
            kinds[BytePath(nameOf(drift.path))] = driftWord(drift.kind);
        }
        return kinds;
    }
    BytePath at(const BytePath& name) const { return *this / ("V/" + name); }
    /// Writes new content and leaves the times as they were.
    void changeSilently(const BytePath& name, const std::string& content) {
        const auto times = timesOf(at(name));
        writeFile(at(name), content);
        putTimesBack(at(name), times);
    }

  private:
    Effort effort_;
};

using Kinds = std::map<BytePath, std::string>;

} // namespace

TEST_CASE("nothing drifts by itself, and a verification leaves files as they are") {
    Recorded collection;
    const auto before = contentsBelow(collection / "V");
    const auto times = timesOf(collection.at("b.flac"));
    const auto report = collection.verify();
    CHECK(report.checked == 5);
    CHECK(report.unchanged == 5);
    CHECK(report.drift.empty());
    std::uint64_t bytes = 0;
    for (const auto& [path, content] : before) {
        bytes += content.size();
    }
    CHECK(report.bytesRead == bytes);
    CHECK(contentsBelow(collection / "V") == before);
    CHECK(timesOf(collection.at("b.flac")).second.tv_nsec == times.second.tv_nsec);
}

TEST_CASE("each kind of drift is told from the others") {
    const auto effort = GENERATE(Effort::full, Effort::index);
    Recorded collection(effort);
    const auto whole = [&](const BytePath& name) { return readFile(collection.at(name)); };
    struct Row {
        BytePath name;
        std::string kind;
        std::function<void()> plant;
    };
    const std::vector<Row> rows{
        {"a.wav", "silent-change",
         [&] {
             collection.changeSilently("a.wav",
                                       withBytes(whole("a.wav"), 1'200'000, std::string(4096, '\0')));
         }},
        {"b.flac", "tags-edited",
         [&] {
             REQUIRE(
                 run({"metaflac", "--set-tag=GENRE=Polka", "--set-tag=TITLE=Other", collection.at("b.flac")})
                     .code == 0);
         }},
        {"c.mp3", "truncated",
         [&] { fs::resize_file(collection.at("c.mp3"), whole("c.mp3").size() * 2 / 3); }},
        {"d.m4a", "replaced",
         [&] {
             writeMusic(collection / "other.wav", 99, 20);
             ffmpeg({"-i", collection / "other.wav", "-metadata", "title=Other", collection.at("d.m4a")});
         }},
        {"e.ogg", "missing", [&] { fs::remove(collection.at("e.ogg")); }},
    };
    Kinds expected;
    for (const auto& row : rows) {
        row.plant();
        expected[row.name] = row.kind;
    }
    const bool surveyedBetween = GENERATE(false, true);
    if (surveyedBetween) {
        collection.look(); // takes the new content in, and accepts none of it
    }
    CAPTURE(effort == Effort::full, surveyedBetween);
    const auto report = collection.verify();
    CHECK(collection.kinds(report) == expected);
    CHECK(report.unchanged == 0);
    // It stays reported until it is accepted or mended.
    CHECK(collection.kinds(collection.verify()) == expected);
}

TEST_CASE("audio that was altered at its length is neither an edited tag nor another recording") {
    Recorded collection;
    ffmpeg({"-i", collection.at("a.wav"), "-metadata", "title=c.mp3", "-metadata", "artist=Band", "-b:a",
            "96k", collection.at("c.mp3")});
    CHECK(collection.kinds(collection.verify()) == Kinds{{"c.mp3", "audio-altered"}});
}

TEST_CASE("drift says in which blocks, and where a healthy copy is") {
    Recorded collection;
    fs::copy(collection.at("a.wav"), collection.at("copy.wav"));
    collection.look();
    collection.changeSilently("a.wav", withBytes(readFile(collection.at("a.wav")), 1'100'000, "xxxx"));
    const auto report = collection.verify();
    REQUIRE(report.drift.size() == 1);
    CHECK(report.drift.front().blocks == std::vector<std::pair<std::uint64_t, std::uint64_t>>{{1, 1}});
    CHECK(report.drift.front().healthy == std::vector<BytePath>{collection.at("copy.wav")});
}

TEST_CASE("content that is back is no drift any more; accepted change is the new baseline") {
    Recorded collection;
    const auto before = readFile(collection.at("b.flac"));
    writeFile(collection.at("b.flac"), withBytes(before, before.size() / 2, "xxxx"));
    CHECK(collection.verify().drift.size() == 1);
    writeFile(collection.at("b.flac"), before);
    CHECK(collection.verify().drift.empty());

    const auto altered = withBytes(before, before.size() / 2, "yyyy");
    writeFile(collection.at("b.flac"), altered);
    CHECK(collection.verify().drift.size() == 1);
    collection.putOnDocket(ActionKind::acceptChange, "V", "b.flac");
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    CHECK(carried->done == 1);
    CHECK(collection.verify().drift.empty());
    CHECK(readFile(collection.at("b.flac")) == altered);
    REQUIRE(undoEntry(collection.catalogue(), carried->entry, control, {}).ok());
    CHECK(collection.verify().drift.size() == 1);
    CHECK(
        FixityStore(collection.catalogue()).accept(collection.holding("V", "a.wav")->id, "").error().cause ==
        Cause::invalid);
}

TEST_CASE("a healthy copy puts back what was recorded, and the ledger gives the damage back") {
    Recorded collection;
    const auto before = readFile(collection.at("a.wav"));
    fs::copy(collection.at("a.wav"), collection.at("copy.wav"));
    collection.look();
    const auto damaged = withBytes(before, 70'000, std::string(5000, '\0'));
    collection.changeSilently("a.wav", damaged);
    CHECK(collection.verify().drift.size() == 1);
    collection.putOnDocket(ActionKind::restore, "V", "a.wav");
    RunControl control;
    SECTION("restored") {
        const auto carried = carryOut(collection.catalogue(), control, {});
        REQUIRE(carried.ok());
        CHECK(carried->done == 1);
        CHECK(readFile(collection.at("a.wav")) == before);
        CHECK(collection.verify().drift.empty());
        REQUIRE(undoEntry(collection.catalogue(), carried->entry, control, {})->refused.empty());
        CHECK(readFile(collection.at("a.wav")) == damaged);
        CHECK(collection.verify().drift.size() == 1);
    }
    SECTION("the copy may go in the same docket, once it was used") {
        REQUIRE(DocketStore(collection.catalogue()).clear().ok());
        fs::copy(collection.at("copy.wav"), collection.at("third.wav"));
        collection.look();
        collection.putOnDocket(ActionKind::retire, "V", "copy.wav");
        collection.putOnDocket(ActionKind::restore, "V", "a.wav");
        const auto carried = carryOut(collection.catalogue(), control, {});
        CHECK(carried->done == 2);
        CHECK(readFile(collection.at("a.wav")) == before);
        CHECK_FALSE(isTaken(collection.at("copy.wav")));
    }
    SECTION("the copy only looked healthy") {
        collection.changeSilently("copy.wav", withBytes(before, 90'000, "zzzz"));
        const auto carried = carryOut(collection.catalogue(), control, {});
        REQUIRE(carried->refused.size() == 1);
        CHECK(carried->refused.front().sentence.find("not what was recorded") != std::string::npos);
        CHECK(readFile(collection.at("a.wav")) == damaged);
        CHECK(contentsBelow(collection / "V").size() == 6);
    }
    SECTION("no copy is left") {
        fs::remove(collection.at("copy.wav"));
        collection.look();
        const auto review = reviewDocket(collection.catalogue());
        CHECK(review->actions.front().refused == "No healthy copy of what was recorded is at hand.");
    }
}

TEST_CASE("two damaged copies make a sound one where their damage lies in different blocks") {
    Recorded collection;
    const auto before = readFile(collection.at("a.wav"));
    fs::copy(collection.at("a.wav"), collection.at("copy.wav"));
    collection.look();
    collection.changeSilently("a.wav", withBytes(before, 70'000, "damage"));
    const bool apart = GENERATE(true, false);
    collection.changeSilently("copy.wav", withBytes(before, apart ? 1'700'000 : 80'000, "damage"));
    CHECK(collection.verify().drift.size() == 2);
    collection.putOnDocket(ActionKind::repair, "V", "a.wav");
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    CHECK(carried->done == (apart ? 1 : 0));
    CHECK((readFile(collection.at("a.wav")) == before) == apart);
    CHECK(collection.verify().drift.size() == (apart ? 1 : 2));
}

TEST_CASE("what a drive cannot read is read past, named, and is no drift") {
    Recorded collection(Effort::index);
    std::string out;
    collection.whileClosed([&] {
        const auto read = run({"env", "LD_PRELOAD=" FAILING_READS, "FAILING_FILE=/a.wav",
                               "FAILING_FIRST=1500000", "FAILING_PAST=1508192", SOBER_PROGRAM, "--catalogue",
                               collection.cataloguePath(), "--json", "verify"});
        CHECK(read.code == 3);
        out = read.out;
    });
    const auto json = nlohmann::json::parse(out);
    CHECK(json["drift"].empty());
    CHECK(json["checked"] == 5);
    REQUIRE(json["errors"].size() == 1);
    CHECK(json["errors"][0]["error"].get<std::string>().find("could not read") != std::string::npos);
    const auto ranges =
        FixityStore(collection.catalogue()).unreadableOf(collection.holding("V", "a.wav")->id);
    REQUIRE(ranges->size() == 1);
    CHECK(ranges->front().first <= 1'500'000);
    CHECK(ranges->front().first > 1'500'000 - 4096);
    CHECK(ranges->front().second >= 1'508'192);
    CHECK(ranges->front().second < 1'508'192 + 4096);
    CHECK(collection.verify().unchanged == 5);
    CHECK(FixityStore(collection.catalogue()).unreadableOf(collection.holding("V", "a.wav")->id)->empty());
}

TEST_CASE("drift is told whatever becomes of the process that is to say which kind it is") {
    Recorded all(Effort::index);
    const auto path = all / "V/c.mp3";
    writeFile(path, withBytes(readFile(path), 9'000, "another"));
    const std::string usual = std::getenv("SOBER_EVIDENCE") != nullptr ? std::getenv("SOBER_EVIDENCE") : "";
    writeFile(all / "worker", "#!/bin/sh\nkill -KILL $$\n");
    fs::permissions(all / "worker", fs::perms::owner_all);
    const auto worker = GENERATE(std::string("/nowhere"), std::string("worker"));
    setenv("SOBER_EVIDENCE", worker == "worker" ? (all / "worker").c_str() : worker.c_str(), 1);
    const auto report = all.verify();
    RunControl control;
    const auto sought =
        seekHealthyCopies(all.catalogue(), std::array{all / "V"}, control, [](const Progress&) {});
    setenv("SOBER_EVIDENCE", usual.c_str(), 1);
    CHECK(report.checked == 5);
    CHECK(report.unchanged == 4);
    REQUIRE(report.drift.size() == 1);
    CHECK(report.drift.front().path == path);
    CHECK(report.errors.empty());
    // Nothing could be looked into, and that is said of each.
    REQUIRE(sought.ok());
    CHECK(sought->found.empty());
    CHECK(sought->errors.size() == sought->read);
    CHECK(all.verify().drift.size() == 1);
}

TEST_CASE("a stopped check goes on where it was") {
    Collection collection;
    for (int i = 0; i < 600; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(static_cast<std::uint32_t>(i)));
    }
    collection.survey("V");
    RunControl control;
    const auto stopped = verifyHoldings(collection.catalogue(), {}, control, [&](const Progress& progress) {
        if (progress.files >= 256) {
            control.cancel();
        }
    });
    REQUIRE(stopped.ok());
    CHECK(stopped->interrupted);
    CHECK(stopped->checked < 600);
    RunControl again;
    const auto rest = verifyHoldings(collection.catalogue(), {}, again, [](const Progress&) {});
    CHECK(rest->checked + stopped->checked == 600);
    const auto checks = FixityStore(collection.catalogue()).checks();
    REQUIRE(checks->size() == 1);
    CHECK(checks->front().checked == 600);
    CHECK(checks->front().ended != 0);
    // What is ended begins anew; what was just read is not due.
    CHECK(verifyHoldings(collection.catalogue(), {}, again, [](const Progress&) {})->checked == 600);
    VerifyRequest due;
    due.scope = CheckScope::due;
    CHECK(verifyHoldings(collection.catalogue(), due, again, [](const Progress&) {})->checked == 0);
    REQUIRE(FixityStore(collection.catalogue()).setPeriod(collection.volume("V").id, 0).ok());
    CHECK(verifyHoldings(collection.catalogue(), due, again, [](const Progress&) {})->checked == 600);
    VerifyRequest some;
    some.scope = CheckScope::sample;
    some.extent = 0.05;
    CHECK(verifyHoldings(collection.catalogue(), some, again, [](const Progress&) {})->checked ==
          sampleSize(600, 0.05, 0.05));
    some.paths = {collection / "elsewhere"};
    CHECK(verifyHoldings(collection.catalogue(), some, again, [](const Progress&) {}).error().cause ==
          Cause::notFound);
}

TEST_CASE("a sample is as large as its promise needs") {
    // Hypergeometric: of 20 with 2 damaged, the chance that none of n is among them is
    // (20-n)(19-n)/(20*19); by hand.
    struct Row {
        std::uint64_t total;
        double extent, risk;
        std::uint64_t size;
    };
    const auto row = GENERATE(values<Row>({
        {20, 0.1, 0.05, 16}, // 15: 5*4/380 = 0.0526, 16: 4*3/380 = 0.0316
        {0, 0.1, 0.05, 0},
        {10, 1.0, 0.05, 1},
        {1'000'000, 0.01, 0.05, 299}, // ln 0.05 / ln 0.99 = 298.07
        {5, 0.2, 0, 5},
    }));
    CHECK(sampleSize(row.total, row.extent, row.risk) == row.size);
}
