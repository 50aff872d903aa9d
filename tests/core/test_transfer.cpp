// Transfers from plan to release, on the disk: what comes, what is not touched, and what goes on after it was
// stopped.
#include "core/audit/refresh_findings.h"
#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/holding_writer.h"
#include "core/survey/volume_identity.h"
#include "core/transfer/plan.h"
#include "core/work/open_for_work.h"
#include "core/work/prove_transfer.h"
#include "core/work/run_transfer.h"
#include "support/mounts.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <csignal>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// A volume V with a player's list, and a place to go to.
struct Moving : PlayerCollection {
    Moving() {
        for (int i = 1; i <= 4; ++i) {
            writeFile(*this / ("V/f/" + std::to_string(i) + ".wav"), smallWav(static_cast<std::uint32_t>(i)));
        }
        writeFile(*this / "V/g/1.wav", smallWav(11));
        writeFile(list(),
                  "#EXTM3U\n# an evening\n#EXTINF:1,First\n../V/f/1.wav\n#EXTINF:1,Lost\n../V/f/gone.wav\n"
                  "#EXTINF:-1,Radio\nhttp://example.invalid/a\n# the end\n../V/g/1.wav\n../V/f/1.wav\n");
        survey("V");
        addPlayer("tern", "L");
    }
    BytePath list() const { return *this / "L/tonight.m3u8"; }

    TransferRequest request(const BytePath& to = "T") {
        TransferRequest request;
        request.choice.lists = {list()};
        request.to = *this / to;
        return request;
    }
    TransferRequest wholeVolume(const BytePath& to = "T") {
        auto all = request(to);
        all.choice = {};
        all.choice.volumes = {volume("V").id};
        return all;
    }
    TransferPlan planned(const TransferRequest& wanted) {
        read();
        RunControl control;
        auto plan = planTransfer(catalogue(), wanted, control);
        INFO((plan ? std::string() : plan.error().sentence));
        REQUIRE(plan.ok());
        return std::move(*plan);
    }
    Error refusedPlan(const TransferRequest& wanted) {
        RunControl control;
        const auto plan = planTransfer(catalogue(), wanted, control);
        REQUIRE_FALSE(plan.ok());
        return plan.error();
    }
    TransferId kept(const TransferRequest& wanted) { return *keepPlan(catalogue(), planned(wanted)); }
    TransferRun run(TransferId id, const CarryOutHooks& hooks = {}) {
        RunControl control;
        auto ran = runTransfer(catalogue(), id, control, hooks);
        INFO((ran ? std::string() : ran.error().sentence));
        REQUIRE(ran.ok());
        return std::move(*ran);
    }
    ProvenTransfer proven(TransferId id) {
        RunControl control;
        auto proof = proveTransfer(catalogue(), id, control, [](const Progress&) {});
        INFO((proof ? std::string() : proof.error().sentence));
        REQUIRE(proof.ok());
        return std::move(*proof);
    }
    TransferState state(TransferId id) { return settleTransfer(catalogue(), id)->transfer.state; }
    std::map<BytePath, std::string> at(const BytePath& folder) {
        std::map<BytePath, std::string> contents;
        for (auto& [path, content] : contentsBelow(*this / folder)) {
            contents.emplace(*relativeTo(path, *this / folder), content);
        }
        return contents;
    }
};

std::vector<std::pair<BytePath, LeftBehind>> whys(const TransferPlan& plan) {
    std::vector<std::pair<BytePath, LeftBehind>> whys;
    for (const auto& each : plan.left) {
        whys.emplace_back(each.reference, each.why);
    }
    return whys;
}

} // namespace

