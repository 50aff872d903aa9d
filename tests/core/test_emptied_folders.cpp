// What a new order leaves behind: folders in which nothing is left.
#include "core/base/text.h"
#include "core/transfer/emptied_folders.h"
#include "core/transfer/plan.h"
#include "core/work/carry_out.h"
#include "core/work/run_transfer.h"
#include "support/killing.h"
#include "support/mounts.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <sys/stat.h>

#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// Folders that are to become one.
struct Ordering : PlayerCollection {
    Ordering() {
        fs::remove_all(homeTrash());
        std::uint32_t seed = 0;
        for (const auto* name : {"m/old/a/1.wav", "m/old/b/2.wav", "m/half/3.wav", "m/4.wav"}) {
            writeFile(at(name), smallWav(++seed));
        }
        writeFile(at("m/half/cover.jpg"), "a picture");
        fs::create_directories(at("m/old/a/inner"));
        fs::create_directories(at("m/bare"));
        survey("V");
    }
    BytePath at(const BytePath& path) const { return *this / "V/" + path; }

    TransferPlan planned(TransferMode mode = TransferMode::reorder, const BytePath& to = "m") {
        TransferRequest request;
        request.choice.folders = {{volume("V").id, "m"}};
        request.to = at(to);
        request.layout = "flat";
        request.mode = mode;
        RunControl control;
        auto plan = planTransfer(catalogue(), request, control);
        REQUIRE(plan.ok());
        return std::move(*plan);
    }
    CarriedOut run(TransferId id, RunControl& control, const CarryOutHooks& hooks = {}) {
        const auto ran = runTransfer(catalogue(), id, control, hooks);
        INFO((ran ? std::string() : ran.error().sentence));
        REQUIRE(ran.ok());
        return ran->carried;
    }
    CarriedOut run() {
        RunControl control;
        return run(*keepPlan(catalogue(), planned()), control);
    }

    void putMovesOnDocket(const std::vector<std::pair<BytePath, BytePath>>& places) {
        std::vector<DocketAction> moves;
        for (const auto& [from, to] : places) {
            moves.push_back({0, ActionKind::move, holding("V", from)->id, "", timeNow(), {}, {}, at(to)});
        }
        REQUIRE(DocketStore(catalogue()).add(moves).ok());
    }
    std::set<std::string> foldersBelow() const {
        std::set<std::string> folders;
        for (const auto& entry : fs::recursive_directory_iterator(*this / "V")) {
            if (entry.is_directory()) {
                folders.insert(fs::relative(entry.path(), *this / "V"));
            }
        }
        return folders;
    }
};

/// Two that are to go to folders that are not there yet.
struct Moving : Ordering {
    Moving() {
        before = foldersBelow();
        putMovesOnDocket({{"m/old/a/1.wav", "m/new/deep/1.wav"}, {"m/old/b/2.wav", "m/other/2.wav"}});
    }
    void checkWhole() { CHECK(contentCounts({*this / "V"}).size() == 5); }
    std::set<std::string> before;
};

} // namespace

TEST_CASE("a folder that a new order leaves without a file goes to the trash, and comes back as it was") {
    Ordering all;
    REQUIRE(chmod(all.at("m/old/a").c_str(), 0711) == 0);
    const auto before = contentsBelow(all / "V");
    CHECK(all.planned().emptied == std::vector{all.at("m/old")});
    CHECK(all.planned(TransferMode::steps, "n").emptied == std::vector{all.at("m/old")});
    CHECK(all.planned(TransferMode::copy, "n").emptied.empty());
    const auto carried = all.run();
    CHECK(carried.refused.empty());
    CHECK(carried.done == 4); // three files and the folder
    CHECK_FALSE(fs::exists(all.at("m/old")));
    CHECK(fs::is_directory(homeTrash() + "/files/old/a/inner"));
    CHECK(readFile(homeTrash() + "/info/old.trashinfo").find("Path=" + all.at("m/old")) != std::string::npos);
    CHECK(readFile(all.at("m/half/cover.jpg")) == "a picture");
    CHECK(fs::exists(all.at("m/bare"))); // it was so before
    CHECK(all.undoLast().refused.empty());
    CHECK((contentsBelow(all / "V") == before));
    CHECK(fs::status(all.at("m/old/a")).permissions() == fs::perms(0711));
    CHECK(fs::is_directory(all.at("m/old/a/inner")));
    CHECK_FALSE(fs::exists(homeTrash() + "/info/old.trashinfo"));
    // And the same again.
    CHECK(all.run().refused.empty());
    CHECK_FALSE(fs::exists(all.at("m/old")));
}

