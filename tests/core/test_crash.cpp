#include "core/base/user_folders.h"
#include "core/catalogue/ledger_store.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/killing.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

constexpr int copies = 3;

/// A volume of one recording in several copies, all but one on the docket, and something to write off.
struct CrashScene : Collection {
    CrashScene() {
        fs::remove_all(trash());
        writeFile(*this / "V/keep.wav", smallWav(1));
        writeFile(*this / "V/gone.wav", smallWav(2));
        for (int i = 0; i < copies; ++i) {
            writeFile(*this / ("V/f/copy" + std::to_string(i) + ".wav"), smallWav(1));
        }
        survey("V");
        fs::remove(*this / "V/gone.wav");
        survey("V");
        for (int i = 0; i < copies; ++i) {
            putOnDocket(ActionKind::retire, "V", "f/copy" + std::to_string(i) + ".wav");
        }
        putOnDocket(ActionKind::writeOff, "V", "gone.wav");
    }
    static BytePath trash() { return joinPath(dataHome(), "Trash"); }

    /// What must hold whenever nothing is going on: every byte is there once, in the volume or in the
    /// trash; every note in the trash has its file and the reverse; the catalogue says what the disk says.
    void checkWhole() {
        const auto counts = contentCounts({*this / "V", joinPath(trash(), "files")});
        REQUIRE(counts.size() == 1);
        CHECK(counts.begin()->second == copies + 1);
        CHECK(counts.begin()->first == smallWav(1));
        std::size_t notes = 0;
        for (const auto& [path, text] : contentsBelow(joinPath(trash(), "info"))) {
            const auto name = nameOf(path);
            CHECK(isTaken(joinPath(joinPath(trash(), "files"), name.substr(0, name.size() - 10))));
            ++notes;
        }
        CHECK(notes == contentsBelow(joinPath(trash(), "files")).size());
        for (int i = 0; i < copies; ++i) {
            const BytePath path = "f/copy" + std::to_string(i) + ".wav";
            CHECK(isTaken(*this / ("V/" + path)) == holding("V", path).has_value());
        }
        const LedgerStore ledger(catalogue());
        CHECK(ledger.unfinished()->empty());
        CHECK(ledger.unclosed()->empty());
    }
};

} // namespace

TEST_CASE("killed at any instant of carrying out, the next start finishes it or takes it back") {
    const int instants = killAtEveryInstant<CrashScene>(
        "carry-out", [](Collection&) {},
        [](Collection& collection) {
            RunControl control;
            const auto rest = carryOut(collection.catalogue(), control, {});
            REQUIRE(rest.ok());
            CHECK(rest->refused.empty());
            CHECK(DocketStore(collection.catalogue()).all()->empty());
            CHECK(contentsBelow(joinPath(dataHome(), "Trash/files")).size() == copies);
            CHECK(collection.holding("V", "gone.wav")->state == HoldingState::writtenOff);
        });
    CHECK(instants == copies * 5 + 3);
}

TEST_CASE("killed at any instant of an undo, the next start finishes it or takes it back") {
    const int instants = killAtEveryInstant<CrashScene>(
        "undo",
        [](Collection& collection) {
            REQUIRE(sober::test::sober(collection.cataloguePath(), {"docket", "carry-out"}).code == 0);
        },
        [](Collection& collection) {
            undoEverything(collection);
            CHECK(contentsBelow(joinPath(dataHome(), "Trash")).empty());
            CHECK(collection.holding("V", "gone.wav")->state == HoldingState::missing);
        });
    CHECK(instants == copies * 4 + 1);
}
