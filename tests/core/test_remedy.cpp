#include "core/audit/plan_places.h"
#include "core/audit/refresh_findings.h"
#include "core/base/user_folders.h"
#include "core/evidence/worker/evidence_worker.h"
#include "core/intake/replacement.h"
#include "core/remedy/changes/trash.h"
#include "core/remedy/docket/review.h"
#include "core/remedy/journal/taking_back.h"
#include "core/survey/volume_identity.h"
#include "core/work/carry_out.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/sound.h"

#include <catch2/catch.hpp>
#include <sys/mount.h>
#include <sys/stat.h>

#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

CarriedOut carryOutAll(Collection& collection) {
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    INFO((carried ? std::string() : carried.error().sentence));
    REQUIRE(carried.ok());
    return *carried;
}

CarriedOut undoLast(Collection& collection) {
    RunControl control;
    const auto last = lastUndoable(collection.catalogue());
    REQUIRE((last.ok() && last->has_value()));
    const auto undone = undoEntry(collection.catalogue(), **last, control, {});
    REQUIRE(undone.ok());
    return *undone;
}

/// Two copies and a single one, surveyed.
struct Copies : Collection {
    Copies() {
        fs::remove_all(homeTrash());
        writeFile(*this / "V/keep.wav", smallWav(1));
        writeFile(*this / "V/spare.wav", smallWav(1));
        writeFile(*this / "V/only.wav", smallWav(2));
        survey("V");
    }
};

} // namespace

TEST_CASE(
    "a retired file goes to the home trash as an independent implementation understands it, and comes back") {
    Copies collection;
    const BytePath spare = collection / "V/odd n\xC3\xA4me, 100%\nx.wav";
    fs::rename(collection / "V/spare.wav", spare);
    collection.survey("V");
    const timespec old[2] = {{1'000'000'000, 5}, {1'100'000'000, 7}};
    utimensat(AT_FDCWD, spare.c_str(), old, 0);
    const auto before = stampAt(spare);
    collection.putOnDocket(ActionKind::retire, "V", "odd n\xC3\xA4me, 100%\nx.wav");
    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 1);
    CHECK(carried.frees == smallWav(1).size());
    CHECK_FALSE(isTaken(spare));
    CHECK(isTaken(collection / "V/keep.wav"));
    const auto listed = run({"trash-list"});
    INFO(listed.err);
    CHECK(listed.out.find(spare) != std::string::npos);

    const auto undone = undoLast(collection);
    CHECK(undone.done == 1);
    const auto after = stampAt(spare);
    REQUIRE(after.ok());
    CHECK(after->sameContentAs(*before));
    CHECK(readFile(spare) == smallWav(1));
    CHECK(contentsBelow(homeTrash()).empty());
    CHECK_FALSE(lastUndoable(collection.catalogue())->has_value());
}

TEST_CASE("what the specification's own tool trashed and we trashed lie side by side") {
    Copies collection;
    writeFile(collection / "other/spare.wav", "another file of that name");
    REQUIRE(run({"trash-put", collection / "other/spare.wav"}).code == 0);
    collection.putOnDocket(ActionKind::retire, "V", "spare.wav");
    CHECK(carryOutAll(collection).done == 1);
    const auto listed = run({"trash-list"}).out;
    CHECK(listed.find(collection / "other/spare.wav") != std::string::npos);
    CHECK(listed.find(collection / "V/spare.wav") != std::string::npos);
    CHECK(readFile(joinPath(homeTrash(), "files/spare_1.wav")) == smallWav(1));
}

TEST_CASE("on another file system the trash is its own, shared or private as the specification has it") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    Collection collection;
    fs::create_directories(collection / "card");
    REQUIRE(mount("none", (collection / "card").c_str(), "tmpfs", 0, "size=4m") == 0);
    const bool shared = GENERATE(false, true);
    const auto user = std::to_string(getuid());
    BytePath expected = collection / ("card/.Trash-" + user);
    if (shared) {
        fs::create_directories(collection / "card/.Trash");
        chmod((collection / "card/.Trash").c_str(), 01777);
        expected = collection / ("card/.Trash/" + user);
    }
    writeFile(collection / "card/music/keep.wav", smallWav(1));
    writeFile(collection / "card/music/spare.wav", smallWav(1));
    collection.survey("card");
    collection.putOnDocket(ActionKind::retire, "card", "music/spare.wav");
    CHECK(carryOutAll(collection).done == 1);
    CHECK(readFile(expected + "/files/spare.wav") == smallWav(1));
    CHECK(readFile(expected + "/info/spare.wav.trashinfo").find("Path=music/spare.wav\n") !=
          std::string::npos);
    CHECK(collection.survey("card").seen == 1);
    CHECK(undoLast(collection).done == 1);
    CHECK(readFile(collection / "card/music/spare.wav") == smallWav(1));
    umount((collection / "card").c_str());
}

