// A catalogue that is carried along on a stick: exFAT, pulled and put into another machine.
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>

#include <algorithm>
#include <array>
#include <filesystem>
#include <set>
#include <sstream>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct Carried : TempFolder {
    explicit Carried(On on = On::memory) : TempFolder(on) {
        writeFile(*this / "V/a.wav", smallWav(1, 1));
        writeFile(*this / "V/b.wav", smallWav(2, 1));
        ask(home, {"survey", *this / "V", "--effort", "full", "--keep-excerpts"});
        fs::create_directories(*this / "stick");
    }
    json ask(const BytePath& catalogue, std::vector<std::string> words,
             std::string* refused = nullptr) const {
        words.insert(words.end(), {"--json", "--quiet"});
        const auto result = sober::test::sober(catalogue, words);
        INFO(result.out << result.err);
        CHECK(result.code == (refused == nullptr ? 0 : 1));
        if (refused != nullptr) {
            *refused = result.err;
        }
        return result.out.empty() ? json() : json::parse(result.out);
    }
    std::set<std::string> names(const BytePath& place) const {
        std::set<std::string> all;
        for (const auto& entry : fs::directory_iterator(place)) {
            all.insert(entry.path().filename().string());
        }
        return all;
    }

    BytePath home = *this / "home.sqlite";
    BytePath stick = *this / "stick";
    BytePath folder = stick + "/Sober Archivist";
    BytePath carried = folder + "/catalogue.sqlite";
};

} // namespace

TEST_CASE("a catalogue is carried along, used there, and taken in at home") {
    Carried all;
    writeFile(all / "sober-archivist_0.1.0_amd64.deb", "a package, as far as this test goes");
    const auto made =
        all.ask(all.home, {"carry", all.stick, "--package", all / "sober-archivist_0.1.0_amd64.deb"});
    CHECK(made["folder"] == all.folder);
    CHECK(made["package"] == true);
    CHECK(all.names(all.stick) == std::set<std::string>{"Sober Archivist"});
    CHECK(all.names(all.folder) == std::set<std::string>{"READ ME.txt", "catalogue.sqlite",
                                                         "catalogue.sqlite.excerpts", "sober",
                                                         "sober-archivist_0.1.0_amd64.deb", "start"});
    // The drive lies at home: what is known of it, and how it sounds, is on the stick.
    fs::rename(all / "V", all / "in a cupboard");
    CHECK(all.ask(all.carried, {"find", "a.wav"})["holdings"].size() == 1);
    all.ask(all.carried, {"excerpts", "take", all / "V/a.wav", "--to", all / "a.opus"});
    CHECK(readFile(all / "a.opus").substr(0, 4) == "OggS");

    // What is found out elsewhere is not lost by carrying along again before it is taken in.
    writeFile(all / "W/c.wav", smallWav(3, 1));
    writeFile(all / "W/the same.wav", smallWav(3, 1));
    all.ask(all.carried, {"survey", all / "W"});
    std::string refused;
    all.ask(all.home, {"carry", all.stick}, &refused);
    CHECK(refused.find("knows what this one does not") != std::string::npos);
    CHECK(all.names(all.stick) == std::set<std::string>{"Sober Archivist"});
    const auto taken = all.ask(all.home, {"catalogue", "take-in", all.carried});
    CHECK(taken["taken_in"] == true);
    CHECK(taken["volumes"].size() == 2);
    CHECK(all.ask(all.home, {"find", "c.wav"})["holdings"].size() == 1);
    writeFile(all.folder + "/somebody's.txt", "not ours");
    writeFile(all.folder + "/catalogue.sqlite copy", "somebody's too");
    const auto again = all.ask(all.home, {"carry", all.stick});
    CHECK(again["left_over"] == all.folder + " before");
    CHECK(all.names(all.folder + " before") ==
          std::set<std::string>{"catalogue.sqlite copy", "somebody's.txt"});
    CHECK(all.ask(all.carried, {"find", "c.wav"})["holdings"].size() == 1);
    CHECK_FALSE(fs::exists(all.folder + "/sober-archivist_0.1.0_amd64.deb"));
    CHECK(all.ask(all.home, {"carry", all.stick})["left_over"] == "");
    // What was done from there is not lost by carrying along again either, and goes back from home.
    all.ask(all.carried, {"docket", "add", "retire", all / "W/c.wav"});
    all.ask(all.carried, {"docket", "carry-out"});
    CHECK_FALSE(fs::exists(all / "W/c.wav"));
    all.ask(all.home, {"carry", all.stick}, &refused);
    CHECK(refused.find("knows what this one does not") != std::string::npos);
    CHECK(all.ask(all.home, {"catalogue", "take-in", all.carried})["ledger"] == 1);
    CHECK(all.ask(all.home, {"carry", all.stick})["left_over"] == "");
    all.ask(all.home, {"undo", "last"});
    CHECK(fs::exists(all / "W/c.wav"));
    // What was begun there can be ended by that catalogue alone: it is kept.
    REQUIRE(run({"python3", "-c", R"py(
import sqlite3, sys
with sqlite3.connect(sys.argv[1]) as catalogue:
    entry = catalogue.execute("INSERT INTO ledger(time, kind, summary) VALUES(1, 'carry-out', '')").lastrowid
    catalogue.execute("INSERT INTO ledger_actions(entry, kind, place, aside, note, size, xxh3, step, sentence) "
                      "VALUES(?, 'retire', ?, x'', x'', 0, x'', 1, '')", (entry, sys.argv[2].encode()))
)py",
                 all.carried, all / "W/c.wav"})
                .code == 0);
    all.ask(all.home, {"catalogue", "take-in", all.carried});
    const auto kept = all.ask(all.home, {"carry", all.stick})["left_over"].get<std::string>();
    REQUIRE_FALSE(kept.empty());
    CHECK(all.ask(kept + "/catalogue.sqlite", {"find", "c.wav"})["holdings"].size() == 1);
}

