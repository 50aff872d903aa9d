// What was done with another catalogue stands in the ledger here, and can be taken back here.
#include "core/catalogue/ledger_store.h"
#include "core/players/read_players.h"
#include "core/remedy/journal/taking_back.h"
#include "core/transfer/plan.h"
#include "core/work/carry_out.h"
#include "core/work/run_transfer.h"
#include "core/work/take_ledger.h"
#include "support/small_audio.h"
#include "support/two_machines.h"

#include <catch2/catch.hpp>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A drive of some recordings, one of which is there twice and in a player's list; known here and, by what
/// was told, there.
struct Lent : TwoMachines {
    Lent() {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        for (unsigned i = 0; i < 8; ++i) {
            writeFile(*this / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 1));
        }
        writeFile(*this / "V/again.wav", smallWav(0, 1));
        writeFile(*this / "V/lists/one.m3u", list);
        survey("V");
        addPlayer(catalogue());
        takeIn(other, cataloguePath());
    }

    void addPlayer(Catalogue& who) {
        Player player;
        player.name = "tern";
        player.places = {*this / "V/lists"};
        RunControl control;
        REQUIRE(takeInPlayer(who, player, control).ok());
    }
    HoldingId there(const BytePath& path) const {
        const auto volumes = Volumes(other).all();
        const auto found = Holdings(other).at(volumes->front().id, path);
        REQUIRE((found && *found));
        return (*found)->id;
    }
    CarriedOut doThere(const std::vector<DocketAction>& actions) {
        REQUIRE(DocketStore(other).add(actions).ok());
        RunControl control;
        const auto carried = carryOut(other, control, {});
        REQUIRE(carried.ok());
        INFO((carried->refused.empty() ? std::string() : carried->refused.front().sentence));
        REQUIRE(carried->refused.empty());
        return *carried;
    }
    static CarriedOut undo(Catalogue& who) {
        RunControl control;
        const auto last = lastUndoable(who);
        REQUIRE((last && *last));
        const auto undone = undoEntry(who, **last, control, {});
        REQUIRE(undone.ok());
        INFO((undone->refused.empty() ? std::string() : undone->refused.front().sentence));
        CHECK(undone->refused.empty());
        return *undone;
    }
    DocketAction move(const BytePath& from, const BytePath& to) const {
        return {0, ActionKind::move, there(from), "", timeNow(), {}, {}, *this / to};
    }
    static std::vector<LedgerEntry> deeds(const Catalogue& who) {
        auto entries = LedgerStore(who).entries();
        std::erase_if(*entries, [](const LedgerEntry& each) { return each.kind == "survey"; });
        return *entries;
    }

    const std::string list = "../again.wav\n../1.wav\n";
};

} // namespace

TEST_CASE("what another catalogue has done is known here though nobody looked since, and goes back here") {
    Lent both;
    const bool isElsewhere = GENERATE(false, true);
    CAPTURE(isElsewhere);
    if (isElsewhere) { // the drive is at another place on that machine
        fs::rename(both / "V", both / "lent");
        both.surveyBy(both.other, "lent");
    }
    const BytePath root = isElsewhere ? "lent" : "V";
    both.doThere({{0, ActionKind::retire, both.there("again.wav"), "twice", timeNow()},
                  both.move("2.wav", root + "/sorted/two.wav")});
    if (isElsewhere) {
        fs::rename(both / "lent", both / "V");
    }
    CHECK(readFile(both / "V/lists/one.m3u") != both.list);

    const auto compared = both.compare();
    CHECK(compared.deeds == 1);
    CHECK(both.deeds(both.catalogue()).empty());
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(taken.deeds == 1);
    CHECK(taken.left.entries == 0);
    CHECK_FALSE(*hasDeedsOfItsOwn(both.other, both.catalogue()));
    const auto entries = both.deeds(both.catalogue());
    REQUIRE(entries.size() == 1);
    CHECK(entries[0].carriedOut == both.deeds(both.other)[0].carriedOut);
    CHECK(entries[0].origin == both.otherPath());
    CHECK(inWords(entries[0]).ends_with(", with the catalogue " + both.otherPath()));
    CHECK(both.known(both.catalogue(), "V").at("again.wav").starts_with("retired"));
    CHECK(both.holding("V", "sorted/two.wav")->state == HoldingState::present);
    CHECK_FALSE(both.holding("V", "2.wav").has_value());
    CHECK(both.takeIn(both.catalogue(), both.otherPath()).deeds == 0); // once

    CHECK(Lent::undo(both.catalogue()).done == entries[0].carriedOut);
    CHECK(readFile(both / "V/again.wav") == smallWav(0, 1));
    CHECK(readFile(both / "V/2.wav") == smallWav(2, 1));
    CHECK_FALSE(fs::exists(both / "V/sorted"));
    CHECK(readFile(both / "V/lists/one.m3u") == both.list);
    CHECK(both.holding("V", "again.wav")->state == HoldingState::present);
    CHECK(both.holding("V", "2.wav")->state == HoldingState::present);
    auto third = Catalogue::openForWriting(both / "third.sqlite");
    CHECK(both.takeIn(*third, both.cataloguePath()).deeds == 2);
    CHECK(inWords(both.deeds(*third).back()) == inWords(entries[0])); // by whom it was done

    // Taken in once more, what was taken back here since stays so; and there it is known then.
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK(both.holding("V", "again.wav")->state == HoldingState::present);
    CHECK(both.holding("V", "2.wav")->state == HoldingState::present);
    CHECK(both.takeIn(both.other, both.cataloguePath()).deeds == 1);
    CHECK(both.deeds(both.other).back().carriedOut == 0);
    CHECK_FALSE((*lastUndoable(both.other)).has_value());
}

