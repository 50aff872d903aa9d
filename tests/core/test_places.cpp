// Mounts, trash folders and names as the program sees them.
#include "core/base/mounts.h"
#include "core/base/text.h"
#include "core/base/trash_places.h"
#include "core/base/user_folders.h"
#include "core/catalogue/docket_store.h"
#include "core/survey/volume_identity.h"
#include "core/survey/walk.h"
#include "support/collection.h"
#include "support/mounts.h"
#include "support/small_audio.h"

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("where a path lies within its file system, whatever of it is mounted where") {
    // The form of proc(5), its section on /proc/pid/mountinfo.
    const auto mounts = parseMountInfo("22 1 8:1 / / rw - ext4 /dev/sda1 rw\n"
                                       "30 22 8:17 / /media/card rw - ext4 /dev/sdb1 rw\n"
                                       "31 22 8:17 /Music /home/me/music rw - ext4 /dev/sdb1 rw\n"
                                       "32 22 0:40 /@home /home rw - btrfs /dev/sdc rw\n"
                                       "33 22 8:17 /a\\040b /mnt/with\\040blank rw - ext4 /dev/sdb1 rw\n"
                                       "rubbish\n");
    REQUIRE(mounts.size() == 5);
    CHECK(mounts[1].id == 30);
    struct Row {
        BytePath path;
        const char* device;
        BytePath inner;
    };
    for (const auto& row : std::vector<Row>{{"/media/card/Music/x.wav", "8:17", "/Music/x.wav"},
                                            {"/home/me/music/x.wav", "8:17", "/Music/x.wav"},
                                            {"/home/me/music", "8:17", "/Music"},
                                            {"/home/me/other", "0:40", "/@home/me/other"},
                                            {"/mnt/with blank/y", "8:17", "/a b/y"},
                                            {"/etc/x", "8:1", "/etc/x"},
                                            {"/", "8:1", "/"}}) {
        CAPTURE(row.path);
        const auto place = innerPlaceOf(mounts, row.path);
        REQUIRE(place);
        CHECK(place->device == row.device);
        CHECK(place->path == row.inner);
    }
    CHECK(innerPlaceOf(mounts, "/media/card/Music/x.wav") == innerPlaceOf(mounts, "/home/me/music/x.wav"));
    CHECK_FALSE(innerPlaceOf(std::vector<Mount>{}, "/x"));
}

TEST_CASE("a second way to a volume at hand is told, what stands apart is not") {
    const auto mounts = parseMountInfo("22 1 8:1 / / rw - ext4 none rw\n"
                                       "30 22 8:17 / /media/card rw - ext4 none rw\n"
                                       "31 22 8:17 /Music /home/me/music rw - ext4 none rw\n"
                                       "34 22 8:17 /Speech /home/me/speech rw - ext4 none rw\n");
    std::vector<Volume> volumes(1);
    volumes[0].label = "CARD";
    volumes[0].root = "/media/card/Music";
    CHECK(sameByAnotherWay(volumes, "/home/me/music", mounts) == &volumes[0]);
    CHECK(sameByAnotherWay(volumes, "/home/me/music/deep", mounts) == &volumes[0]);
    CHECK(sameByAnotherWay(volumes, "/home/me/speech", mounts) == nullptr);
    CHECK(sameByAnotherWay(volumes, "/media/card/Music/deep", mounts) == nullptr); // told by their roots
    volumes[0].atHand = false;
    CHECK(sameByAnotherWay(volumes, "/home/me/music", mounts) == nullptr);
}