TEST_CASE("the carried folder starts the program on its own catalogue, and writes nothing to the machine") {
    Carried all;
    all.ask(all.home, {"carry", all.stick});
    fs::create_directories(all / "bin");
    fs::create_symlink(SOBER_ARCHIVIST, all / "bin/sober-archivist");
    const auto start = [&](const std::string& path, const std::string& words) {
        return run({"sh", "-c",
                    "cd / && PATH=" + path + ":/usr/bin:/bin HOME=" + (all / "guest") + " XDG_RUNTIME_DIR=" +
                        (all / "run") + " QT_QPA_PLATFORM=offscreen sh '" + all.folder + "/start' " + words});
    };
    CHECK(start(all / "bin", "--version").out.starts_with("Sober Archivist "));
    fs::create_directories(all / "guest");
    fs::create_directories(all / "run");
    const auto stamp = fs::last_write_time(all.home);
    // It stays open until it is ended: the window was up by then.
    const auto ran = start(all / "bin", "& sleep 4; kill $!; wait");
    INFO(ran.err);
    CHECK(all.names(all / "guest").empty());
    CHECK(all.names(all.folder).contains("settings"));
    CHECK(fs::last_write_time(all.home) == stamp);
    // Where it is not installed, what to do is said.
    const auto missing = start("/nowhere", "");
    CHECK(missing.code == 1);
    CHECK(missing.err.find("is not installed on this machine") != std::string::npos);
}

