#include "core/base/user_folders.h"
#include "core/remedy/docket/review.h"
#include "core/survey/seek.h"
#include "core/survey/verify.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/killing.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A holding that was removed with its folder, and a backup of it that is no volume.
struct Bereft : Collection {
    Bereft() {
        fs::create_directories(*this / "V/evening");
        writeFile(*this / "V/stays.wav", smallWav(1));
        writeFile(*this / "V/evening/gone.wav", content);
        survey("V");
        fs::create_directories(*this / "backup/data");
        fs::rename(*this / "V/evening/gone.wav", *this / "backup/data/some name.wav");
        fs::remove(*this / "V/evening");
        writeFile(*this / "backup/same-size.wav", smallWav(3));
        writeFile(*this / "backup/other.wav", smallWav(4, 0.4));
        survey("V");
    }
    SeekReport seek() {
        RunControl control;
        const std::vector<BytePath> folders{*this / "backup"};
        auto report = seekHealthyCopies(catalogue(), folders, control, [](const Progress&) {});
        REQUIRE(report.ok());
        return *report;
    }
    BytePath gone() const { return *this / "V/evening/gone.wav"; }
    BytePath backup() const { return *this / "backup/data/some name.wav"; }
    void checkWhole() {
        CHECK(readFile(backup()) == content);
        CHECK((!isTaken(gone()) || readFile(gone()) == content));
    }

    std::string content = smallWav(2);
};

struct Prepared : Bereft {
    Prepared() {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        seek();
        putOnDocket(ActionKind::restore, "V", "evening/gone.wav");
    }
};

CarriedOut carryOutAll(Collection& collection) {
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    return *carried;
}

} // namespace

TEST_CASE("what is missing comes back from a copy on no volume, and can be taken back") {
    Bereft collection;
    collection.putOnDocket(ActionKind::restore, "V", "evening/gone.wav");
    CHECK(reviewDocket(collection.catalogue())->actions.front().refused ==
          "No healthy copy of what was recorded is at hand.");

    const auto before = contentsBelow(collection / "backup");
    const auto report = collection.seek();
    CHECK(report.files == 3);
    CHECK(report.read == 2); // of the size that is looked for
    REQUIRE(report.found.size() == 1);
    CHECK(report.found[0].path == collection.backup());
    CHECK(contentsBelow(collection / "backup") == before);

    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 1);
    CHECK(readFile(collection.gone()) == collection.content);
    CHECK(collection.holding("V", "evening/gone.wav")->state == HoldingState::present);
    CHECK(collection.survey("V").unchanged == 2);
    RunControl control;
    CHECK(verifyHoldings(collection.catalogue(), {}, control, [](const Progress&) {})->drift.empty());

    SECTION("taken back it is missing again, and its bytes are in the trash") {
        REQUIRE(undoEntry(collection.catalogue(), carried.entry, control, {})->refused.empty());
        CHECK_FALSE(isTaken(collection.gone()));
        CHECK(collection.holding("V", "evening/gone.wav")->state == HoldingState::missing);
        CHECK(readFile(joinPath(dataHome(), "Trash/files/gone.wav")) == collection.content);
    }
    SECTION("changed since, it stays") {
        writeFile(collection.gone(), smallWav(9));
        CHECK(undoEntry(collection.catalogue(), carried.entry, control, {})->refused.size() == 1);
        CHECK(readFile(collection.gone()) == smallWav(9));
    }
}

TEST_CASE("nothing is brought back over what stands there, nor from what only was healthy") {
    Bereft collection;
    collection.seek();
    collection.putOnDocket(ActionKind::restore, "V", "evening/gone.wav");
    BytePath stands;
    SECTION("something stands at its place") {
        fs::create_directories(collection / "V/evening");
        writeFile(collection.gone(), smallWav(7));
        stands = smallWav(7);
    }
    SECTION("the copy is another by now") {
        writeFile(collection.backup(), smallWav(8));
    }
    SECTION("the volume is full") {
        if (!canMount()) {
            return;
        }
        // The file system that holds the place has room for the folder and not for the file.
        REQUIRE(run({"mount", "-t", "tmpfs", "-o", "size=1060k", "none", collection / "V"}).code == 0);
        writeFile(collection / "V/stays.wav", smallWav(1));
        const auto carried = carryOutAll(collection);
        CHECK(carried.done == 0);
        const auto left = contentsBelow(collection / "V").size();
        unmount(collection / "V");
        CHECK(left == 1);
        REQUIRE(carried.refused.size() == 1);
        CHECK(carried.refused[0].sentence.find("are free") != std::string::npos);
        return;
    }
    SECTION("the copy is gone") {
        fs::remove(collection.backup());
    }
    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 0);
    CHECK(carried.refused.size() == 1);
    CHECK(isTaken(collection.gone()) == !stands.empty());
    CHECK((stands.empty() || readFile(collection.gone()) == stands));
    CHECK(contentsBelow(collection / "V").size() == (stands.empty() ? 1 : 2));
}

TEST_CASE("killed at any instant of bringing back, the next start finishes it or takes it back") {
    const int instants = killAtEveryInstant<Prepared>(
        "carry-out", [](Collection&) {},
        [](Prepared& collection) {
            CHECK(carryOutAll(collection).refused.empty());
            CHECK(readFile(collection.gone()) == collection.content);
            CHECK(contentsBelow(collection / "V").size() == 2);
        });
    CHECK(instants == 5);
}

TEST_CASE("killed at any instant of taking it back, the next start finishes that or leaves it") {
    const int instants = killAtEveryInstant<Prepared>(
        "undo",
        [](Collection& collection) {
            REQUIRE(sober::test::sober(collection.cataloguePath(), {"docket", "carry-out"}).code == 0);
        },
        [](Prepared& collection) {
            undoEverything(collection);
            CHECK_FALSE(isTaken(collection.gone()));
            CHECK(contentsBelow(joinPath(dataHome(), "Trash")).size() == 2); // the file and its note
            CHECK(collection.holding("V", "evening/gone.wav")->state == HoldingState::missing);
        });
    CHECK(instants == 4);
}