TEST_CASE("names for the trash stay free, short enough and whole") {
    fs::remove_all(homeTrash());
    Unflushed unflushed;
    const auto trash = trashFor(homeFolder() + "/x", unflushed);
    REQUIRE(trash.ok());
    const std::string longName =
        std::string(120, 'a') + std::string("\xC3\xA9\xC3\xA9") + std::string(127, 'b') + ".wav";
    const auto slot = freeSlot(*trash, longName);
    CHECK(nameOf(slot.note).size() <= 255);
    CHECK(nameOf(slot.file).ends_with(".wav"));
    writeFile(slot.file, "x");
    CHECK(freeSlot(*trash, longName).file != slot.file);
}

TEST_CASE("what must not be retired is refused with a sentence and stays") {
    Copies collection;
    std::string expected;
    std::vector<BytePath> told{"spare.wav"};
    SECTION("the only copy") {
        told = {"only.wav"};
        expected = "the only copy at hand";
    }
    SECTION("all copies") {
        told = {"spare.wav", "keep.wav"};
        expected = "one of them has to stay";
    }
    SECTION("changed since it was catalogued") {
        writeFile(collection / "V/spare.wav", smallWav(1) + "x");
        expected = "differ by now";
    }
    SECTION("its copy changed since it was catalogued") {
        std::string other = smallWav(1);
        other.back() = static_cast<char>(other.back() ^ 1);
        writeFile(collection / "V/keep.wav", other);
        expected = "differ by now";
    }
    SECTION("its copy is gone") {
        fs::remove(collection / "V/keep.wav");
        expected = "it is not there";
    }
    SECTION("the file is gone") {
        fs::remove(collection / "V/spare.wav");
        expected = "it is not there";
    }
    SECTION("both changed alike") {
        writeFile(collection / "V/keep.wav", smallWav(7));
        writeFile(collection / "V/spare.wav", smallWav(7));
        expected = "not what was recorded";
    }
    SECTION("no trash can be made") {
        fs::create_directories(dataHome());
        writeFile(homeTrash(), "a file in the trash's place");
        expected = "no trash to retire into";
    }
    SECTION("its volume is away") {
        fs::rename(collection / "V", collection / "pulled");
        expected = "away";
    }
    const auto before = contentsBelow(collection / "V");
    const auto pulled = contentsBelow(collection / "pulled");
    for (const auto& path : told) {
        collection.putOnDocket(ActionKind::retire, "V", path);
    }
    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 0);
    REQUIRE(carried.refused.size() == told.size());
    CHECK(carried.refused[0].sentence.find(expected) != std::string::npos);
    CHECK(contentsBelow(collection / "V") == before);
    CHECK(contentsBelow(collection / "pulled") == pulled);
    CHECK(DocketStore(collection.catalogue()).all()->size() == told.size());
    fs::remove_all(homeTrash());
}

TEST_CASE("a file that is reached by two ways is no copy of itself") {
    Collection collection;
    writeFile(collection / "V/real/a.wav", smallWav(1));
    fs::create_directory_symlink("real", collection / "V/way");
    writeFile(collection / "W/b.wav", smallWav(9));
    fs::create_directory_symlink(collection / "V/real", collection / "W/in");
    SurveyChoices links;
    links.followLinks = true;
    collection.survey("V");
    collection.survey("W", links);
    REQUIRE(collection.holding("W", "in/a.wav").has_value());
    collection.putOnDocket(ActionKind::retire, "W", "in/a.wav");
    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 0);
    CHECK(readFile(collection / "V/real/a.wav") == smallWav(1));
}

