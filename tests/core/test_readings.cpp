// A location that resolves by whichever of its readings still resolves after what it leads to was moved or
// retired, and is written in its list's own letters.
#include "core/audit/plan_places.h"
#include "core/base/user_folders.h"
#include "core/remedy/docket/list_differences.h"
#include "support/player_collection.h"
#include "support/small_audio.h"

#include <sys/stat.h>

#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct Reading {
    std::string what;
    BytePath file;        ///< below V
    std::string location; ///< as the list has it; LIST stands for the collection's folder
    std::string ending = "m3u";
};

const std::vector<Reading> readings{
    {"as it is", "sub/a song.wav", "sub/a song.wav"},
    {"absolute", "sub/a song.wav", "V/sub/a song.wav"},
    {"parted by backslashes", "sub/a song.wav", "sub\\a song.wav"},
    {"parted by both", "sub/deep/a.wav", "sub/deep\\a.wav"},
    {"in ISO 8859-1", "sub/Caf\xC3\xA9.wav", "sub/Caf\xE9.wav"},
    {"in UTF-8", "sub/Caf\xC3\xA9.wav", "sub/Caf\xC3\xA9.wav", "m3u8"},
    {"with percent signs that are meant", "sub/50%25 off.wav", "sub/50%25 off.wav"},
    {"with another letter case", "sub/Song.wav", "sub/SONG.WAV"},
    {"decomposed", "sub/Caf\xC3\xA9.wav", "sub/Cafe\xCC\x81.wav"},
    {"with a blank at its end", "sub/a.wav", "sub/a.wav "},
    {"of a name that ends in a blank", "sub/a.wav ", "sub/a.wav "},
    {"of a name that begins with a hash", "#one.wav", "./#one.wav"},
    {"of a name with a drive's colon", "C:\\x.wav", "./C:\\x.wav"},
};

struct Read : PlayerCollection {
    explicit Read(const Reading& reading, const std::string& target) {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        writeFile(*this / ("V/" + reading.file), smallWav(1));
        writeFile(*this / ("V/" + target), smallWav(1));
        survey("V");
        list = *this / ("V/list." + reading.ending);
        const auto location =
            reading.location.starts_with("V/") ? *this / reading.location : reading.location;
        before = m3u({location, "http://x.example/\xE9"});
        if (reading.ending == "m3u8") {
            before = m3u({location});
        }
        writeFile(list, before);
        addPlayer("player", "V/list." + reading.ending);
    }
    bool leadsSomewhere() {
        read();
        const auto references = PlayerStore(catalogue()).references();
        return references->front().state == ReferenceState::resolved ||
               references->front().state == ReferenceState::loosely;
    }
    BytePath leadsTo() { return PlayerStore(catalogue()).references()->front().path; }

    BytePath list;
    std::string before;
};

} // namespace

TEST_CASE("whichever reading resolves, the reference follows a move and a retirement, and back") {
    const auto target =
        GENERATE(as<std::string>(), "new/plain.wav", "new/\xC3\xBC.wav", "new/#odd.wav", "x:y.wav");
    for (const auto& reading : readings) {
        for (const bool moves : {true, false}) {
            CAPTURE(reading.what, target, moves);
            Read all(reading, moves ? "another.wav" : target);
            REQUIRE(all.leadsSomewhere());
            REQUIRE(all.leadsTo() == all / ("V/" + reading.file));
            if (moves) {
                REQUIRE(
                    planMove(all.catalogue(), all / ("V/" + reading.file), all / ("V/" + target), "").ok());
            } else {
                all.putOnDocket(ActionKind::retire, "V", reading.file);
            }
            const auto carried = all.carryOutAll();
            INFO((carried.refused.empty() ? std::string() : carried.refused.front().sentence));
            CHECK(carried.done == 1);
            CHECK(carried.references == 1);
            CHECK(all.leadsSomewhere());
            CHECK(all.leadsTo() == all / ("V/" + target));
            const auto text = readFile(all.list);
            // Its letters beyond ASCII are all of one kind still.
            CHECK((reading.ending == "m3u8" || text.find("\xC3") == std::string::npos ||
                   reading.location.find("\xC3") != std::string::npos ||
                   reading.location.find("\xCC") != std::string::npos));
            CHECK(all.undoLast().done >= 1);
            CHECK(readFile(all.list) == all.before);
            CHECK(all.leadsSomewhere());
        }
    }
}