TEST_CASE("a list goes to another place, is proven there, and lets go of the old") {
    Moving all;
    const auto before = contentsBelow(all / "V");
    const auto plan = all.planned(all.request());
    CHECK(whys(plan) ==
          std::vector<std::pair<BytePath, LeftBehind>>{{"../V/f/gone.wav", LeftBehind::missing},
                                                       {"http://example.invalid/a", LeftBehind::stream}});
    CHECK(plan.items.size() == 2);
    CHECK(plan.inNoList.size() == 3);
    CHECK(plan.transfer.fits());
    CHECK_FALSE(isTaken(all / "T")); // a plan changes nothing
    const auto id = *keepPlan(all.catalogue(), plan);
    CHECK(releaseTransfer(all.catalogue(), id).error().cause == Cause::invalid);

    const auto ran = all.run(id);
    CHECK(ran.carried.refused.empty());
    CHECK(ran.settled.transfer.state == TransferState::copied);
    const auto there = all.at("T");
    CHECK(there.at("f/1.wav") == smallWav(1));
    CHECK(there.at("g/1.wav") == smallWav(11));
    CHECK(there.at("tonight.m3u8") ==
          "#EXTM3U\n# an evening\n#EXTINF:1,First\nf/1.wav\n# the end\ng/1.wav\nf/1.wav\n");
    CHECK(there.at("Everything.m3u8").find("g/1.wav\n") != std::string::npos);
    CHECK(there.at("What did not come.txt") ==
          "../V/f/gone.wav: it is missing\nhttp://example.invalid/a: it is no local file\n");
    CHECK(there.size() == 5);
    CHECK((contentsBelow(all / "V") == before));
    CHECK(all.survey("T").unchanged == 2); // all that is known of them came along
    CHECK(stampAt(all / "T/f/1.wav")->mtime == stampAt(all / "V/f/1.wav")->mtime);

    CHECK(releaseTransfer(all.catalogue(), id).error().cause == Cause::refused); // not proven yet
    const auto proof = all.proven(id);
    CHECK(proof.proof.holds());
    CHECK(proof.proof.playable() == 5); // three of the list, two of everything
    CHECK(all.state(id) == TransferState::proven);
    const auto checked = run({"sh", "-c",
                              "cd '" + (all / "T") + "' && sha256sum --quiet -c '" +
                                  joinPath(parentOf(proof.report), "sha256sums.txt") + "'"});
    CHECK(checked.code == 0);

    const auto released = releaseTransfer(all.catalogue(), id);
    REQUIRE(released.ok());
    CHECK(released->size() == 2);
    CHECK(all.carryOutAll().done == 2);
    CHECK_FALSE(isTaken(all / "V/f/1.wav"));
    CHECK(all.state(id) == TransferState::released);
    CHECK(readFile(all.list()).find("../T/f/1.wav") != std::string::npos); // the player's own list follows
    all.undoLast();
    CHECK((contentsBelow(all / "V") == before));
    CHECK(all.state(id) == TransferState::proven);
    all.undoLast();
    CHECK(all.at("T").empty());
    CHECK(all.state(id) == TransferState::running);
    all.run(id);
    CHECK((all.at("T") == there));
}