TEST_CASE(
    "the program goes along and runs from there with what it needs, on a machine that has nothing of it") {
    Carried all(TempFolder::On::disk);
    const auto made = all.ask(all.home, {"carry", all.stick, "--program"});
    CHECK(made["program"] == true);
    CHECK(made["bytes"].get<std::uint64_t>() > 50'000'000);
    const auto terms = readFile(all.folder + "/Program/terms/libqt6core6.txt");
    CHECK(terms.find("LGPL") != std::string::npos);
    // All that the loader takes for it and its helpers lies on the stick, but for the C library, which is the
    // machine's, and what draws for nobody (Qt's "offscreen").
    writeFile(all / "W/found there.wav", smallWav(4, 1));
    writeFile(all / "try", R"sh(
unset SOBER_EVIDENCE
mkdir -m 700 guest run drawn drawn/platforms
ln -s /usr/lib/$(uname -m)-linux-gnu/qt6/plugins/platforms/libqoffscreen.so drawn/platforms
export HOME="$PWD/guest" XDG_RUNTIME_DIR="$PWD/run" PATH=/usr/bin:/bin
export QT_QPA_PLATFORM=offscreen QT_PLUGIN_PATH="$PWD/drawn" LD_DEBUG=libs LD_DEBUG_OUTPUT="$PWD/loaded"
sh "stick/Sober Archivist/sober" --quiet --json survey --effort full W >surveyed
truncate -s 1M card.img
sh "stick/Sober Archivist/sober" --quiet --json salvage scan card.img >scanned
sh "stick/Sober Archivist/start" &
sleep 4
kill $!
wait
for each in loaded.*; do
  grep -q "calling init: .*/Program/" "$each" && sed -n 's/.*calling init: //p; s|.*initialize program: .*sober|/sober|p' "$each"
done | sort -u
)sh");
    const auto ran = run({"sh", "-c", "cd '" + all.path() + "' && . ./try"});
    INFO(ran.out << ran.err);
    std::istringstream loaded(ran.out);
    std::set<std::string> ours;
    std::set<std::string> others;
    for (std::string line; std::getline(loaded, line);) {
        const auto name = fs::path(line).filename().string();
        const bool isOfTheMachine =
            std::ranges::any_of(std::array{"ld-linux", "libc.so.", "libm.so.", "libpthread.so.",
                                           "libresolv.so.", "libqoffscreen.so"},
                                [&](const char* beginning) { return name.starts_with(beginning); });
        if (line.starts_with(all.folder + "/Program/") || line.starts_with("/sober")) {
            ours.insert(name);
        } else if (!isOfTheMachine) {
            others.insert(line);
        }
    }
    for (const auto* name : {"sober", "sober-archivist", "sober-evidence", "sober-file-systems",
                             "libQt6Core.so.6", "libavcodec.so.59"}) {
        INFO(name);
        CHECK(ours.contains(name));
    }
    CHECK(others == std::set<std::string>{});
    CHECK(all.ask(all.carried, {"find", "found there"})["holdings"].size() == 1);
    all.ask(all.home, {"catalogue", "take-in", all.carried});
    // From there it goes along once more, as it is, and for the machines that it is for.
    fs::create_directories(all / "next");
    writeFile(all.folder + "/Program/machines.txt", "machines like the first");
    const auto further = run({"env", "-u", "SOBER_EVIDENCE", "sh", all.folder + "/sober", "--quiet", "carry",
                              all / "next", "--program"});
    INFO(further.err);
    CHECK(further.code == 0);
    const auto there = all / "next/Sober Archivist";
    CHECK(run({"diff", "-r", all.folder + "/Program", there + "/Program"}).code == 0);
    CHECK(readFile(there + "/READ ME.txt").find("It runs on machines like the first.") != std::string::npos);
    CHECK(run({"sh", there + "/sober", "--version"}).out.starts_with("Sober Archivist "));
    // Carried along again without it, nothing of it is left; what somebody put there is, and what a link
    // leads to.
    writeFile(all.folder + "/Program/lib/somebody's", "not ours");
    writeFile(all / "elsewhere/NotoSans-Bold.ttf", "not ours");
    fs::remove_all(all.folder + "/Program/fonts");
    fs::create_directory_symlink(all / "elsewhere", all.folder + "/Program/fonts");
    CHECK(all.ask(all.home, {"carry", all.stick})["left_over"] == all.folder + " before");
    CHECK(all.names(all.folder + " before") == std::set<std::string>{"Program"});
    CHECK(all.names(all.folder + " before/Program") == std::set<std::string>{"fonts", "lib"});
    CHECK(readFile(all / "elsewhere/NotoSans-Bold.ttf") == "not ours");
    CHECK_FALSE(fs::exists(all.folder + "/Program"));
}

