#include "core/audit/condition.h"
#include "core/audit/refresh_findings.h"
#include "support/collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Two volumes: three copies over both, two copies on one of them, a hard-linked pair, two singles.
struct TwoVolumes : Collection {
    TwoVolumes() {
        writeFile(*this / "A/music/one.wav", smallWav(1, 0.5));
        writeFile(*this / "A/music/deep/er/one again.wav", smallWav(1, 0.5));
        writeFile(*this / "B/one.wav", smallWav(1, 0.5));
        writeFile(*this / "A/music/two.wav", smallWav(2, 0.1));
        writeFile(*this / "A/two too.wav", smallWav(2, 0.1));
        writeFile(*this / "A/linked.wav", smallWav(3));
        fs::create_hard_link(*this / "A/linked.wav", *this / "A/music/linked too.wav");
        writeFile(*this / "B/single.wav", smallWav(4));
        writeFile(*this / "A/music/single.wav", smallWav(5));
        survey("A");
        survey("B");
        refresh();
    }
    void refresh() { REQUIRE(refreshFindings(catalogue()).ok()); }

    std::vector<CopySet> sets(SetOrder order = SetOrder::mostBytes, const SetFilter& filter = {}) {
        const Findings findings(catalogue());
        return *findings.sets(*findings.setOrder(order, filter));
    }
    VolumeFigures figures(const std::string& label) {
        const auto all = Findings(catalogue()).volumeFigures();
        return *std::ranges::find(*all, volume(label).id, &VolumeFigures::volume);
    }
};

const std::uint64_t half = smallWav(1, 0.5).size();
const std::uint64_t tenth = smallWav(2, 0.1).size();

} // namespace

TEST_CASE("copy sets count members, files and volumes, and what keeping one would free") {
    TwoVolumes collection;
    const auto sets = collection.sets();
    REQUIRE(sets.size() == 3);
    CHECK(sets[0].members == 3);
    CHECK(sets[0].files == 3);
    CHECK(sets[0].volumes == 2);
    CHECK(sets[0].reclaimable == 2 * half);
    CHECK(sets[1].members == 2);
    CHECK(sets[1].volumes == 1);
    CHECK(sets[1].reclaimable == tenth);
    CHECK(sets[2].members == 2);
    CHECK(sets[2].files == 1);
    CHECK(sets[2].reclaimable == 0);
    const auto totals = Findings(collection.catalogue()).setTotals();
    CHECK(totals->sets == 3);
    CHECK(totals->reclaimable == 2 * half + tenth);
}

TEST_CASE("a set is found by its content, and not where there is only one") {
    TwoVolumes collection;
    const Findings findings(collection.catalogue());
    CHECK(findings.setOf(collection.holding("B", "one.wav")->id)->value().members == 3);
    CHECK_FALSE(findings.setOf(collection.holding("B", "single.wav")->id)->has_value());
}

TEST_CASE(
    "findings that are made anew are written only where they differ, and a set that stays keeps its id") {
    TwoVolumes collection;
    const auto written = [&] {
        auto& database = collection.catalogue().database();
        REQUIRE(Findings(collection.catalogue()).markStale().ok());
        const auto before = database.getTotalChanges();
        collection.refresh();
        return database.getTotalChanges() - before;
    };
    const auto before = collection.sets();
    const auto folders = [&] {
        return *Findings(collection.catalogue()).folderFigures(collection.volume("A").id, 1);
    };
    const auto foldersBefore = folders();
    // The two volumes' figures go and come, and the findings are fresh.
    CHECK(written() == 5);
    CHECK((collection.sets() == before));
    CHECK((folders() == foldersBefore));

    fs::remove(collection / "A/two too.wav");
    writeFile(collection / "A/music/single.wav", smallWav(4));
    collection.survey("A");
    collection.refresh();
    const auto after = collection.sets();
    REQUIRE(after.size() == 3);
    CHECK((after[0] == before[0]));
    for (const auto& set : after) {
        // Of the pair that is gone the number is not given to another.
        CHECK(set.id != before[1].id);
        CHECK(Findings(collection.catalogue()).membersOf(set.id)->size() == set.members);
    }
    CHECK((folders() != foldersBefore));
    CHECK(written() == 5);

    // A member that has other bytes now is no copy any more; the set of the other two stays the same set.
    writeFile(collection / "B/one.wav", smallWav(9, 0.5));
    collection.survey("B");
    collection.refresh();
    CHECK(collection.sets()[0].id == before[0].id);
    CHECK(collection.sets()[0].members == 2);
}