TEST_CASE("what lies in a trash is known by every way") {
    const TempFolder folder;
    writeFile(folder / "home/Trash/files/a.wav", "1");
    fs::create_directories(folder / "home/Trash/info");
    writeFile(folder / "music/Trash/a.wav", "1"); // a band of that name
    writeFile(folder / "card/.Trash-1000/files/a.wav", "1");
    writeFile(folder / "card/.Trashes/501/a.wav", "1");
    writeFile(folder / "card/$RECYCLE.BIN/a.wav", "1");
    fs::create_directory_symlink(folder / "home/Trash/files", folder / "music/old");
    for (const auto& [path, expected] : std::map<BytePath, bool>{{"home/Trash/files/a.wav", true},
                                                                 {"home/Trash", true},
                                                                 {"music/Trash/a.wav", false},
                                                                 {"card/.Trash-1000/files/a.wav", true},
                                                                 {"card/.Trashes/501/a.wav", true},
                                                                 {"card/$RECYCLE.BIN/a.wav", true},
                                                                 {"music/old/a.wav", true},
                                                                 {"music", false},
                                                                 {"card", false}}) {
        CAPTURE(path);
        CHECK(isInTrash(folder / path) == expected);
    }
}

TEST_CASE("what is mounted while somebody watches is known at once") {
    const TempFolder folder;
    TestMounts mounts;
    MountWatch watch;
    const auto isMounted = [&](const BytePath& path) {
        return std::ranges::find(watch.now(), path, &Mount::point) != watch.now().end();
    };
    CHECK(isMounted("/"));
    for (const auto* name : {"one", "two"}) {
        CHECK_FALSE(isMounted(folder / name));
        mounts.mount({"-t", "tmpfs", "none", folder / name});
        CHECK(isMounted(folder / name));
    }
    mounts.unmount(folder / "one");
    CHECK_FALSE(isMounted(folder / "one"));
    CHECK(isMounted(folder / "two"));
}

TEST_CASE("choices leave out by pattern, size, depth, hidden names and links, wherever in the path") {
    const TempFolder folder;
    writeFile(folder / "real/a.wav", "1");
    fs::create_directory_symlink("real", folder / "way");
    struct Row {
        SurveyChoices choices;
        BytePath path;
        std::uint64_t size;
        bool out;
    };
    const auto with = [](auto change) {
        SurveyChoices choices;
        change(choices);
        return choices;
    };
    const std::vector<Row> rows{
        {{}, "a/b.wav", 10, false},
        {with([](auto& c) { c.leavePatterns = {"b*"}; }), "a/b.wav", 10, true},
        {with([](auto& c) { c.leavePatterns = {"a"}; }), "a/b.wav", 10, true},
        {with([](auto& c) { c.leavePatterns = {"a/b.wav"}; }), "a/b.wav", 10, true},
        {with([](auto& c) { c.leavePatterns = {"c"}; }), "a/b.wav", 10, false},
        {with([](auto& c) { c.leaveHidden = true; }), "a/.b/c.wav", 10, true},
        {with([](auto& c) { c.leaveHidden = true; }), "a/b.c.wav", 10, false},
        {with([](auto& c) { c.minSize = 11; }), "a", 10, true},
        {with([](auto& c) { c.minSize = 10; }), "a", 10, false},
        {with([](auto& c) { c.maxSize = 9; }), "a", 10, true},
        {with([](auto& c) { c.maxDepth = 1; }), "a/b.wav", 10, true},
        {with([](auto& c) { c.maxDepth = 2; }), "a/b.wav", 10, false},
        {{}, "way/a.wav", 1, true},
        {with([](auto& c) { c.followLinks = true; }), "way/a.wav", 1, false},
    };
    for (const auto& row : rows) {
        CAPTURE(row.path, row.size);
        CHECK(isLeftOut(row.choices, folder.path(), row.path, row.size) == row.out);
    }
}

TEST_CASE("what is shown to a person turns no direction and steers no terminal") {
    struct Row {
        std::string bytes;
        std::string shown;
        std::string lines;
    };
    // UAX #9, section 2: the explicit directional characters; ISO/IEC 6429: the second set of control
    // characters.
    for (const auto& row : std::vector<Row>{{"plain", "plain", "plain"},
                                            {"a\nb", "a\u2424b", "a\nb"},
                                            {"a\x1b[1m", "a\u241B[1m", "a\u241B[1m"},
                                            {"a\x7f", "a\u2421", "a\u2421"},
                                            {"\u202Egnp", "%E2%80%AEgnp", "%E2%80%AEgnp"},
                                            {"\u2066x\u2069", "%E2%81%A6x%E2%81%A9", "%E2%81%A6x%E2%81%A9"},
                                            {"\u200F\u061C", "%E2%80%8F%D8%9C", "%E2%80%8F%D8%9C"},
                                            {"\u0085", "%C2%85", "%C2%85"},
                                            {"\u00e9\u05d0", "\u00e9\u05d0", "\u00e9\u05d0"},
                                            {"\xff", "%FF", "%FF"}}) {
        CAPTURE(row.shown);
        // A line end is shown by its own symbol.
        CHECK(displayPath(row.bytes) == (row.bytes == "a\nb" ? "a\u240Ab" : row.shown));
        CHECK(displayLines(row.bytes) == row.lines);
    }
}

