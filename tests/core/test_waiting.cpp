// What an interruption left on a volume that is away waits for it, is said, and blocks nothing else.
#include "core/catalogue/ledger_store.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/player_collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <csignal>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Two volumes with two copies each; the run that retires one of the first is killed when it has gone.
struct Interrupted : PlayerCollection {
    /// With a list that leads to what goes, where one is told.
    explicit Interrupted(bool listed = false) {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        for (const std::string volume : {"TERN", "GANNET"}) {
            const auto seed = volume == "TERN" ? 1U : 2U;
            writeFile(*this / (volume + "/keep.wav"), smallWav(seed));
            writeFile(*this / (volume + "/spare.wav"), smallWav(seed));
            survey(volume);
        }
        if (listed) {
            writeFile(list(), (*this / "TERN/spare.wav") + "\n");
            addPlayer("pocket", "L");
        }
        putOnDocket(ActionKind::retire, "TERN", "spare.wav");
        // Checked, journalled, noted, moved; between them the list is journalled, made, exchanged, recorded.
        const char* const moved = listed ? "8" : "4";
        whileClosed([&] {
            CHECK(run({CRASH_HELPER, cataloguePath(), "carry-out", moved}).code == -SIGKILL);
            fs::rename(*this / "TERN", *this / "in the cupboard");
        });
        CHECK_FALSE(isTaken(*this / "in the cupboard/spare.wav"));
    }
    BytePath list() const { return *this / "L/all.m3u"; }
    ProgramRun say(const std::vector<std::string>& words) {
        ProgramRun said;
        whileClosed([&] { said = sober::test::sober(cataloguePath(), words); });
        return said;
    }
};

} // namespace

TEST_CASE("what is left on a volume that is away waits for it, and nothing else waits") {
    Interrupted collection;
    for (const std::vector<std::string>& words :
         {std::vector<std::string>{"condition"}, {"players"}, {"docket"}, {"ledger"}}) {
        const auto said = collection.say(words);
        CHECK(said.code == 0);
        CHECK(said.err.find("spare.wav waits to be settled: TERN is away.") != std::string::npos);
    }
    CHECK(DocketStore(collection.catalogue()).totals()->actions == 0);
    // Other work goes on, and what waits is not acted on again.
    collection.putOnDocket(ActionKind::retire, "GANNET", "spare.wav");
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    CHECK(carried->done == 1);
    REQUIRE(carried->refused.size() == 1);
    CHECK(carried->refused.front().sentence.find("waits to be settled") != std::string::npos);
    CHECK_FALSE(isTaken(collection / "GANNET/spare.wav"));

    // With the volume at hand what only asks still changes nothing; the next work settles it.
    fs::rename(collection / "in the cupboard", collection / "TERN");
    CHECK(collection.say({"condition"}).code == 0);
    CHECK(LedgerStore(collection.catalogue()).unfinished()->size() == 1);
    const auto said = collection.say({"docket", "carry-out"});
    CHECK(said.err.find("had been retired") != std::string::npos);
    CHECK(LedgerStore(collection.catalogue()).unfinished()->empty());
    CHECK_FALSE(collection.holding("TERN", "spare.wav").has_value());
    CHECK(waitingToBeSettled(collection.catalogue())->empty());
}

TEST_CASE("what the ledger says of an action, a consent too, stays through waiting and settling") {
    Interrupted collection;
    const std::string consent = "Consented: no lossless copy of it would be left.";
    const auto left = LedgerStore(collection.catalogue()).unfinished()->front();
    REQUIRE(LedgerStore(collection.catalogue()).mark(left, left.step, consent).ok());
    collection.say({"docket", "carry-out"});
    CHECK(LedgerStore(collection.catalogue()).unfinished()->front().waits.find("TERN is away") !=
          std::string::npos);
    fs::rename(collection / "in the cupboard", collection / "TERN");
    collection.say({"docket", "carry-out"});
    const auto settled = LedgerStore(collection.catalogue()).actionsOf(left.entry)->front();
    CHECK(settled.step == ActionStep::carriedOut);
    CHECK(settled.sentence == consent);
    CHECK(settled.waits.empty());
}

TEST_CASE("lists are not given back while a file of the entry waits to be settled") {
    Interrupted collection(true);
    const auto leads = (collection / "TERN/keep.wav") + "\n";
    CHECK(readFile(collection.list()) == leads);
    RunControl control;
    const auto entry = *lastUndoable(collection.catalogue()); // its list was changed
    REQUIRE(entry.has_value());
    REQUIRE(undoEntry(collection.catalogue(), *entry, control, {}).ok());
    CHECK(readFile(collection.list()) == leads);
    fs::rename(collection / "in the cupboard", collection / "TERN");
    collection.say({"docket", "carry-out"});
    REQUIRE(undoEntry(collection.catalogue(), *entry, control, {})->refused.empty());
    CHECK(readFile(collection.list()) == (collection / "TERN/spare.wav") + "\n");
    CHECK(isTaken(collection / "TERN/spare.wav"));
}

TEST_CASE("a look for volumes settles what waited for the one that came") {
    Interrupted collection;
    collection.whileClosed([&] {
        auto opened = openAndRecover(collection.cataloguePath());
        REQUIRE(opened.ok());
        CHECK(opened->waiting.size() == 1);
        CHECK(waitingToBeSettled(opened->catalogue)->size() == 1);
        fs::rename(collection / "in the cupboard", collection / "TERN");
        const auto looked = lookAgain(opened->catalogue);
        REQUIRE(looked.ok());
        CHECK(looked->volumesChanged);
        CHECK(looked->recovered.size() == 1);
        CHECK(waitingToBeSettled(opened->catalogue)->empty());
    });
}
