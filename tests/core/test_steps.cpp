// Each step tells by the disk alone whether it was made, and is made and taken back.
#include "core/base/presence.h"
#include "core/base/user_folders.h"
#include "core/evidence/file_content.h"
#include "core/remedy/changes/trash.h"
#include "core/remedy/journal/settling.h"
#include "core/remedy/journal/steps.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

Checksum128 checksumOfContent(const std::string& content) {
    return checksumOf({reinterpret_cast<const std::uint8_t*>(content.data()), content.size()});
}

/// An action about one file "old" that is to become "new", and all its places.
struct Placed {
    explicit Placed(ActionKind kind) {
        action.kind = kind;
        action.holding = 1;
        action.place = folder / "V/a.wav";
        action.aside = folder / "trash/files/a.wav";
        action.note = folder / "trash/info/a.wav.trashinfo";
        action.made = folder / (kind == ActionKind::move ? "V/new/a.wav" : "V/.sober-1-1.wav");
        action.checksum = checksumOfContent("old");
        action.madeChecksum = checksumOfContent("new");
        for (const auto* part : {"V", "trash/files", "trash/info"}) {
            fs::create_directories(folder / part);
        }
    }
    void put(const BytePath& path, const std::string& content) const {
        if (!content.empty()) {
            writeFile(path, content);
        }
    }

    TempFolder folder;
    LedgerAction action;
    Unflushed unflushed;
};

} // namespace

TEST_CASE("where a file is that goes aside, by its content") {
    struct Row {
        std::string place, aside;
        Standing standing;
    };
    const auto row = GENERATE(values<Row>({{"old", "", Standing::undone},
                                           {"", "old", Standing::done},
                                           {"new", "old", Standing::done}, // and another in its place
                                           {"old", "another's", Standing::undone},
                                           {"", "another's", Standing::lost},
                                           {"", "", Standing::lost}}));
    const Placed placed(ActionKind::retag);
    placed.put(placed.action.place, row.place);
    placed.put(placed.action.aside, row.aside);
    CAPTURE(row.place, row.aside);
    CHECK(standingOf(Step::setAside, placed.action) == row.standing);
}

TEST_CASE("whether what was made has its place, by its content") {
    struct Row {
        std::string made, place;
        Standing placedStanding, madeStanding;
    };
    const auto row = GENERATE(values<Row>({{"new", "", Standing::undone, Standing::done},
                                           {"", "new", Standing::done, Standing::done},
                                           {"new", "old", Standing::undone, Standing::done},
                                           {"", "old", Standing::lost, Standing::undone},
                                           {"", "", Standing::lost, Standing::undone}}));
    const Placed placed(ActionKind::retag);
    placed.put(placed.action.made, row.made);
    placed.put(placed.action.place, row.place);
    CAPTURE(row.made, row.place);
    CHECK(standingOf(Step::place, placed.action) == row.placedStanding);
    CHECK(standingOf(Step::make, placed.action) == row.madeStanding);
}

TEST_CASE("what cannot be looked at is neither there nor gone") {
    CHECK(presenceOf("/") == Presence::there);
    CHECK(presenceOf("/nowhere/at/all") == Presence::gone);
    CHECK(presenceOf("/dev/null/below a file") == Presence::gone);
    CHECK(presenceOf("/" + std::string(300, 'x')) == Presence::unknown);
    const TempFolder folder;
    fs::create_symlink("round", folder / "round");
    CHECK(presenceOf(folder / "round") == Presence::there);
    CHECK(presenceOf(folder / "round/below") == Presence::unknown);
    Placed placed(ActionKind::move);
    placed.action.made = folder / "round/below";
    writeFile(placed.action.place, "old");
    CHECK(standingOf(Step::move, placed.action) == Standing::unknown);
}

TEST_CASE("steps are made and taken back, never over anything") {
    Placed placed(ActionKind::retire);
    auto& action = placed.action;
    writeFile(action.place, "old");
    std::vector<Leg> taken;
    for (const auto step : {Step::note, Step::setAside}) {
        REQUIRE(take({step, Way::forth}, action, placed.unflushed).ok());
        CHECK(standingOf(step, action) == Standing::done);
        taken.push_back({step, Way::forth});
    }
    CHECK(readFile(action.aside) == "old");
    CHECK(*isNoteAbout(action.note, action.place));
    CHECK_FALSE(*isNoteAbout(action.note, action.place + "x"));
    CHECK(isUnflushed(action, placed.unflushed));
    placed.unflushed.flush();
    CHECK_FALSE(isUnflushed(action, placed.unflushed));

    SECTION("all of it goes back") {
        REQUIRE(takeBack(taken, action, placed.unflushed).ok());
        CHECK(readFile(action.place) == "old");
        CHECK_FALSE(isTaken(action.note));
    }
    SECTION("its place is taken, and the note stays with its file") {
        writeFile(action.place, "somebody's");
        REQUIRE_FALSE(takeBack(taken, action, placed.unflushed).ok());
        CHECK(taken.size() == 2);
        CHECK(readFile(action.place) == "somebody's");
        CHECK(readFile(action.aside) == "old");
        CHECK(isTaken(action.note));
    }
    SECTION("its folder is gone, and is made again") {
        fs::remove(placed.folder / "V");
        REQUIRE(takeBack(taken, action, placed.unflushed).ok());
        CHECK(readFile(action.place) == "old");
    }
    SECTION("another's note is not removed") {
        fs::rename(action.aside, action.place);
        writeFile(action.note, "[Trash Info]\nPath=/elsewhere\n");
        REQUIRE(take({Step::note, Way::back}, action, placed.unflushed).ok());
        CHECK(isTaken(action.note));
        // One of ours whose writing was cut short is.
        writeFile(action.note, "[Trash In");
        REQUIRE(take({Step::note, Way::back}, action, placed.unflushed).ok());
        CHECK_FALSE(isTaken(action.note));
    }
}

TEST_CASE("a loss of power that took a change back is seen, and what is left over is tidied") {
    Placed placed(ActionKind::retire);
    auto& action = placed.action;
    action.step = ActionStep::carriedOut;
    writeFile(action.aside, "old");
    CHECK_FALSE(wasReverted(action));
    fs::rename(action.aside, action.place);
    CHECK(wasReverted(action));
    action.step = ActionStep::undone;
    CHECK_FALSE(wasReverted(action));
    writeFile(action.note, "[Trash Info]\n");
    CHECK(tidy(action, placed.unflushed).ok());
    CHECK_FALSE(isTaken(action.note));
    CHECK(readFile(action.place) == "old");
}