TEST_CASE("what comes into a folder meanwhile keeps it, or brings it back") {
    Ordering all;
    const bool late = GENERATE(false, true);
    // Ours have all gone out of it; or it is on its way itself.
    const auto instant = late ? Instant::noteWritten : Instant::recorded;
    CarryOutHooks hooks;
    hooks.onInstant = [&](Instant now) {
        if (now == instant) {
            writeFile(all.at("m/old/a/note.txt"), "mine");
        }
    };
    RunControl control;
    const auto carried = all.run(*keepPlan(all.catalogue(), all.planned()), control, hooks);
    CHECK(carried.done == 3);
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().path == all.at("m/old"));
    CHECK(carried.refused.front().sentence.find("is not empty") != std::string::npos);
    CHECK(readFile(all.at("m/old/a/note.txt")) == "mine");
    CHECK_FALSE(fs::exists(homeTrash() + "/info/old.trashinfo"));
    CHECK(all.undoLast().refused.empty());
    CHECK(fs::exists(all.at("m/old/b/2.wav")));
}

TEST_CASE("folders that were made for a new place go again when what is in them goes back, and no others") {
    Ordering all;
    writeFile(all.at("m/new/mine.txt"), "not of the catalogue");
    fs::create_directories(all.at("m/new/bare"));
    const auto before = all.foldersBelow();
    all.putMovesOnDocket({{"m/old/a/1.wav", "m/new/made/deep/1.wav"},
                          {"m/old/b/2.wav", "m/new/made/2.wav"},
                          {"m/half/3.wav", "m/used since/3.wav"},
                          {"m/4.wav", "m/new/bare/4.wav"}});
    RunControl control;
    REQUIRE(carryOut(all.catalogue(), control, {})->done == 4);
    writeFile(all.at("m/used since/letter.txt"), "somebody's");
    fs::create_directories(all.at("m/new/made/deep/looked for here"));
    auto players = PlayerStore(all.catalogue());
    Player player;
    player.name = "one of theirs";
    player.places = {all.at("m/new/made/deep/looked for here")};
    SECTION("as they were") {
        fs::remove(all.at("m/new/made/deep/looked for here"));
        CHECK(all.undoLast().refused.empty());
        auto expected = before;
        expected.insert("m/used since");
        CHECK(all.foldersBelow() == expected);
    }
    SECTION("where a player looks there by now") {
        REQUIRE(players.add(player).ok());
        CHECK(all.undoLast().refused.empty());
        CHECK(fs::exists(all.at("m/new/made/deep/looked for here")));
    }
    SECTION("on a volume that is somewhere else by now") {
        fs::remove(all.at("m/new/made/deep/looked for here"));
        fs::rename(all / "V", all / "W");
        all.survey("W");
        CHECK(all.undoLast().refused.empty());
        CHECK_FALSE(fs::exists(all / "W/m/new/made"));
        CHECK(fs::exists(all / "W/m/new/bare"));
        CHECK(readFile(all / "W/m/used since/letter.txt") == "somebody's");
    }
}

