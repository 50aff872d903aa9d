#include "core/audit/refresh_findings.h"
#include "core/catalogue/ledger_store.h"
#include "support/collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

LedgerAction started(const LedgerStore& ledger, LedgerAction action) {
    auto* written = &action;
    REQUIRE(ledger.start(std::span(&written, 1)).ok());
    return action;
}

bool settled(const LedgerStore& ledger, const LedgerAction& action, ActionStep step, HoldingState state) {
    return ledger.settle(std::vector{Settlement{action, step, state, {}, {}}}).ok();
}

} // namespace

TEST_CASE("holdings come back as they were written, in the order asked for") {
    Collection collection;
    writeFile(collection / "V/b.wav", smallWav(2, 1));
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    const Holdings holdings(collection.catalogue());
    const auto a = collection.holding("V", "a.wav");
    const auto b = collection.holding("V", "b.wav");
    CHECK(a->claims.container == "wav");
    CHECK(a->claims.codec == "pcm");
    CHECK(a->claims.lossless);
    CHECK(a->claims.bitDepth == 16);
    CHECK(a->size == smallWav(1).size());
    CHECK(a->firstSeen > 0);
    CHECK(a->lastSeen == 0);
    const auto both = holdings.byIds(std::vector{b->id, 999'999L, a->id});
    REQUIRE(both->size() == 2);
    CHECK((*both)[0].path == "b.wav");
    CHECK((*both)[1].path == "a.wav");
    CHECK_FALSE(holdings.at(a->volume, "none.wav")->has_value());
}

TEST_CASE("what is missing is told by folder, with the place of the same bytes") {
    Collection collection;
    for (std::uint32_t i = 0; i < 3; ++i) {
        writeFile(collection / ("V/gone/" + std::to_string(i) + ".wav"), smallWav(i));
    }
    writeFile(collection / "V/alone.wav", smallWav(9));
    writeFile(collection / "W/kept/0.wav", smallWav(0));
    writeFile(collection / "W/kept/1.wav", smallWav(1));
    collection.survey("V");
    collection.survey("W");
    fs::remove_all(collection / "V/gone");
    fs::remove(collection / "V/alone.wav");
    writeFile(collection / "V/still.wav", smallWav(50));
    collection.survey("V");
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    const Holdings holdings(collection.catalogue());
    CHECK(holdings.missing()->size() == 4);
    CHECK(holdings.missing("GONE/")->size() == 3);
    CHECK(holdings.missing("nothing")->empty());
    const auto folders = holdings.missingFolders();
    REQUIRE(folders->size() == 3);
    CHECK((*folders)[0].folder == "gone");
    CHECK((*folders)[0].count == 2);
    CHECK((*folders)[0].foundVolume == collection.volume("W").id);
    CHECK((*folders)[0].foundFolder == "kept");
    CHECK_FALSE((*folders)[1].foundVolume.has_value());
    CHECK(collection.holding("V", "alone.wav")->lastSeen == collection.holding("V", "gone/2.wav")->lastSeen);
    CHECK(collection.holding("V", "alone.wav")->lastSeen > 0);
}

TEST_CASE("a sample spreads over a volume") {
    Collection collection;
    for (std::uint32_t i = 100; i < 160; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 0.01));
    }
    collection.survey("V");
    const auto sample = Holdings(collection.catalogue()).sample(collection.volume("V").id, 6);
    REQUIRE(sample->size() == 6);
    CHECK(sample->front().path == "100.wav");
    CHECK(sample->back().path == "150.wav");
}

TEST_CASE("volumes keep what is written of them, and labels stay apart") {
    Collection collection;
    Volume volume;
    volume.label = "GANNET";
    volume.root = "/media/caf\xE9";
    volume.identity = {"1234-ABCD", "music", 77, "vfat"};
    volume.choices.leavePatterns = {"*.tmp", "Samples/*"};
    volume.choices.maxDepth = 4;
    volume.effort = Effort::full;
    volume.atHand = false;
    volume.capacity = 1'000'000'000'000;
    const Volumes volumes(collection.catalogue());
    REQUIRE(volumes.add(volume).ok());
    CHECK(volumes.add(volume)->label == "GANNET 2");
    const auto read = collection.volume("GANNET");
    CHECK(read.root == volume.root);
    CHECK(read.identity == volume.identity);
    CHECK(read.choices == volume.choices);
    CHECK(read.effort == Effort::full);
    CHECK_FALSE(read.atHand);
    CHECK(read.capacity == volume.capacity);
}