TEST_CASE("bytes that are no UTF-8 can be had back from their form in JSON") {
    for (const std::string bytes :
         {"plain", "100%", "100%\xff", "%FF\xff", "\xc3", "\u00e9\xe9%", "\xf0\x9f%2"}) {
        const auto encoded = percentEncodeOffending(bytes);
        CHECK(isUtf8(encoded));
        std::string back;
        if (isUtf8(bytes)) {
            back = encoded;
        } else {
            for (std::size_t at = 0; at < encoded.size(); ++at) {
                if (encoded[at] == '%') {
                    back += static_cast<char>(std::stoi(encoded.substr(at + 1, 2), nullptr, 16));
                    at += 2;
                } else {
                    back += encoded[at];
                }
            }
        }
        CHECK(back == bytes);
    }
}

TEST_CASE("letters that ISO 8859-1 has are written in it, others are not") {
    CHECK(asLatin1("plain") == "plain");
    CHECK(asLatin1("Caf\u00e9") == "Caf\xe9");
    CHECK(asLatin1("\u00ff\u00a0") == "\xff\xa0");
    CHECK(asLatin1("raw \xe9") == "raw \xe9");
    CHECK_FALSE(asLatin1("\u0100"));
    CHECK_FALSE(asLatin1("\u0414\u043e\u043c"));
}

TEST_CASE("a consent stands on its line until the line is said anew, and lines go one by one") {
    Collection collection;
    for (const auto* name : {"a.wav", "b.wav", "c.wav"}) {
        writeFile(collection / ("V/" + std::string(name)), smallWav(1));
    }
    collection.survey("V");
    const DocketStore store(collection.catalogue());
    for (const auto* name : {"a.wav", "b.wav", "c.wav"}) {
        collection.putOnDocket(ActionKind::retire, "V", name);
    }
    const auto first = collection.holding("V", "a.wav")->id;
    REQUIRE(store.consent(first, "lossless").ok());
    CHECK(store.all()->front().consent == "lossless");
    collection.putOnDocket(ActionKind::retire, "V", "a.wav");
    CHECK(store.all()->front().consent.empty());
    const auto lines = *store.all();
    CHECK(*store.removeActions(std::vector{lines[1].id, ActionId{999}}) == 1);
    REQUIRE(store.all()->size() == 2);
    CHECK(store.all()->back().holding == lines[2].holding);
}

TEST_CASE("what is mounted within a volume is remembered with its identity") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    const Volumes volumes(collection.catalogue());
    const auto volume = collection.volume("V");
    CHECK(volumes.innerMounts(volume.id)->empty());
    const std::vector<Volumes::InnerMount> inner{{"card", {"0123-4567", {}, 1, "vfat"}, true},
                                                 {"disk", {"uuid", {}, 2, "ext4"}, false}};
    REQUIRE(volumes.setInnerMounts(volume.id, inner).ok());
    const auto known = *volumes.innerMounts(volume.id);
    REQUIRE(known.size() == 2);
    CHECK(known[0].path == "card");
    CHECK(known[0].identity.filesystem == "0123-4567");
    CHECK(known[0].identity.filesystemType == "vfat");
    CHECK(known[0].away);
    const auto now = collection.volume("V");
    CHECK_FALSE(now.reaches("card/x.wav"));
    CHECK(now.reaches("cards/x.wav"));
    CHECK(now.reaches("disk/x.wav"));
}