TEST_CASE("a hard link may be retired, frees nothing, and its fellow keeps the bytes") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    fs::create_hard_link(collection / "V/a.wav", collection / "V/b.wav");
    collection.survey("V");
    REQUIRE(refreshFindings(collection.catalogue()).ok());
    CHECK(Findings(collection.catalogue()).setTotals()->reclaimable == 0);
    collection.putOnDocket(ActionKind::retire, "V", "b.wav");
    CHECK(reviewDocket(collection.catalogue())->frees == 0);
    CHECK(carryOutAll(collection).done == 1);
    CHECK(readFile(collection / "V/a.wav") == smallWav(1));
    CHECK(undoLast(collection).done == 1);
}

TEST_CASE("undo refuses where the place is taken or the trash was emptied, one by one") {
    Copies collection;
    writeFile(collection / "V/third.wav", smallWav(1));
    collection.survey("V");
    collection.putOnDocket(ActionKind::retire, "V", "spare.wav");
    collection.putOnDocket(ActionKind::retire, "V", "third.wav");
    CHECK(carryOutAll(collection).done == 2);
    writeFile(collection / "V/spare.wav", "somebody else's");
    fs::remove(joinPath(homeTrash(), "files/third.wav"));
    const auto undone = undoLast(collection);
    CHECK(undone.done == 0);
    REQUIRE(undone.refused.size() == 2);
    CHECK(readFile(collection / "V/spare.wav") == "somebody else's");
    fs::remove(collection / "V/spare.wav");
    CHECK(undoLast(collection).done == 1);
    CHECK(readFile(collection / "V/spare.wav") == smallWav(1));
}

TEST_CASE("what is written off is not missing again, until it comes back or the entry is taken back") {
    Copies collection;
    fs::remove(collection / "V/only.wav");
    collection.survey("V");
    CHECK(Holdings(collection.catalogue()).missing()->size() == 1);
    collection.putOnDocket(ActionKind::writeOff, "V", "only.wav");
    CHECK(carryOutAll(collection).done == 1);
    CHECK(collection.survey("V").missing == 0);
    CHECK(Holdings(collection.catalogue()).missing()->empty());
    CHECK(undoLast(collection).done == 1);
    CHECK(Holdings(collection.catalogue()).missing()->size() == 1);
    writeFile(collection / "V/only.wav", smallWav(2));
    collection.putOnDocket(ActionKind::writeOff, "V", "only.wav");
    CHECK(carryOutAll(collection).refused.at(0).sentence.find("survey the volume first") !=
          std::string::npos);
}

TEST_CASE("carrying out stops between two files and the rest waits") {
    Copies collection;
    for (int i = 0; i < 6; ++i) {
        writeFile(collection / ("V/copy" + std::to_string(i) + ".wav"), smallWav(1));
    }
    collection.survey("V");
    for (int i = 0; i < 6; ++i) {
        collection.putOnDocket(ActionKind::retire, "V", "copy" + std::to_string(i) + ".wav");
    }
    RunControl control;
    CarryOutHooks hooks;
    int checked = 0;
    hooks.onInstant = [&](Instant instant) {
        if (instant == Instant::checked && ++checked == 2) {
            control.cancel();
        }
    };
    const auto carried = carryOut(collection.catalogue(), control, hooks);
    REQUIRE(carried.ok());
    CHECK(carried->interrupted);
    CHECK(carried->done == 2);
    CHECK(DocketStore(collection.catalogue()).all()->size() == 4);
    CHECK(carryOutAll(collection).done == 4);
}

TEST_CASE("files return to where their volume is now, not to where it was") {
    Copies collection;
    collection.putOnDocket(ActionKind::retire, "V", "spare.wav");
    CHECK(carryOutAll(collection).done == 1);
    fs::rename(collection / "V", collection / "Renamed");
    const auto away = [&] {
        REQUIRE(lookForVolumes(collection.catalogue()).ok());
        return undoLast(collection);
    }();
    CHECK(away.done == 0);
    REQUIRE(away.refused.size() == 1);
    CHECK(away.refused[0].sentence.find("its volume is away") != std::string::npos);
    CHECK_FALSE(isTaken(collection / "V"));
    CHECK(collection.survey("Renamed").label == "V");
    CHECK(undoLast(collection).done == 1);
    CHECK(readFile(collection / "Renamed/spare.wav") == smallWav(1));
    CHECK_FALSE(isTaken(collection / "V"));
    CHECK(collection.survey("Renamed").unchanged == 3);
}