TEST_CASE("the ledger counts what became of its actions") {
    Collection collection;
    for (const auto* name : {"a", "b", "c"}) {
        writeFile(collection / ("V/" + std::string(name) + ".wav"), smallWav(1));
    }
    collection.survey("V");
    const LedgerStore ledger(collection.catalogue());
    const auto entry = ledger.open("carry-out", "carrying out", {});
    REQUIRE(entry.ok());
    CHECK(ledger.unclosed()->size() == 1);
    const auto action = [&](const BytePath& path) {
        const auto holding = collection.holding("V", path);
        LedgerAction made;
        made.entry = *entry;
        made.kind = ActionKind::retire;
        made.holding = holding->id;
        made.place = collection / ("V/" + path);
        made.aside = "/trash/" + path;
        made.size = holding->size;
        made.checksum = holding->checksum;
        return started(ledger, made);
    };
    const auto a = action("a.wav");
    const auto b = action("b.wav");
    const auto c = action("c.wav");
    CHECK(ledger.unfinished()->size() == 3);
    collection.putOnDocket(ActionKind::retire, "V", "a.wav");
    REQUIRE(settled(ledger, a, ActionStep::carriedOut, HoldingState::retired));
    CHECK_FALSE(collection.holding("V", "a.wav").has_value());
    CHECK(DocketStore(collection.catalogue()).all()->empty());
    REQUIRE(ledger.mark(b, ActionStep::refused, "it stays").ok());
    REQUIRE(ledger.mark(c, ActionStep::takenBack).ok());
    REQUIRE(ledger.close(*entry, "done").ok());
    const auto read = ledger.entry(*entry);
    REQUIRE(read->has_value());
    CHECK((*read)->actions == 3);
    CHECK((*read)->carriedOut == 1);
    CHECK((*read)->refused == 1);
    CHECK((*read)->bytes == a.size);
    CHECK((*read)->ended > 0);
    const auto actions = ledger.actionsOf(*entry);
    REQUIRE(actions->size() == 3);
    CHECK((*actions)[1].sentence == "it stays");
    CHECK((*actions)[0].place == collection / "V/a.wav");
    CHECK((*actions)[0].checksum == a.checksum);
    CHECK(ledger.unfinished()->empty());

    REQUIRE(settled(ledger, a, ActionStep::undone, HoldingState::present));
    CHECK(collection.holding("V", "a.wav")->state == HoldingState::present);
    CHECK((*ledger.entry(*entry))->undone == 1);
    CHECK_FALSE(ledger.entry(4711)->has_value());
}

TEST_CASE("a holding that came back to its place takes it from one that came and went meanwhile") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    const LedgerStore ledger(collection.catalogue());
    const auto entry = ledger.open("carry-out", "", {});
    LedgerAction action;
    action.entry = *entry;
    action.kind = ActionKind::retire;
    action.holding = collection.holding("V", "a.wav")->id;
    action = started(ledger, action);
    REQUIRE(settled(ledger, action, ActionStep::carriedOut, HoldingState::retired));
    writeFile(collection / "V/a.wav", smallWav(2));
    collection.survey("V");
    fs::remove(collection / "V/a.wav");
    writeFile(collection / "V/other.wav", smallWav(3));
    collection.survey("V");
    CHECK(collection.holding("V", "a.wav")->state == HoldingState::missing);
    REQUIRE(settled(ledger, action, ActionStep::undone, HoldingState::present));
    CHECK(collection.holding("V", "a.wav")->id == action.holding);
}

TEST_CASE("a second connection of the writer decides while long work goes on") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    const auto beside = Catalogue::openBeside(collection.catalogue());
    REQUIRE(beside.ok());
    const std::vector<DocketAction> actions{
        {0, ActionKind::retire, collection.holding("V", "a.wav")->id, "", timeNow()}};
    CHECK(DocketStore(*beside).add(actions).ok());
    CHECK(DocketStore(collection.catalogue()).all()->size() == 1);
    const auto reader = Catalogue::openForReading(collection.cataloguePath());
    CHECK(DocketStore(*reader).standing(std::vector{actions[0].holding, 5555L})->size() == 1);
    const auto refused = DocketStore(*reader).clear();
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().cause == Cause::notPermitted);
}