TEST_CASE("sets are ordered and filtered by text, volume and decision") {
    TwoVolumes collection;
    CHECK(collection.sets(SetOrder::mostMembers)[0].members == 3);
    SetFilter text;
    text.text = "TOO";
    CHECK(collection.sets(SetOrder::mostBytes, text).size() == 2);
    text.text = "nothing of that kind";
    CHECK(collection.sets(SetOrder::mostBytes, text).empty());
    SetFilter onB;
    onB.volume = collection.volume("B").id;
    REQUIRE(collection.sets(SetOrder::mostBytes, onB).size() == 1);
    onB.text = "again";
    CHECK(collection.sets(SetOrder::mostBytes, onB).size() == 1);
    SetFilter open;
    open.undecidedOnly = true;
    CHECK(collection.sets(SetOrder::mostBytes, open).size() == 3);
    REQUIRE(Findings(collection.catalogue()).decide(collection.sets()[0].content, {}, true).ok());
    collection.putOnDocket(ActionKind::retire, "A", "two too.wav");
    CHECK(collection.sets(SetOrder::mostBytes, open).size() == 1);
}

TEST_CASE("figures by volume: present, once only, in sets") {
    TwoVolumes collection;
    const auto a = collection.figures("A");
    CHECK(a.holdings == 7);
    CHECK(a.inSets == 6);
    CHECK(a.heldOnce == 3); // the single, and the one file with two names
    CHECK(a.duration == Approx(0.5 * 2 + 0.1 * 2 + 0.2 * 3));
    const auto b = collection.figures("B");
    CHECK(b.holdings == 2);
    CHECK(b.heldOnce == 1);
    CHECK(b.bytes == half + smallWav(4).size());
}

TEST_CASE("figures by folder reach down to where a file lies") {
    TwoVolumes collection;
    const Findings findings(collection.catalogue());
    const auto a = collection.volume("A").id;
    const auto top = findings.folderFigures(a, 1);
    REQUIRE(top->size() == 2);
    CHECK((*top)[0].path.empty());
    CHECK((*top)[0].holdings == 2);
    CHECK((*top)[1].path == "music");
    CHECK((*top)[1].holdings == 5);
    const auto below = findings.folderFigures(a, 2, "music");
    REQUIRE(below->size() == 2);
    CHECK((*below)[0].path == "music");
    CHECK((*below)[0].holdings == 4);
    CHECK((*below)[1].path == "music/deep");
    CHECK((*below)[1].holdings == 1);
    CHECK(findings.folderFigures(a, 2)->size() == 3); // what lies higher is counted where it lies
}

TEST_CASE("findings are made anew only where something has changed") {
    TwoVolumes collection;
    const Findings findings(collection.catalogue());
    CHECK_FALSE(*findings.areStale());
    collection.survey("A");
    CHECK_FALSE(*findings.areStale());
    writeFile(collection / "A/new.wav", smallWav(4));
    collection.survey("A");
    CHECK(*findings.areStale());
    collection.refresh();
    CHECK(collection.sets().size() == 4);
    fs::remove(collection / "A/new.wav");
    collection.survey("A");
    collection.refresh();
    CHECK(collection.sets().size() == 3);
    CHECK(collection.figures("A").missing == 1);
}

