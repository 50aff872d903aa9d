#include "app/desks/copies/set_words.h"
#include "app/desks/ledger/ledger_words.h"
#include "app/docket/progress_strip.h"
#include "app/workbench.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/volumes.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <QSignalSpy>
#include <QTest>

#include <catch2/catch.hpp>

#include <atomic>
#include <future>
#include <memory>
#include <set>

using namespace sober;
using namespace sober::app;
using namespace sober::test;

namespace {

struct Bench {
    Bench() : workbench(std::make_unique<Workbench>(folder / "c.sqlite")) {
        workbench->open();
        REQUIRE(QTest::qWaitFor([this] { return workbench->isOpen() && !workbench->isBusy(); }));
    }
    void makeVolume(const std::string& name, std::uint32_t files, double seconds = 0.05) {
        for (std::uint32_t i = 0; i < files; ++i) {
            writeFile(folder / (name + "/" + std::to_string(i) + ".wav"), smallWav(i, seconds));
        }
    }
    bool settled() {
        return QTest::qWaitFor([this] { return !workbench->isBusy() && workbench->isIdle(); }, 20'000);
    }
    TempFolder folder;
    std::unique_ptr<Workbench> workbench;
};

} // namespace

TEST_CASE("questions are answered on the interface thread, failures are said") {
    Bench bench;
    QObject asker;
    std::size_t volumes = 99;
    bench.workbench->ask<std::vector<Volume>>(
        &asker, [](const Catalogue& catalogue) { return Volumes(catalogue).all(); },
        [&](const std::vector<Volume>& all) { volumes = all.size(); });
    CHECK(volumes == 99);
    CHECK_FALSE(bench.workbench->isIdle());
    REQUIRE(bench.settled());
    CHECK(volumes == 0);

    QSignalSpy failures(bench.workbench.get(), &Workbench::failed);
    bool answered = false;
    bench.workbench->ask<Nothing>(
        &asker,
        [](const Catalogue&) {
            return Outcome(Error{Cause::refused, {}, "It may not be."});
        },
        [&](const Nothing&) { answered = true; });
    REQUIRE(bench.settled());
    CHECK_FALSE(answered);
    REQUIRE(failures.size() == 1);
    CHECK(failures[0][0].toString() == "It may not be.");
}

TEST_CASE("of what is asked in one's place only the last is answered, and nothing else is given up") {
    Bench bench;
    QObject asker;
    QSignalSpy failures(bench.workbench.get(), &Workbench::failed);
    Latest latest;
    std::promise<void> mayEnd;
    std::atomic<int> begun = 0;
    std::vector<int> heard;
    const auto ask = [&](int number, bool waits) {
        bench.workbench->askLatest<int>(
            latest, &asker,
            [&, number, waits](const Catalogue&) {
                ++begun;
                if (waits) {
                    mayEnd.get_future().wait();
                }
                return number == 1 ? Result<int>(Error{Cause::interrupted, {}, "given up"})
                                   : Result<int>(number);
            },
            [&](int answer) { heard.push_back(answer); });
    };
    ask(1, true);
    while (begun == 0) {
        QTest::qWait(1);
    }
    ask(2, false);
    ask(3, false);
    bench.workbench->ask<int>(
        &asker, [](const Catalogue&) { return Result<int>(9); },
        [&](int answer) { heard.push_back(answer); });
    mayEnd.set_value();
    REQUIRE(bench.settled());
    CHECK(heard == std::vector{3, 9});
    CHECK(begun == 2); // the second was not even begun
    CHECK(failures.isEmpty());
    ask(4, false);
    bench.workbench->giveUp(latest);
    REQUIRE(bench.settled());
    CHECK(heard == std::vector{3, 9});
}

TEST_CASE("an answer whose asker is gone goes nowhere") {
    Bench bench;
    auto asker = std::make_unique<QObject>();
    bool answered = false;
    bench.workbench->ask<Nothing>(
        asker.get(), [](const Catalogue&) { return done(); }, [&](const Nothing&) { answered = true; });
    asker.reset();
    REQUIRE(bench.settled());
    CHECK_FALSE(answered);
}

TEST_CASE("surveys are done one after another, and cancelling drops those that wait") {
    Bench bench;
    bench.makeVolume("A", 3);
    bench.makeVolume("B", 3);
    QSignalSpy surveyed(bench.workbench.get(), &Workbench::surveyed);
    bench.workbench->survey({{bench.folder / "A", {}, {}, {}}, {bench.folder / "B", {}, {}, {}}});
    CHECK(bench.workbench->longWork() == LongWork::survey);
    REQUIRE(bench.settled());
    REQUIRE(surveyed.size() == 2);
    CHECK(surveyed[0][0].value<SurveyReport>().label == "A");
    CHECK(surveyed[1][0].value<SurveyReport>().label == "B");

    bench.makeVolume("C", 300, 0.5);
    surveyed.clear();
    bench.workbench->survey({{bench.folder / "C", {}, {}, {}}, {bench.folder / "A", {}, {}, {}}});
    bench.workbench->cancel();
    REQUIRE(bench.settled());
    REQUIRE(surveyed.size() == 1);
    CHECK(surveyed[0][0].value<SurveyReport>().interrupted);
}

TEST_CASE("a decision does not wait for a survey that goes on") {
    Bench bench;
    bench.makeVolume("A", 2);
    bench.workbench->survey({{bench.folder / "A", {}, {}, {}}});
    REQUIRE(bench.settled());
    bench.makeVolume("B", 400, 0.5);
    bench.workbench->survey({{bench.folder / "B", {}, {}, {}}});
    bench.workbench->pause();
    QSignalSpy changed(bench.workbench.get(), &Workbench::docketChanged);
    bench.workbench->decide([](const Catalogue& catalogue) {
        const std::vector<DocketAction> actions{{0, ActionKind::retire, 1, "", 1}};
        return DocketStore(catalogue).add(actions);
    });
    REQUIRE(QTest::qWaitFor([&] { return !changed.empty(); }, 10'000));
    CHECK(bench.workbench->longWork() == LongWork::survey);
    bench.workbench->goOn();
    REQUIRE(bench.settled());
}

TEST_CASE("a workbench that goes in the middle of work ends it in order") {
    TempFolder folder;
    {
        Bench bench;
        bench.makeVolume("A", 300, 0.5);
        bench.workbench->survey({{bench.folder / "A", {}, {}, {}}});
        bench.workbench.reset();
        CHECK(Catalogue::openForWriting(bench.folder / "c.sqlite").ok());
    }
}

TEST_CASE("progress is said in files, bytes, rate and time left, and not more than is known") {
    Progress progress;
    progress.files = 120;
    progress.totalFiles = 4000;
    CHECK(progressText(progress) == "120 of 4,000 files");
    progress.bytes = 1'200'000'000;
    progress.totalBytes = 3'000'000'000;
    progress.elapsed = 4;
    CHECK(progressText(progress) == "120 of 4,000 files · 1.20 GB of 3.00 GB · 300 MB/s · 6.0 s left");
    progress.errors = 2;
    CHECK(progressText(progress).endsWith("2 could not be read"));
    progress.elapsed = 0.1;
    CHECK_FALSE(progressText(progress).contains("left"));
}

TEST_CASE("entries and decisions are said in words") {
    LedgerEntry entry;
    entry.kind = "carry-out";
    entry.summary = "3 actions carried out";
    entry.carriedOut = 3;
    CHECK(isDeed(entry));
    CHECK(canBeTakenBack(entry));
    CHECK(entryText(entry) == "3 actions carried out");
    entry.carriedOut = 0;
    entry.undone = 3;
    CHECK_FALSE(canBeTakenBack(entry));
    CHECK(entryText(entry).endsWith("(taken back)"));
    entry.kind = "survey";
    CHECK_FALSE(isDeed(entry));
    std::set<QString> steps;
    for (const auto step : {ActionStep::refused, ActionStep::started, ActionStep::carriedOut,
                            ActionStep::takenBack, ActionStep::undone}) {
        LedgerAction action;
        action.step = step;
        steps.insert(outcomeText(action));
    }
    CHECK(steps.size() == 5);

    SetDetail detail;
    detail.members.resize(2);
    detail.members[0].id = 1;
    detail.members[1].id = 2;
    detail.advice = {{1, Advice::keep, {"why"}}, {2, Advice::decide, {"why"}}};
    CHECK(decisionText(detail, 0) == "keep (advised)");
    CHECK(decisionText(detail, 1) == "open");
    detail.onDocket = {2};
    detail.decision.onDocket = 1;
    detail.decision.keeper = 1;
    CHECK(decisionText(detail, 0) == "keep");
    CHECK(decisionText(detail, 1) == "retire");
    CHECK(markFor(detail, 1) == Mark::retire);
}
