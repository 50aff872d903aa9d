// What is moved is known by what a rename leaves alone: its bytes may be others than were recorded.
#include "core/audit/plan_places.h"
#include "support/killing.h"
#include "support/small_audio.h"

#include <fstream>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A holding whose drive has changed a byte of it, told to move.
struct Drifted : Collection {
    Drifted() {
        writeFile(*this / "V/a.wav", smallWav(1));
        survey("V");
        const auto time = fs::last_write_time(*this / "V/a.wav");
        auto content = readFile(*this / "V/a.wav");
        content[9'000] = static_cast<char>(content[9'000] ^ 1);
        std::fstream(*this / "V/a.wav", std::ios::binary | std::ios::in | std::ios::out) << content;
        fs::last_write_time(*this / "V/a.wav", time);
        REQUIRE(planMove(catalogue(), *this / "V/a.wav", *this / "V/new/a.wav", "").ok());
    }
    /// It is at one of its places, and there the catalogue has it.
    void checkWhole() {
        const bool isMoved = fs::exists(*this / "V/new/a.wav");
        CHECK(isMoved != fs::exists(*this / "V/a.wav"));
        const auto holding = this->holding("V", isMoved ? "new/a.wav" : "a.wav");
        CHECK((holding && holding->state == HoldingState::present));
    }
    void carryOutAll() {
        RunControl control;
        const auto carried = carryOut(catalogue(), control, {});
        REQUIRE(carried.ok());
        CHECK(carried->refused.empty());
        CHECK(fs::exists(*this / "V/new/a.wav"));
    }
};

} // namespace

TEST_CASE("what has drifted unseen is moved, and goes back, wherever that is interrupted") {
    const auto nothing = [](Drifted& /*all*/) {};
    const auto goOn = [](Drifted& all) {
        all.carryOutAll();
        undoEverything(all);
        CHECK(fs::exists(all / "V/a.wav"));
    };
    CHECK(killAtEveryInstant<Drifted>("carry-out", nothing, goOn) > 3);
}

TEST_CASE(
    "what went to the top of its volume under its own name goes back, and goes on where it was killed") {
    struct GoneUp : Collection {
        GoneUp() {
            writeFile(*this / "V/f/a.wav", smallWav(1));
            survey("V");
            REQUIRE(planMove(catalogue(), *this / "V/f/a.wav", *this / "V/a.wav", "").ok());
        }
        void checkWhole() {
            const bool isMoved = fs::exists(*this / "V/a.wav");
            CHECK(isMoved != fs::exists(*this / "V/f/a.wav"));
            CHECK(holding("V", isMoved ? "a.wav" : "f/a.wav")->state == HoldingState::present);
        }
    };
    const auto carriedOut = [](GoneUp& all) {
        RunControl control;
        const auto carried = carryOut(all.catalogue(), control, {});
        REQUIRE(carried.ok());
        CHECK(carried->refused.empty());
        CHECK(fs::exists(all / "V/a.wav"));
    };
    const auto undone = [](GoneUp& all) {
        undoEverything(all);
        CHECK(fs::exists(all / "V/f/a.wav"));
    };
    killAtEveryInstant<GoneUp>(
        "carry-out", [](GoneUp& /*all*/) {},
        [&](GoneUp& all) {
            carriedOut(all);
            undone(all);
        });
    killAtEveryInstant<GoneUp>(
        "undo",
        [](GoneUp& all) {
            REQUIRE(sober::test::sober(all.cataloguePath(), {"docket", "carry-out"}).code == 0);
        },
        undone);
}

TEST_CASE("what was changed after it was moved stays until it is surveyed, and another file there stays") {
    Drifted all;
    all.carryOutAll();
    writeFile(all / "V/new/a.wav", smallWav(2));
    RunControl control;
    const auto undo = [&] {
        return *undoEntry(all.catalogue(), **lastUndoable(all.catalogue()), control, {});
    };
    CHECK(undo().refused.size() == 1);
    CHECK(fs::exists(all / "V/new/a.wav"));
    all.survey("V");
    CHECK(undo().refused.empty());
    CHECK(readFile(all / "V/a.wav") == smallWav(2));
}