TEST_CASE("a name that a list's letters cannot say stays where it is") {
    Read all({"", "a.wav", "a.wav"}, "b.wav");
    REQUIRE(planMove(all.catalogue(), all / "V/a.wav", all / "V/\xD0\x94\xD0\xBE\xD0\xBC.wav", "").ok());
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 0);
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("ISO 8859-1") != std::string::npos);
    CHECK(isTaken(all / "V/a.wav"));
    CHECK(readFile(all.list) == all.before);
}

TEST_CASE("lists that end their lines with a carriage return alone are read and written so") {
    Read all({"", "a.wav", "a.wav"}, "b.wav");
    const std::string text = "#EXTM3U\r#EXTINF:1,A\ra.wav\rb.wav\r";
    writeFile(all.list, text);
    all.read();
    CHECK(PlayerStore(all.catalogue()).references()->size() == 2);
    REQUIRE(planMove(all.catalogue(), all / "V/a.wav", all / "V/c.wav", "").ok());
    CHECK(all.carryOutAll().done == 1);
    CHECK(readFile(all.list) == "#EXTM3U\r#EXTINF:1,A\rc.wav\rb.wav\r");
}

TEST_CASE("the first line of a list is not taken for the mark of an encoding") {
    Read all({"", "a.wav", "a.wav", "m3u8"}, "b.wav");
    writeFile(all.list, "a.wav\n");
    all.read();
    REQUIRE(planMove(all.catalogue(), all / "V/a.wav", all / "V/\xEF\xBB\xBFodd.wav", "").ok());
    CHECK(all.carryOutAll().done == 1);
    all.read();
    CHECK(all.leadsSomewhere());
    CHECK(all.leadsTo() == all / "V/\xEF\xBB\xBFodd.wav");
}

TEST_CASE("a list keeps its owner, and one with several names is left as it is") {
    Read all({"", "a.wav", "a.wav"}, "b.wav");
    if (geteuid() == 0) {
        REQUIRE(chown(all.list.c_str(), 1234, 2345) == 0);
        all.putOnDocket(ActionKind::retire, "V", "a.wav");
        CHECK(all.carryOutAll().done == 1);
        struct stat status {};
        REQUIRE(stat(all.list.c_str(), &status) == 0);
        CHECK(status.st_uid == 1234);
        CHECK(status.st_gid == 2345);
        CHECK(all.undoLast().done >= 1);
    } else {
        WARN("not run: only root can give a file away");
    }
    fs::create_hard_link(all.list, all / "V/same list.m3u");
    all.read();
    all.putOnDocket(ActionKind::retire, "V", "a.wav");
    const auto carried = all.carryOutAll();
    CHECK(carried.done == 0);
    REQUIRE(carried.refused.size() == 1);
    CHECK(carried.refused.front().sentence.find("several names") != std::string::npos);
    CHECK(readFile(all / "V/same list.m3u") == all.before);
    CHECK(fs::hard_link_count(all.list) == 2);
}

TEST_CASE("what a player writes in the last instant before the exchange stays its player's") {
    Read all({"", "a.wav", "a.wav"}, "b.wav");
    all.putOnDocket(ActionKind::retire, "V", "a.wav");
    const std::string theirs = all.before + "b.wav\n";
    RunControl control;
    CarryOutHooks hooks;
    bool written = false;
    hooks.onInstant = [&](Instant instant) {
        // The list is exchanged already when this is heard: the player wrote what comes out.
        if (instant == Instant::replaced && !written) {
            written = true;
            for (const auto& entry : fs::directory_iterator(all / "V")) {
                if (entry.path().filename().native().starts_with(".sober-")) {
                    writeFile(entry.path().native(), theirs);
                }
            }
        }
    };
    const auto carried = carryOut(all.catalogue(), control, hooks);
    REQUIRE(carried.ok());
    CHECK(written);
    CHECK(carried->done == 0);
    CHECK(readFile(all.list) == theirs);
    CHECK(isTaken(all / "V/a.wav"));
    CHECK(all.leadsSomewhere());
}