TEST_CASE("what was moved or replaced goes back on its volume where that is now") {
    Copies collection;
    fs::create_directories(collection / "O");
    ffmpeg({"-i", collection / "V/spare.wav", collection / "O/spare.flac"});
    RunControl control;
    const auto record = EvidenceWorker().examine(collection / "O/spare.flac", control, [](std::uint64_t) {});
    REQUIRE(record.ok());
    DocketAction replace;
    replace.kind = ActionKind::replace;
    replace.holding = collection.holding("V", "spare.wav")->id;
    replace.target = collection / "V/spare.flac";
    replace.change = packReplacement({collection / "O/spare.flac",
                                      record->checksums.file,
                                      record->evidence->payload,
                                      fs::file_size(collection / "O/spare.flac"),
                                      {},
                                      {}});
    REQUIRE(DocketStore(collection.catalogue()).add(std::array{replace}).ok());
    REQUIRE(
        planMove(collection.catalogue(), collection / "V/only.wav", collection / "V/new/only.wav", "").ok());
    CHECK(carryOutAll(collection).done == 2);
    CHECK(isTaken(collection / "V/spare.flac"));
    fs::rename(collection / "V", collection / "Renamed");
    REQUIRE(lookForVolumes(collection.catalogue()).ok());
    const auto away = undoLast(collection);
    CHECK(away.done == 0);
    REQUIRE(away.refused.size() == 2);
    for (const auto& refused : away.refused) {
        CHECK(refused.sentence.find("its volume is away") != std::string::npos);
    }
    CHECK(collection.survey("Renamed").label == "V");
    const auto undone = undoLast(collection);
    INFO((undone.refused.empty() ? std::string() : undone.refused.front().sentence));
    CHECK(undone.done == 2);
    CHECK(readFile(collection / "Renamed/spare.wav") == smallWav(1));
    CHECK(readFile(collection / "Renamed/only.wav") == smallWav(2));
    CHECK_FALSE(isTaken(collection / "Renamed/spare.flac"));
    CHECK_FALSE(isTaken(collection / "V"));
    CHECK(collection.survey("Renamed").unchanged == 3);
}

TEST_CASE("a drive's own trash is found again at another mount point") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    Collection collection;
    const BytePath image = collection / "image";
    REQUIRE(run({"truncate", "-s", "16M", image}).code == 0);
    REQUIRE(run({"mkfs.ext4", "-q", image}).code == 0);
    for (const auto* point : {"here", "there"}) {
        fs::create_directories(collection / point);
    }
    REQUIRE(run({"mount", "-o", "loop", image, collection / "here"}).code == 0);
    writeFile(collection / "here/music/keep.wav", smallWav(1));
    writeFile(collection / "here/music/spare.wav", smallWav(1));
    collection.survey("here/music");
    collection.putOnDocket(ActionKind::retire, "music", "spare.wav");
    CHECK(carryOutAll(collection).done == 1);
    unmount(collection / "here");
    REQUIRE(run({"mount", "-o", "loop", image, collection / "there"}).code == 0);
    CHECK(collection.survey("there/music").label == "music");
    CHECK(undoLast(collection).done == 1);
    CHECK(readFile(collection / "there/music/spare.wav") == smallWav(1));
    CHECK(contentsBelow(collection / ("there/.Trash-" + std::to_string(getuid()))).empty());
    CHECK_FALSE(isTaken(collection / "here/music"));
    unmount(collection / "there");
}

TEST_CASE("what is carried out is carried out on the volume where it is now") {
    Copies collection;
    collection.putOnDocket(ActionKind::retire, "V", "spare.wav");
    fs::rename(collection / "V", collection / "Renamed");
    collection.survey("Renamed");
    const auto carried = carryOutAll(collection);
    CHECK(carried.done == 1);
    CHECK_FALSE(isTaken(collection / "Renamed/spare.wav"));
    CHECK(isTaken(collection / "Renamed/keep.wav"));
    CHECK(undoLast(collection).done == 1);
}