TEST_CASE("what was done here and taken back there is taken back here") {
    Lent both;
    both.putOnDocket(ActionKind::retire, "V", "again.wav");
    RunControl control;
    REQUIRE(carryOut(both.catalogue(), control, {})->done == 1);
    CHECK(both.takeIn(both.other, both.cataloguePath()).deeds == 1);
    Lent::undo(both.other);
    CHECK(readFile(both / "V/again.wav") == smallWav(0, 1));

    CHECK(both.takeIn(both.catalogue(), both.otherPath()).deeds == 1); // the undoing
    CHECK(both.holding("V", "again.wav")->state == HoldingState::present);
    CHECK_FALSE((*lastUndoable(both.catalogue())).has_value());
    const auto entries = both.deeds(both.catalogue());
    REQUIRE(entries.size() == 2);
    CHECK(entries[0].kind == "undo");
    CHECK(entries[0].undoes == entries[1].id);
}

TEST_CASE("what is done later here stays as it is, whatever was done there before") {
    Lent both;
    both.doThere({both.move("3.wav", "V/there/3.wav")});
    both.survey("V"); // where it is, is known by its inode
    const auto moved = both.holding("V", "there/3.wav");
    REQUIRE(moved.has_value());
    both.putOnDocket(ActionKind::retire, "V", "again.wav");
    RunControl control;
    REQUIRE(carryOut(both.catalogue(), control, {})->done == 1);
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK(both.known(both.catalogue(), "V").at("again.wav").starts_with("retired"));
    CHECK(both.holding("V", "there/3.wav")->state == HoldingState::present);
    const auto entries = both.deeds(both.catalogue());
    REQUIRE(entries.size() == 2);
    CHECK(entries[0].time > entries[1].time); // as they were done
    Lent::undo(both.catalogue());             // the last first
    CHECK(fs::exists(both / "V/again.wav"));
    Lent::undo(both.catalogue());
    CHECK(fs::exists(both / "V/3.wav"));
}

TEST_CASE("what was set aside there of a drive that is new here goes back here too") {
    Lent both;
    writeFile(both / "W/x.wav", smallWav(20, 1));
    writeFile(both / "W/y.wav", smallWav(20, 1));
    both.surveyBy(both.other, "W");
    const auto volumes = Volumes(both.other).all();
    const auto y = Holdings(both.other).at(std::ranges::find(*volumes, "W", &Volume::label)->id, "y.wav");
    both.doThere({{0, ActionKind::retire, (*y)->id, "", timeNow()}});
    both.takeIn(both.catalogue(), both.otherPath());
    CHECK_FALSE(both.holding("W", "y.wav").has_value());
    CHECK(Lent::undo(both.catalogue()).done == 1);
    CHECK(readFile(both / "W/y.wav") == smallWav(20, 1));
    both.survey("W");
    CHECK(both.holding("W", "y.wav")->state == HoldingState::present);
}

TEST_CASE("what came to a drive there is new here, and not gone, though nobody looked since") {
    Lent both;
    writeFile(both / "W/x.wav", smallWav(20, 1));
    both.survey("W");
    both.takeIn(both.other, both.cataloguePath());
    TransferRequest request;
    request.choice.volumes = {Volumes(both.other).all()->front().id};
    request.to = both / "W/from V";
    RunControl control;
    const auto plan = planTransfer(both.other, request, control);
    REQUIRE(plan.ok());
    REQUIRE(runTransfer(both.other, *keepPlan(both.other, *plan), control, {})->carried.done > 8);

    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(both.known(both.catalogue(), "W").at("from V/5.wav").starts_with("present"));
    const auto& drive = taken.volumes.at(1);
    CHECK(drive.label == "W");
    CHECK(drive.added == 9);
    CHECK(drive.addedGone == 0);
    CHECK(meetingWords(taken).at(1).find("9 new") != std::string::npos);
}

TEST_CASE("what has not come to its end there is left to that catalogue") {
    Lent both;
    const LedgerStore ledger(both.other);
    LedgerAction begun;
    begun.entry = *ledger.open("carry-out", "carrying out", {});
    begun.kind = ActionKind::retire;
    begun.holding = both.there("4.wav");
    begun.place = both / "V/4.wav";
    REQUIRE(ledger.start(std::array{&begun}).ok());
    const auto taken = both.takeIn(both.catalogue(), both.otherPath());
    CHECK(taken.deeds == 0);
    CHECK(taken.left.entries == 1);
    CHECK(both.deeds(both.catalogue()).empty());
    CHECK(*hasDeedsOfItsOwn(both.other, both.catalogue()));
}