TEST_CASE("nothing is left of a carrying along that has no room or no place") {
    Carried all;
    std::string why;
    all.ask(all.home, {"carry", all / "nowhere"}, &why);
    CHECK(why.find("There is no folder") != std::string::npos);
    all.ask(all.home, {"carry", all.stick, "--package", all / "V/a.wav"}, &why);
    CHECK(why.find("is no Debian package") != std::string::npos);
    fs::create_directories(all.folder);
    writeFile(all.folder + "/mine.txt", "not ours");
    all.ask(all.home, {"carry", all.stick}, &why);
    CHECK(all.names(all.folder) == std::set<std::string>{"mine.txt"});
    fs::remove_all(all.folder);
    // Whatever fails while the program is written.
    for (const auto* fault : {"FAILING_CALL=write FAILING_NTH=60 FAILING_HOW=ENOSPC",
                              "FAILING_CALL=open FAILING_NTH=80 FAILING_HOW=EIO",
                              "FAILING_CALL=fsync FAILING_NTH=3 FAILING_HOW=EIO"}) {
        INFO(fault);
        const auto failed = run({"sh", "-c",
                                 std::string("LD_PRELOAD=") + FAILING_CALLS + " FAILING_BELOW=" + all.stick +
                                     "/ " + fault + " exec " + SOBER_PROGRAM + " --quiet --catalogue " +
                                     all.home + " carry " + all.stick + " --program"});
        CHECK(failed.code == 1);
        INFO(failed.err);
        CHECK(all.names(all.stick).empty());
    }
    if (canMount()) {
        TestMounts mounts;
        mounts.mount({"-t", "tmpfs", "-o", "size=200k", "none", all / "small"});
        all.ask(all.home, {"carry", all / "small"}, &why);
        CHECK(why.find("has no room for it") != std::string::npos);
        CHECK(all.names(all / "small").empty());
    }
}

TEST_CASE("a catalogue on a stick follows the stick from machine to machine") {
    const bool canUseCards =
        canMount() && run({"sh", "-c", "test -c /dev/fuse && command -v mount.exfat-fuse"}).code == 0;
    if (!canUseCards) {
        WARN("no exFAT here");
        return;
    }
    Carried all;
    TestMounts mounts;
    REQUIRE(run({"truncate", "-s", "64M", all / "image"}).code == 0);
    REQUIRE(run({"mkfs.exfat", all / "image"}).code == 0);
    const auto device = mounts.loop(all / "image");
    const auto insert = [&](const BytePath& where) {
        fs::create_directories(where);
        REQUIRE(run({"mount.exfat-fuse", device, where}).code == 0);
    };
    insert(all / "here");
    writeFile(all / "here/MUSIC/song.wav", smallWav(5, 1));
    all.ask(all.home, {"survey", all / "here/MUSIC"});
    all.ask(all.home, {"carry", all / "here"});
    unmount(all / "here");
    insert(all / "there");
    const auto carried = all / "there/Sober Archivist/catalogue.sqlite";
    // The music on the stick is where the stick is now; a survey there is kept there.
    writeFile(all / "there/MUSIC/another.wav", smallWav(6, 1));
    const auto surveyed = all.ask(carried, {"survey", all / "there/MUSIC"});
    CHECK(surveyed["added"] == 1);
    CHECK(surveyed["unchanged"] == 1);
    unmount(all / "there");
    insert(all / "here");
    all.ask(all.home, {"catalogue", "take-in", all / "here/Sober Archivist/catalogue.sqlite"});
    const auto found = all.ask(all.home, {"find", "another"});
    REQUIRE(found["holdings"].size() == 1);
    CHECK(found["holdings"][0]["path"] == all / "here/MUSIC/another.wav");
    unmount(all / "here");
}