TEST_CASE("what changes at the new place after a proof is found by the next, and holds the old back") {
    Moving all;
    const auto id = all.kept(all.request());
    all.run(id);
    REQUIRE(all.proven(id).proof.holds());
    auto content = smallWav(1);
    content[9'000] ^= 1;
    writeFile(all / "T/f/1.wav", content);
    CHECK(releaseTransfer(all.catalogue(), id).error().sentence.find("Prove the transfer again") !=
          std::string::npos);
    fs::remove(all / "T/tonight.m3u8");
    const auto proof = all.proven(id);
    CHECK(proof.proof.wrong().size() == 2);
    CHECK(all.state(id) == TransferState::copied);
    CHECK(releaseTransfer(all.catalogue(), id).error().cause == Cause::refused);
}

TEST_CASE("a second transfer copies what is new, renews its lists and touches nothing of others") {
    Moving all;
    const auto first = all.kept(all.request());
    all.run(first);
    writeFile(all / "T/f/2.wav", "somebody's");
    writeFile(all / "T/Everything.m3u8", "changed on the device");
    writeFile(all.list(), m3u({"../V/f/2.wav", "../V/g/1.wav", "../V/f/3.wav"}));
    writeFile(all / "T/f/3.wav", smallWav(3)); // copied by hand: nobody has looked at it
    const auto plan = all.planned(all.request());
    REQUIRE(plan.noLonger.size() == 1);
    CHECK(plan.noLonger[0].first == all / "T/f/1.wav");
    REQUIRE(letRestGo(all.catalogue(), plan).ok());
    const auto waiting = *DocketStore(all.catalogue()).all();
    REQUIRE(waiting.size() == 1);
    CHECK(waiting[0].kind == ActionKind::retire);
    CHECK(waiting[0].holding == plan.noLonger[0].second);
    REQUIRE(DocketStore(all.catalogue()).clear().ok());
    std::map<BytePath, ItemState> states;
    for (const auto& item : plan.items) {
        states.emplace(item.target, item.state);
    }
    CHECK(states == std::map<BytePath, ItemState>{{"f/2 (2).wav", ItemState::waits},
                                                  {"g/1.wav", ItemState::there},
                                                  {"f/3.wav", ItemState::waits}});
    const auto ran = all.run(*keepPlan(all.catalogue(), plan));
    CHECK(ran.carried.refused.empty());
    CHECK(ran.settled.transfer.state == TransferState::copied);
    CHECK(ran.settled.count(ItemState::copied) + ran.settled.count(ItemState::there) == 3);
    const auto there = all.at("T");
    CHECK(there.at("f/2.wav") == "somebody's");
    CHECK(there.at("f/2 (2).wav") == smallWav(2));
    CHECK(there.at("tonight.m3u8") == m3u({"f/2 (2).wav", "g/1.wav", "f/3.wav"}));
    CHECK(there.at("Everything.m3u8") == "changed on the device");
    CHECK(there.contains("Everything (2).m3u8"));
    all.undoLast();
    CHECK(all.at("T").at("tonight.m3u8").find("# an evening") != std::string::npos);

    // What no transfer brought is not let go, although it is catalogued there.
    writeFile(all / "T/own.wav", smallWav(9));
    all.survey("T");
    const auto later = all.planned(all.request());
    REQUIRE(later.noLonger.size() == 1);
    CHECK(later.noLonger[0].first == all / "T/f/1.wav");
}

TEST_CASE("a source that has drifted is not copied; another with what was recorded is") {
    Moving all;
    writeFile(all / "W/spare.wav", smallWav(1));
    all.survey("W");
    const auto id = all.kept(all.wholeVolume());
    for (const auto* name : {"f/1.wav", "f/2.wav"}) {
        const auto time = fs::last_write_time(all / (std::string("V/") + name));
        auto content = readFile(all / (std::string("V/") + name));
        content[8'000] ^= 1;
        writeFile(all / (std::string("V/") + name), content);
        fs::last_write_time(all / (std::string("V/") + name), time);
    }
    const auto ran = all.run(id);
    CHECK(all.at("T").at("f/1.wav") == smallWav(1));
    CHECK_FALSE(all.at("T").contains("f/2.wav"));
    CHECK(ran.settled.count(ItemState::copied) == 4);
    REQUIRE(ran.settled.count(ItemState::failed) == 1);
    REQUIRE(ran.carried.refused.size() == 1);
    CHECK(ran.carried.refused.front().sentence.find("not what was recorded") != std::string::npos);
    CHECK_FALSE(all.proven(id).proof.holds());
}

TEST_CASE("what a list has got since it was planned is said, and waits for another plan") {
    Moving all;
    const auto id = all.kept(all.request());
    writeFile(all.list(), readFile(all.list()) + "../V/f/4.wav\n");
    const auto ran = all.run(id);
    CHECK(ran.settled.transfer.state == TransferState::copied);
    REQUIRE(ran.carried.refused.size() == 1);
    CHECK(ran.carried.refused.front().sentence.find("plan again") != std::string::npos);
    CHECK_FALSE(all.at("T").contains("f/4.wav"));
}

TEST_CASE("a file that has become another since it was planned is not copied as if it were that") {
    Moving all;
    const auto id = all.kept(all.wholeVolume());
    writeFile(all / "V/f/2.wav", smallWav(77));
    all.survey("V");
    const auto ran = all.run(id);
    REQUIRE(ran.carried.refused.size() == 1);
    CHECK(ran.carried.refused.front().sentence.find("plan again") != std::string::npos);
    CHECK(ran.settled.count(ItemState::failed) == 1);
    CHECK_FALSE(all.at("T").contains("f/2.wav"));
    CHECK(all.run(all.kept(all.wholeVolume())).settled.transfer.state == TransferState::copied);
    CHECK(all.at("T").at("f/2.wav") == smallWav(77));
}

TEST_CASE("a device that was described by hand is planned for, and not filled where it would stand") {
    Moving all;
    auto wanted = all.wholeVolume();
    wanted.room = 100'000'000;
    wanted.rules = "fat32";
    const auto plan = all.planned(wanted);
    CHECK(plan.transfer.fits());
    RunControl control;
    const auto ran = runTransfer(all.catalogue(), *keepPlan(all.catalogue(), plan), control, {});
    REQUIRE_FALSE(ran.ok());
    CHECK(ran.error().sentence.find("plan again") != std::string::npos);
    CHECK_FALSE(isTaken(all / "T"));
}

TEST_CASE("a folder takes no more names than its file system has entries for") {
    Moving all;
    // Each of five letters and an ending: one entry of FAT32 for the short name and one for the long.
    constexpr int count = 33'000;
    HoldingWriter writer(all.catalogue(), all.volume("V").id, timeNow());
    for (int i = 0; i < count; ++i) {
        FileRecord record;
        record.checksums.file.bytes = {1, static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(i >> 8)};
        writer.add("many/" + std::to_string(10'000 + i) + ".mp3", record, false);
    }
    REQUIRE(writer.commit().ok());
    auto wanted = all.wholeVolume();
    wanted.choice.volumes.clear();
    wanted.choice.folders = {{all.volume("V").id, "many"}};
    wanted.layout = "flat";
    wanted.rules = "fat32";
    const auto plan = all.planned(wanted);
    const std::size_t lists =
        3 + 3; // "Everything.m3u8" and "What did not come.txt": one short name and two long ones each
    CHECK(plan.items.size() == (65'534 - lists) / 2);
    CHECK(plan.left.size() == count - (65'534 - lists) / 2);
    CHECK(plan.left.front().why == LeftBehind::tooMany);
    // Folders take entries too, and what they hold takes none of the topmost folder's.
    wanted.layout = R"("Both" / name)";
    CHECK(all.planned(wanted).items.size() == 65'534 / 2);
}

TEST_CASE("the topmost folder of a card with FAT16 is filled as far as it goes, by another tool's word") {
    Moving all;
    constexpr int count = 300;
    HoldingWriter writer(all.catalogue(), all.volume("V").id, timeNow());
    for (int i = 0; i < count; ++i) {
        FileRecord record;
        record.checksums.file.bytes = {2, static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(i >> 8)};
        writer.add("many/a longer name " + std::to_string(1000 + i) + ".mp3", record, false);
    }
    REQUIRE(writer.commit().ok());
    auto wanted = all.wholeVolume();
    wanted.choice.volumes.clear();
    wanted.choice.folders = {{all.volume("V").id, "many"}};
    wanted.layout = "flat";
    wanted.rules = "fat16";
    const auto plan = all.planned(wanted);
    CHECK(plan.items.size() == (511 - 6) / 3); // of 22 letters: two long entries and the short one
    const auto image = all / "image";
    REQUIRE(run({"truncate", "-s", "16M", image}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "16", "-n", "CARD", image}).code == 0);
    fs::create_directories(all / "names");
    std::vector<std::string> words{"mcopy", "-i", image};
    for (const auto& item : plan.items) {
        writeFile(all / ("names/" + item.target), "x");
        words.push_back(all / ("names/" + item.target));
    }
    for (const auto& list : plan.lists) {
        writeFile(all / ("names/" + list.target), "x");
        words.push_back(all / ("names/" + list.target));
    }
    words.emplace_back("::/");
    CHECK(run(words).code == 0);
    // There is no room for two more of them.
    bool hasRoom = true;
    for (const auto* more : {"a longer name 2000.mp3", "a longer name 2001.mp3"}) {
        writeFile(all / (std::string("names/") + more), "x");
        hasRoom = run({"mcopy", "-i", image, all / (std::string("names/") + more), "::/"}).code == 0;
    }
    CHECK_FALSE(hasRoom);
}

TEST_CASE("what stands in the topmost folder counts, and what lies there already costs nothing more") {
    Moving all;
    fs::create_directories(all / "T");
    for (int i = 0; i < 250; ++i) {
        writeFile(all / ("T/" + std::to_string(10'000 + i) + ".txt"), "x");
    }
    auto wanted = all.wholeVolume();
    wanted.rules = "fat16";
    wanted.layout = "flat";
    const auto plan = all.planned(wanted);
    CHECK(plan.items.size() < 5); // 511 - 500 - 6 entries
    CHECK(std::ranges::all_of(plan.left,
                              [](const NotComing& each) { return each.why == LeftBehind::tooMany; }));
    wanted.layout = "keep"; // of the folders on the way, all the files' own
    CHECK(all.planned(wanted).items.size() > plan.items.size());
}

TEST_CASE("a player that reads no longer paths gets names that fit, and what cannot fit stays") {
    Moving all;
    writeFile(all / "V/f/a name that is far too long for such a player.wav", smallWav(60));
    writeFile(all / "V/a folder whose name alone is far too long/1.wav", smallWav(61));
    all.survey("V");
    auto wanted = all.wholeVolume();
    wanted.longestPath = 34;
    wanted.lists.places = ListWay::Places::prefixed;
    wanted.lists.prefix = "/music";
    const auto plan = all.planned(wanted);
    for (const auto& item : plan.items) {
        CHECK(lengthIn(*plan.place.rules, "/music/" + item.target) <= 34);
    }
    CHECK(std::ranges::any_of(plan.items, [](const TransferItem& item) {
        return item.target == "f/a name that is far to.wav" && !item.altered.empty();
    }));
    REQUIRE(plan.left.size() == 1);
    CHECK(plan.left.front().why == LeftBehind::pathTooLong);
    wanted.longestPath = 26;
    const auto shorter = all.planned(wanted);
    CHECK(shorter.lists.size() == 2);
    for (const auto& list : shorter.lists) { // they are read by their paths too
        CHECK(lengthIn(*plan.place.rules, "/music/" + list.target) <= 26);
    }
    CHECK(all.proven((all.run(*keepPlan(all.catalogue(), plan)), 1)).proof.holds());
}

TEST_CASE("names that are no text, differ in case or hold line breaks come to where they are, and to cards "
          "as they can") {
    Moving all;
    for (const auto* name : {"a\xFF"
                             "b.wav",
                             "line\nbreak.wav", "Case.wav", "case.wav", "what: is it?.wav"}) {
        writeFile(all / (std::string("V/names/") + name),
                  smallWav(50, 0.2 + 0.01 * static_cast<double>(name[1])));
    }
    all.survey("V");
    auto wanted = all.wholeVolume();
    all.run(all.kept(wanted));
    for (const auto& [path, content] : all.at("V")) {
        CHECK((all.at("T").at(path) == content));
    }
    CHECK(all.proven(1).proof.holds());
    const auto checked = run({"sh", "-c",
                              "cd '" + (all / "T") + "' && sha256sum --quiet -c '" +
                                  (all / "proofs/transfer-1/sha256sums.txt") + "'"});
    CHECK(checked.code == 0);
    wanted.to = all / "U";
    wanted.rules = "fat32";
    const auto plan = all.planned(wanted);
    std::set<std::string> keys;
    for (const auto& item : plan.items) {
        CHECK(keys.insert(foldedName(item.target)).second);
        CHECK_FALSE(whyNotHeld(*targetRulesNamed("fat32"), nameOf(item.target)).has_value());
    }
    all.run(*keepPlan(all.catalogue(), plan));
    CHECK(all.proven(2).proof.holds());
}

TEST_CASE("a card that does not keep what it is given is found by reading back") {
    Moving all;
    const auto id = all.kept(all.wholeVolume());
    CarryOutHooks hooks;
    bool damaged = false;
    hooks.onInstant = [&](Instant instant) {
        for (const auto& file : fs::recursive_directory_iterator(all / "T")) {
            const auto name = file.path().filename().string();
            if (!damaged && instant == Instant::made && name.starts_with(".sober-") &&
                name.ends_with(".wav")) {
                auto content = readFile(file.path());
                content.back() ^= 1;
                writeFile(file.path(), content);
                damaged = true;
            }
        }
    };
    const auto ran = all.run(id, hooks);
    REQUIRE(ran.carried.refused.size() == 1);
    CHECK(ran.carried.refused.front().sentence.find("does not keep what it is given") != std::string::npos);
    CHECK(ran.settled.count(ItemState::copied) == 4);
    CHECK(all.run(id).settled.transfer.state == TransferState::copied);
}

TEST_CASE("a stopped transfer goes on where it was") {
    Moving all;
    const auto id = all.kept(all.wholeVolume());
    RunControl control;
    CarryOutHooks hooks;
    hooks.onInstant = [&](Instant instant) {
        if (instant == Instant::made) {
            control.cancel();
        }
    };
    const auto stopped = runTransfer(all.catalogue(), id, control, hooks);
    REQUIRE(stopped.ok());
    CHECK(stopped->carried.interrupted);
    CHECK(stopped->settled.count(ItemState::copied) == 1);
    CHECK(stopped->settled.transfer.state == TransferState::running);
    CHECK_FALSE(isTaken(all / "T/Everything.m3u8")); // its lists come last
    CHECK(all.run(id).settled.transfer.state == TransferState::copied);
    CHECK(all.at("T").size() == 6);
}

TEST_CASE("places to which nothing is transferred") {
    Moving all;
    auto wanted = all.request();
    const auto to = [&](const BytePath& place) {
        wanted.to = place;
        return all.refusedPlan(wanted);
    };
    CHECK(to(all / "V/f/1.wav").cause == Cause::wrongKind);
    CHECK(to(all / "V/f/1.wav/deeper").cause == Cause::wrongKind);
    CHECK(to(homeTrash() + "/files/x").cause == Cause::refused);
    CHECK(to(all / "").sentence.find("holds the volume") != std::string::npos);
    wanted.layout = "artist /";
    CHECK(to(all / "T").cause == Cause::invalid);
    wanted.layout = "keep";
    wanted.mode = TransferMode::reorder;
    CHECK(to(all / "T").cause == Cause::invalid);
    wanted.choice = {};
    CHECK(to(all / "V").cause == Cause::invalid);
    if (getuid() == 0) {
        TestMounts mounts;
        mounts.mount({"--bind", all / "V", all / "W"});
        auto again = all.request("W");
        CHECK(all.refusedPlan(again).sentence.find("by another way") != std::string::npos);
        again.to = all / "W/deeper";
        CHECK(all.refusedPlan(again).cause == Cause::refused);
    }
    // Within its source it is only what lies elsewhere that is copied.
    const auto plan = all.planned(all.wholeVolume("V/f"));
    std::map<BytePath, ItemState> states;
    for (const auto& item : plan.items) {
        states.emplace(item.target, item.state);
    }
    CHECK(states.at("1.wav") == ItemState::there);
    CHECK(states.at("g/1.wav") == ItemState::waits);
}

TEST_CASE("a drive that is too small, or another than was planned for") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    Moving all;
    writeFile(all / "V/long.wav", smallWav(30, 40));
    all.survey("V");
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=2m", "none", all / "T"});
    const auto plan = all.planned(all.wholeVolume());
    CHECK_FALSE(plan.transfer.fits());
    CHECK(plan.transfer.peak > plan.transfer.free);
    const auto id = *keepPlan(all.catalogue(), plan);
    RunControl control;
    CHECK(runTransfer(all.catalogue(), id, control, {}).error().cause == Cause::full);
    CHECK(all.at("T").empty());
    mounts.unmount(all / "T");
    const auto elsewhere = runTransfer(all.catalogue(), all.kept(all.wholeVolume("U/x")), control, {});
    CHECK(elsewhere.ok());
    const auto gone = runTransfer(all.catalogue(), id, control, {});
    REQUIRE_FALSE(gone.ok());
    CHECK(all.at("T").empty()); // the bare mount point is no target
}

TEST_CASE("a card that is pulled in the middle, and is back") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    const int pullAt = GENERATE(2, 9);
    Moving all;
    REQUIRE(run({"truncate", "-s", "16M", all / "image"}).code == 0);
    REQUIRE(run({"mkfs.exfat", all / "image"}).code == 0);
    TestMounts mounts;
    const auto device = mounts.loop(all / "image");
    fs::create_directories(all / "T");
    REQUIRE(run({"mount.exfat-fuse", device, all / "T"}).code == 0);
    auto wanted = all.wholeVolume();
    wanted.choice.lists = {all.list()};
    const auto plan = all.planned(wanted);
    CHECK(plan.transfer.rules == "exfat");
    const auto id = *keepPlan(all.catalogue(), plan);
    CarryOutHooks hooks;
    int instants = 0;
    hooks.onInstant = [&](Instant) {
        if (++instants == pullAt) {
            run({"pkill", "-KILL", "-f", "mount.exfat-fuse.*" + (all / "T")});
            usleep(100'000);
        }
    };
    RunControl control;
    const auto pulled = runTransfer(all.catalogue(), id, control, hooks);
    CAPTURE(pullAt, instants);
    CHECK((!pulled || pulled->settled.transfer.state == TransferState::running));
    run({"umount", "-l", all / "T"});
    REQUIRE(run({"mount.exfat-fuse", device, all / "T"}).code == 0);
    all.whileClosed([&] {
        const auto opened = openForWork(all.cataloguePath());
        REQUIRE(opened.ok());
        CHECK(opened->waiting.empty());
    });
    const auto again = all.run(id);
    CHECK(again.carried.refused.empty());
    CHECK(again.settled.transfer.state == TransferState::copied);
    CHECK(all.proven(id).proof.holds());
    for (const auto& [path, content] : all.at("T")) {
        CHECK(path.find(".sober-") == BytePath::npos);
    }
    run({"umount", "-l", all / "T"});
}

TEST_CASE("a transfer onto NTFS is the same after the drive was mounted again") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    Moving all;
    writeFile(all / "V/what: is it?.wav", smallWav(60));
    writeFile(all / "V/CON.wav", smallWav(61));
    all.survey("V");
    REQUIRE(run({"truncate", "-s", "16M", all / "image"}).code == 0);
    REQUIRE(run({"mkntfs", "-F", "-q", all / "image"}).code == 0);
    const std::vector<std::string> mount{"lowntfs-3g", "-o", "ignore_case,windows_names", all / "image",
                                         all / "T"};
    fs::create_directories(all / "T");
    REQUIRE(run(mount).code == 0);
    auto wanted = all.wholeVolume();
    wanted.rules = "ntfs";
    const auto id = all.kept(wanted);
    const auto ran = all.run(id);
    CHECK(ran.carried.refused.empty());
    CHECK(all.proven(id).proof.holds());
    const auto there = all.at("T");
    unmount(all / "T");
    RunControl control;
    CHECK_FALSE(proveTransfer(all.catalogue(), id, control, [](const Progress&) {}).ok()); // it is away
    REQUIRE(run(mount).code == 0);
    CHECK((all.at("T") == there));
    CHECK(all.proven(id).proof.holds());
    CHECK(releaseTransfer(all.catalogue(), id)->size() == 7);
    CHECK(all.carryOutAll().refused.empty());
    CHECK(all.state(id) == TransferState::released);
    run({"umount", "-l", all / "T"});
}

TEST_CASE("a transfer onto FAT32, whose process does not say how much room it has, lies there by other "
          "tools' word too") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    Moving all;
    writeFile(all / "V/what: is it?.wav", smallWav(60));
    writeFile(all / "V/f/One.wav", smallWav(61));
    writeFile(all / "V/f/one.wav", smallWav(62));
    all.survey("V");
    REQUIRE(run({"truncate", "-s", "40M", all / "image"}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "32", all / "image"}).code == 0);
    fs::create_directories(all / "T");
    REQUIRE(run({"fusefat", "-o", "rw+", all / "image", all / "T"}).code == 0);
    const auto plan = all.planned(all.wholeVolume());
    CHECK(plan.transfer.rules == "fat32");
    CHECK(plan.transfer.fits());
    const auto id = *keepPlan(all.catalogue(), plan);
    const auto ran = all.run(id);
    CHECK(ran.carried.refused.empty());
    CHECK(all.proven(id).proof.holds());
    unmount(all / "T");
    for (const auto& item : plan.items) {
        CAPTURE(item.target);
        const auto copied =
            run({"mcopy", "-n", "-o", "-i", all / "image", "::/" + item.target, all / "copied"});
        INFO(copied.err);
        REQUIRE(copied.code == 0);
        const auto holding = Holdings(all.catalogue()).byIds(std::array{item.source});
        CHECK(readFile(all / "copied") == readFile(all / ("V/" + holding->front().path)));
    }
}

TEST_CASE("a drive that turns read-only in the middle, and can be written again") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    const int turnsAt = GENERATE(1, 9);
    Moving all;
    TestMounts::makeExt4(all / "image");
    TestMounts mounts;
    mounts.mount({"-o", "loop", all / "image", all / "T"});
    const auto id = all.kept(all.wholeVolume());
    CarryOutHooks hooks;
    int instants = 0;
    hooks.onInstant = [&](Instant) {
        if (++instants == turnsAt) {
            sober::test::run({"mount", "-o", "remount,ro", all / "T"});
        }
    };
    CAPTURE(turnsAt);
    const auto stopped = all.run(id, hooks);
    CHECK(stopped.settled.transfer.state != TransferState::copied);
    CHECK_FALSE(stopped.carried.refused.empty());
    REQUIRE(sober::test::run({"mount", "-o", "remount,rw", all / "T"}).code == 0);
    all.whileClosed([&] { REQUIRE(openForWork(all.cataloguePath()).ok()); });
    CHECK(all.run(id).settled.transfer.state == TransferState::copied);
    CHECK(all.proven(id).proof.holds());
    for (const auto& [path, content] : all.at("T")) {
        CHECK(path.find(".sober-") == BytePath::npos);
    }
}

TEST_CASE("a folder is put in another order by renames, chains and rounds of names too, and back") {
    Moving all;
    // 1 goes to where 2 is, 2 to where 3 is; a and b change names.
    fs::rename(all / "V/g/1.wav", all / "V/f/b.wav");
    writeFile(all / "V/f/a.wav", smallWav(12));
    all.survey("V");
    const auto before = all.at("V");
    const std::vector<std::pair<BytePath, BytePath>> wanted{{"1", "2"}, {"2", "3"}, {"3", "5"},
                                                            {"a", "b"}, {"b", "a"}, {"4", "4"}};
    Transfer transfer;
    transfer.mode = TransferMode::reorder;
    transfer.folder = all / "V/f";
    transfer.rules = "ext4";
    std::vector<TransferItem> items;
    for (const auto& [from, to] : wanted) {
        const auto holding = all.holding("V", "f/" + from + ".wav");
        items.push_back(
            {holding->id, holding->checksum, to + ".wav", holding->size, {}, {}, ItemState::waits, {}});
    }
    const auto id = *TransferStore(all.catalogue()).add(transfer, items, {}, {});
    const auto ran = all.run(id);
    CHECK(ran.carried.refused.empty());
    CHECK(ran.settled.transfer.state == TransferState::copied);
    const auto after = all.at("V");
    for (const auto& [from, to] : wanted) {
        CHECK(after.at("f/" + to + ".wav") == before.at("f/" + from + ".wav"));
    }
    CHECK(after.size() == before.size());
    CHECK(readFile(all.list()).find("../V/f/2.wav") != std::string::npos); // what was 1
    while (*lastUndoable(all.catalogue())) {
        CHECK(all.undoLast().refused.empty());
    }
    CHECK((all.at("V") == before));
}

TEST_CASE("in steps what is proven at its new place lets go of its old one") {
    Moving all;
    auto wanted = all.wholeVolume();
    wanted.choice.lists = {all.list()}; // it follows what is let go, and is not taken for changed
    wanted.mode = TransferMode::steps;
    const auto before = contentCounts({all / "V"});
    const auto id = all.kept(wanted);
    const auto ran = all.run(id);
    CHECK(ran.carried.refused.empty());
    CHECK(contentsBelow(all / "V").empty());
    for (const auto& [content, times] : before) {
        CHECK(contentCounts({all / "T"})[content] == times);
    }
    CHECK(readFile(all.list()).find("../T/f/1.wav") != std::string::npos);
    CHECK(all.proven(id).settled.transfer.state == TransferState::released);
}

TEST_CASE("what comes along is combined, and comes once") {
    Moving all;
    auto wanted = all.request();
    wanted.choice.players = {PlayerStore(all.catalogue()).all()->front().id};
    wanted.choice.folders = {{all.volume("V").id, "f"}};
    CHECK(all.planned(wanted).items.size() == 5);
    CHECK(all.planned(wanted).lists.size() == 3); // the list once, everything, what did not come
    wanted = all.request();
    wanted.choice.andUnlisted = true;
    const auto unlisted = all.planned(wanted);
    CHECK(unlisted.items.size() == 5);
    CHECK(unlisted.inNoList.empty());
    // Two copies of one recording: the keeper for both.
    writeFile(all / "V/h/again.wav", smallWav(1));
    writeFile(all.list(), m3u({"../V/f/1.wav", "../V/h/again.wav"}));
    all.survey("V");
    wanted = all.request();
    CHECK(all.planned(wanted).items.size() == 2);
    wanted.choice.keepersOnly = true;
    REQUIRE(refreshFindings(all.catalogue()).ok());
    const auto keepers = all.planned(wanted);
    REQUIRE(keepers.items.size() == 1);
    const auto target = keepers.items.front().target;
    CHECK(keepers.lists.front().content == m3u({target, target}));
    // A file on no volume, and a volume that is away.
    writeFile(all / "outside.wav", smallWav(40));
    writeFile(all.list(), m3u({"../outside.wav", "../V/f/1.wav"}));
    CHECK(whys(all.planned(all.request())) ==
          std::vector<std::pair<BytePath, LeftBehind>>{{"../outside.wav", LeftBehind::notCatalogued}});
    fs::rename(all / "V", all / "V.away");
    REQUIRE(lookForVolumes(all.catalogue()).ok());
    CHECK(whys(all.planned(all.request())).back() ==
          std::pair<BytePath, LeftBehind>{"../V/f/1.wav", LeftBehind::away});
}