TEST_CASE("folders that were made before an interruption go with what is taken back") {
    const auto instants = killAtEveryInstant<Moving>(
        "carry-out", [](Moving&) {},
        [](Moving& all) {
            CHECK(all.foldersBelow().contains("m/new/deep") == fs::exists(all.at("m/new/deep/1.wav")));
            RunControl control;
            REQUIRE(carryOut(all.catalogue(), control, {}).ok());
            CHECK(fs::exists(all.at("m/other/2.wav")));
            undoEverything(all);
            CHECK(all.foldersBelow() == all.before);
        });
    CHECK(instants > 5);
}

TEST_CASE("folders that were made for what did not come go at once") {
    Moving all;
    writeFile(all.at("m/old/a/1.wav"), smallWav(99));
    RunControl control;
    const auto carried = carryOut(all.catalogue(), control, {});
    REQUIRE(carried->refused.size() == 1);
    CHECK(carried->done == 1);
    CHECK_FALSE(fs::exists(all.at("m/new")));
    CHECK(fs::exists(all.at("m/other/2.wav")));
}

TEST_CASE("a run that was stopped clears its folders away when it goes on") {
    Ordering all;
    const auto id = *keepPlan(all.catalogue(), all.planned());
    RunControl control;
    CarryOutHooks hooks;
    hooks.onInstant = [&](Instant now) {
        if (now == Instant::recorded) {
            control.cancel();
        }
    };
    CHECK(all.run(id, control, hooks).interrupted);
    CHECK(fs::exists(all.at("m/1.wav")));
    CHECK(fs::exists(all.at("m/old/a")));
    RunControl goingOn;
    CHECK(all.run(id, goingOn).done == 1);
    CHECK_FALSE(fs::exists(all.at("m/old")));
}

TEST_CASE("folders that stay, though they are empty") {
    Ordering all;
    SECTION("where a player looks") {
        writeFile(all.at("m/old/a/inner/x.m3u"), m3u({}));
        all.addPlayer("tern", "V/m/old/a/inner");
        fs::remove(all.at("m/old/a/inner/x.m3u"));
        CHECK(all.planned().emptied == std::vector{all.at("m/old/b")});
    }
    SECTION("what holds a link, whatever that leads to") {
        fs::create_symlink("nowhere", all.at("m/old/b/link"));
        CHECK(all.planned().emptied == std::vector{all.at("m/old/a")});
    }
    SECTION("where one of the files goes, and above it") {
        const FilesMoving files{{all.at("m/old/a/1.wav"), all.at("m/old/b/2.wav")},
                                {all.at("m/old/b/c/1.wav"), all.at("m/2.wav")}};
        CHECK(emptiedFolders(files, all / "V", {}) == std::vector{all.at("m/old/a")});
    }
    SECTION("what gets another letter case where that is no other name") {
        if (getuid() != 0) {
            WARN("not run: mounting needs root");
            return;
        }
        REQUIRE(sober::test::run({"truncate", "-s", "16M", all / "image"}).code == 0);
        REQUIRE(sober::test::run({"mkfs.exfat", all / "image"}).code == 0);
        TestMounts mounts;
        const auto device = mounts.loop(all / "image");
        fs::create_directories(all / "C");
        REQUIRE(sober::test::run({"mount.exfat-fuse", device, all / "C"}).code == 0);
        writeFile(all / "C/Album/1.wav", "x");
        writeFile(all / "C/other/2.wav", "x");
        const FilesMoving files{{all / "C/Album/1.wav", all / "C/other/2.wav"},
                                {all / "C/album/1.wav", all / "C/album/2.wav"}};
        CHECK(emptiedFolders(files, all / "C", {}) == std::vector{all / "C/other"});
        unmount(all / "C");
    }
    SECTION("what is not below the volume") {
        const FilesMoving files{{all.at("m/old/a/1.wav")}, {all.at("m/1.wav")}};
        CHECK(emptiedFolders(files, all.at("m/old/a"), {}).empty());
        CHECK(emptiedFolders(files, all.at("m/half"), {}).empty());
    }
}
