// What an interruption left on a volume that is away waits for it, is said, and blocks nothing else.
#include "core/catalogue/ledger_store.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <csignal>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Two volumes with two copies each; the run that retires one of the first is killed when it has gone.
struct Interrupted : Collection {
    Interrupted() {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        for (const std::string volume : {"TERN", "GANNET"}) {
            const auto seed = volume == "TERN" ? 1U : 2U;
            writeFile(*this / (volume + "/keep.wav"), smallWav(seed));
            writeFile(*this / (volume + "/spare.wav"), smallWav(seed));
            survey(volume);
        }
        putOnDocket(ActionKind::retire, "TERN", "spare.wav");
        constexpr const char* moved = "4"; // checked, journalled, noted, moved
        whileClosed([&] {
            CHECK(run({CRASH_HELPER, cataloguePath(), "carry-out", moved}).code == -SIGKILL);
            fs::rename(*this / "TERN", *this / "in the cupboard");
        });
        CHECK_FALSE(isTaken(*this / "in the cupboard/spare.wav"));
    }
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