TEST_CASE("what is on a volume that is away frees nothing now") {
    TwoVolumes collection;
    auto b = collection.volume("B");
    b.atHand = false;
    REQUIRE(Volumes(collection.catalogue()).update(b).ok());
    REQUIRE(Findings(collection.catalogue()).markStale().ok());
    collection.refresh();
    CHECK(collection.sets()[0].members == 3);
    CHECK(collection.sets()[0].reclaimable == half);
}

TEST_CASE("decisions are remembered by content") {
    TwoVolumes collection;
    const Findings findings(collection.catalogue());
    const auto set = collection.sets()[1];
    const auto keeper = collection.holding("A", "two too.wav")->id;
    REQUIRE(findings.decide(set.content, keeper, false).ok());
    collection.putOnDocket(ActionKind::retire, "A", "music/two.wav");
    const auto decision = findings.decisionOn(set);
    CHECK(decision->keeper == keeper);
    CHECK(decision->onDocket == 1);
    CHECK_FALSE(decision->leftAlone);
    REQUIRE(findings.forgetDecision(set.content).ok());
    CHECK_FALSE(findings.decisionOn(set)->keeper.has_value());
}

TEST_CASE("the condition adds up and says what to do next") {
    Collection empty;
    const auto nothing = conditionOf(empty.catalogue());
    REQUIRE(nothing.ok());
    REQUIRE(nothing->nextSteps.size() == 1);
    CHECK(nothing->nextSteps[0].kind == NextStep::Kind::survey);

    TwoVolumes collection;
    writeFile(collection / "A/letter.mp3", "Dear Sir");
    fs::remove(collection / "A/music/single.wav");
    collection.survey("A");
    collection.refresh();
    const auto condition = conditionOf(collection.catalogue());
    REQUIRE(condition.ok());
    CHECK(condition->total.holdings == 8);
    CHECK(condition->total.missing == 1);
    CHECK(condition->copySets == 3);
    CHECK(condition->errors == 1);
    std::vector<NextStep::Kind> kinds;
    for (const auto& step : condition->nextSteps) {
        kinds.push_back(step.kind);
    }
    CHECK(kinds == std::vector{NextStep::Kind::findMissing, NextStep::Kind::retireCopies,
                               NextStep::Kind::examine, NextStep::Kind::lookAtErrors});
    CHECK(condition->nextSteps[1].bytes == 2 * half + tenth);
}

TEST_CASE("what a survey met can be looked through until the next one") {
    TwoVolumes collection;
    const Findings findings(collection.catalogue());
    CHECK(findings.surveyChanges()->empty()); // a first survey is no change
    writeFile(collection / "A/added.wav", smallWav(77));
    fs::rename(collection / "A/music/single.wav", collection / "A/moved.wav");
    fs::remove(collection / "A/two too.wav");
    writeFile(collection / "A/linked.wav", smallWav(78));
    collection.survey("A");
    std::map<std::string, int> kinds;
    const auto changes = findings.surveyChanges();
    for (const auto& change : *changes) {
        ++kinds[change.kind];
        if (change.kind == "moved") {
            CHECK(change.pathBefore == "music/single.wav");
        }
    }
    CHECK(kinds == std::map<std::string, int>{{"added", 1}, {"changed", 2}, {"missing", 1}, {"moved", 1}});
    collection.survey("A");
    CHECK(findings.surveyChanges()->empty());
}

TEST_CASE("a file that begins like audio and cannot be opened is held, and told again at each survey") {
    Collection collection;
    std::string cut = "....ftypM4A ";
    cut.resize(3000, 'x');
    writeFile(collection / "V/cut.m4a", cut);
    for (int round = 0; round < 2; ++round) {
        const auto report = collection.survey("V");
        CHECK(report.seen == 1);
        REQUIRE(report.errors.size() == 1);
        CHECK(report.errors[0].sentence.find("cannot be opened") != std::string::npos);
    }
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    CHECK(conditionOf(collection.catalogue())->total.troubled == 1);
}
