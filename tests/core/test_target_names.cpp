#include "core/base/text.h"
#include "core/transfer/target_names.h"
#include "support/mounts.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <fcntl.h>
#include <filesystem>
#include <fstream>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const TargetRules& rulesOf(std::string_view word) {
    const auto* rules = targetRulesNamed(word);
    REQUIRE(rules != nullptr);
    return *rules;
}

/// Names that one file system or another does not hold, and some that all hold; no two alike whatever the
/// case.
std::vector<std::string> hardNames() {
    std::vector<std::string> names{"plain",
                                   "Suite: Prelude",
                                   "What? Where*",
                                   "a<b>c|d\\e",
                                   "\"quoted\"",
                                   "ends in a dot.",
                                   "ends in a space ",
                                   "dots...",
                                   "con",
                                   "NUL.old",
                                   "lpt1",
                                   "COM\u00b9",
                                   "com10",
                                   "tab\there",
                                   "line\nbreak",
                                   "caf\u00e9 concert",
                                   "decomposed cafe\u0301",
                                   "\u0414\u043e\u043c",
                                   "clef \U0001D11E",
                                   "latin \xE9 one",
                                   "semi;colon",
                                   "[brackets] +=,",
                                   ".hidden",
                                   "%41",
                                   "~tilde"};
    names.push_back(std::string(251, 'x'));
    names.push_back(std::string(300, 'y'));
    std::string wide;
    for (int i = 0; i < 90; ++i) {
        wide += "\U0001D11E";
    }
    names.push_back(wide + wide);
    std::string cyrillic;
    for (int i = 0; i < 200; ++i) {
        cyrillic += "\u0416";
    }
    names.push_back(cyrillic);
    return names;
}

std::vector<TargetName> plannedFor(const TargetRules& rules) {
    std::vector<TargetName> names;
    for (const auto& stem : hardNames()) {
        names.push_back({{}, stem, "wav", {}, {}, {}, {}});
    }
    fitAll(rules, usualReplacements(), names, [](const BytePath&, std::size_t) { return false; });
    return names;
}

} // namespace

TEST_CASE("a name is altered only where the target cannot hold it, and says why") {
    const struct {
        const char* rules;
        std::string stem;
        std::string name;
        std::string why;
    } rows[] = {
        {"fat32", "Evening Hymn", "Evening Hymn.flac", ""},
        {"fat32", "Suite: Prelude", "Suite- Prelude.flac", "it holds \":\""},
        {"fat32", "What?", "What.flac", "it holds \"?\""},
        {"ext4", "What?", "What?.flac", ""},
        {"ext4", "latin \xE9", "latin \xE9.flac", ""},
        {"ntfs", "latin \xE9", "latin \u00e9.flac", "it holds bytes that are no text"},
        {"exfat", "con", "con_.flac", "it is the name of a device there"},
        {"exfat", "Con.cert", "Con_.cert.flac", "it is the name of a device there"},
        {"exfat", "concert", "concert.flac", ""},
        {"iso9660", "clef \U0001D11E", "clef _.flac",
         "it holds a character beyond the basic plane of Unicode"},
        {"iso9660", std::string(70, 'x'), std::string(59, 'x') + ".flac", "it is 75 long, 64 are allowed"},
        {"ext4", std::string(260, 'x'), std::string(250, 'x') + ".flac", "it is 265 long, 255 are allowed"},
    };
    for (const auto& row : rows) {
        CAPTURE(row.rules, row.stem);
        const auto fitted = fitName(rulesOf(row.rules), usualReplacements(), row.stem, "flac");
        CHECK(fitted.name == row.name);
        CHECK(fitted.why == row.why);
    }
    // Folders have no ending that would keep a dot or a space from being the last.
    for (const auto& [folder, name] : {std::pair("Vol. 1.", "Vol. 1"),
                                       {"what next? ", "what next"},
                                       {"...", "_"},
                                       {"??", "_"},
                                       {"aux", "aux_"}}) {
        CHECK(fitName(rulesOf("fat32"), usualReplacements(), folder, "").name == name);
    }
    CHECK(fitName(rulesOf("ext4"), usualReplacements(), "..", "").name == "_");
    // Characters are never cut in the middle.

    std::string cyrillic;
    for (int i = 0; i < 200; ++i) {
        cyrillic += "\u0416";
    }
    const auto cut = fitName(rulesOf("ext4"), usualReplacements(), cyrillic, "flac");
    CHECK(isUtf8(cut.name));
    CHECK(cut.name.size() == 255);
    CHECK(fitName(rulesOf("fat32"), usualReplacements(), cyrillic, "flac").why.empty()); // 200 units
}

TEST_CASE("what would be one file is told apart by what differs") {
    const auto& fat = rulesOf("fat32");
    const auto fit = [&](std::vector<TargetName> names, const std::set<BytePath>& there = {}) {
        fitAll(fat, usualReplacements(), names,
               [&](const BytePath& path, std::size_t) { return there.contains(path); });
        std::vector<std::string> fitted;
        for (const auto& name : names) {
            fitted.push_back(pathOf(name));
        }
        return fitted;
    };
    using Names = std::vector<std::string>;
    CHECK(fit({{"", "01", "mp3", "1", "A", "1970", {}}, {"", "01", "mp3", "2", "A", "1970", {}}}) ==
          Names{"01 (disc 1).mp3", "01 (disc 2).mp3"});
    CHECK(
        fit({{"", "01", "mp3", "", "Tides", "1970", {}}, {"", "01", "mp3", "", "Ebb: again", "1970", {}}}) ==
        Names{"01 (Tides).mp3", "01 (Ebb- again).mp3"});
    CHECK(fit({{"", "01", "mp3", "", "Tides", "1970", {}}, {"", "01", "mp3", "", "Tides", "1971", {}}}) ==
          Names{"01 (1970).mp3", "01 (1971).mp3"});
    CHECK(fit({{"", "x", "mp3", "", "", "", {}},
               {"", "X", "mp3", "", "", "", {}},
               {"", "x", "mp3", "", "", "", {}}}) == Names{"x.mp3", "X (2).mp3", "x (3).mp3"});
    CHECK(fit({{"A", "x", "mp3", "", "", "", {}}, {"B", "x", "mp3", "", "", "", {}}}) ==
          Names{"A/x.mp3", "B/x.mp3"});
    // In letter case, normalisation or what was replaced only.
    CHECK(fit({{"", "caf\u00e9", "mp3", "", "", "", {}}, {"", "CAFE\u0301", "mp3", "", "", "", {}}})[1] ==
          "CAFE\u0301 (2).mp3");
    CHECK(fit({{"", "a:b", "mp3", "", "", "", {}}, {"", "a-b", "mp3", "", "", "", {}}}) ==
          Names{"a-b.mp3", "a-b (2).mp3"});
    // What stands there stays, and a number that is used is not used again.
    CHECK(fit({{"", "x", "mp3", "", "", "", {}}}, {"x.mp3", "x (2).mp3"}) == Names{"x (3).mp3"});
    CHECK(fit({{"", "x", "mp3", "", "", "", {}},
               {"", "x (2)", "mp3", "", "", "", {}},
               {"", "x", "mp3", "", "", "", {}}}) == Names{"x.mp3", "x (2).mp3", "x (3).mp3"});
    // By an album that is too long to be told: a number is left.
    const std::string longAlbum(400, 'a');
    CHECK(
        fit({{"", "x", "mp3", "", longAlbum + "1", "", {}}, {"", "x", "mp3", "", longAlbum + "2", "", {}}})[1]
            .ends_with(" (2).mp3"));
    // A thousand of one name, too long for their numbers.
    std::vector<TargetName> many(1000, TargetName{"", std::string(300, 'n'), "mp3", "", "", "", {}});
    const auto fitted = fit(many);
    CHECK(std::set<std::string>(fitted.begin(), fitted.end()).size() == 1000);
    for (const auto& name : fitted) {
        CHECK_FALSE(whyNotHeld(fat, name).has_value());
    }
}

TEST_CASE("every name that is planned is made on the real file system as it was planned") {
    if (!canMount() ||
        run({"sh", "-c", "test -c /dev/fuse && command -v mount.exfat-fuse ntfs-3g"}).code != 0) {
        WARN("not run: file systems cannot be mounted here");
        return;
    }
    const struct {
        const char* rules;
        std::vector<std::string> make;
        std::vector<std::string> mount;
        bool needsLoop;
    } rows[] = {{"exfat", {"mkfs.exfat"}, {"mount.exfat-fuse"}, true},
                {"ntfs", {"mkntfs", "-F", "-q"}, {"ntfs-3g", "-o", "windows_names"}, false},
                {"ext4", {"mkfs.ext4", "-q"}, {"mount", "-o", "loop"}, false}};
    for (const auto& row : rows) {
        CAPTURE(row.rules);
        const TempFolder folder(TempFolder::On::disk);
        TestMounts mounts;
        const auto image = folder / "image";
        REQUIRE(run({"truncate", "-s", "32M", image}).code == 0);
        auto make = row.make;
        make.push_back(image);
        REQUIRE(run(make).code == 0);
        const auto point = folder / "point";
        fs::create_directories(point);
        auto mount = row.mount;
        mount.push_back(row.needsLoop ? mounts.loop(image) : image);
        mount.push_back(point);
        const auto mounted = run(mount);
        INFO(mounted.err);
        REQUIRE(mounted.code == 0);
        std::set<std::string> planned;
        for (const auto& name : plannedFor(rulesOf(row.rules))) {
            CAPTURE(name.fitted.name);
            planned.insert(name.fitted.name);
            std::ofstream made(joinPath(point, name.fitted.name));
            made << "x";
            made.close();
            CHECK(made.good());
        }
        std::set<std::string> there;
        for (const auto& entry : fs::directory_iterator(point)) {
            if (entry.path().filename() != "lost+found") {
                there.insert(entry.path().filename().string());
            }
        }
        CHECK(planned.size() == hardNames().size());
        CHECK(there == planned);
        unmount(point);
    }
}

TEST_CASE("names for FAT and for ISO images are taken by the tools that write them, none altered") {
    if (run({"sh", "-c", "command -v mkfs.fat mcopy mdir xorriso bsdtar"}).code != 0) {
        WARN("not run: dosfstools, mtools, xorriso and bsdtar are not here");
        return;
    }
    const TempFolder folder;
    writeFile(folder / "x", "x");
    const auto inUtf8 = [](std::vector<std::string> words) {
        words.insert(words.begin(), {"env", "LC_ALL=C.UTF-8"});
        const auto done = run(words);
        INFO(done.err);
        CHECK(done.code == 0);
        return done.out;
    };
    for (const std::string word : {"fat32", "iso9660"}) {
        CAPTURE(word);
        const auto image = folder / (word + ".img");
        std::set<std::string> planned;
        std::vector<std::string> maps{"xorriso", "-outdev", "stdio:" + image, "-joliet", "on"};
        if (word == "fat32") {
            inUtf8({"truncate", "-s", "64M", image});
            inUtf8({"mkfs.fat", "-F", "32", "-s", "1",
                    image}); // so small an image is FAT32 by small clusters only
            inUtf8({"mmd", "-i", image, "::/d"});
        }
        for (const auto& name : plannedFor(rulesOf(word))) {
            // mtools itself writes no characters beyond the basic plane and no names of more than 255 bytes,
            // and libarchive composes what it reads.
            const auto& fitted = name.fitted.name;
            const bool beyond =
                std::ranges::any_of(fitted, [](char c) { return static_cast<unsigned char>(c) >= 0xF0; });
            const bool composed = word == "iso9660" && fitted.find("\u0301") != std::string::npos;
            if (beyond || composed || fitted.size() > 255) {
                continue;
            }
            planned.insert(name.fitted.name);
            if (word == "fat32") {
                CAPTURE(name.fitted.name);
                inUtf8({"mcopy", "-i", image, folder / "x", "::/d/" + name.fitted.name});
            } else {
                maps.insert(maps.end(), {"-map", folder / "x", "/" + name.fitted.name});
            }
        }
        CHECK(planned.size() >= hardNames().size() - 3);
        if (word == "iso9660") {
            inUtf8(maps);
        }
        const auto listed = word == "fat32"
                                ? inUtf8({"mdir", "-a", "-b", "-i", image, "::/d"})
                                : inUtf8({"bsdtar", "-tf", image, "--options", "iso9660:!rockridge"});
        std::set<std::string> there;
        std::size_t at = 0;
        while (at < listed.size()) {
            const auto end = std::min(listed.find('\n', at), listed.size());
            there.insert(std::string(nameOf(listed.substr(at, end - at))));
            at = end + 1;
        }
        there.erase("."); // the root itself
        std::vector<std::string> missing;
        std::vector<std::string> others;
        std::ranges::set_difference(planned, there, std::back_inserter(missing));
        std::ranges::set_difference(there, planned, std::back_inserter(others));
        CHECK(missing == std::vector<std::string>{});
        CHECK(others == std::vector<std::string>{});
    }
}

TEST_CASE("a file system's rules are found by its name, the most careful where it is not known") {
    CHECK(targetRulesFor("vfat").word == "fat32");
    // Microsoft, "FAT: General Overview of On-Disk Format", p. 14: fewer than 65,525 clusters are no FAT32.
    CHECK(targetRulesFor("vfat", 65'524).word == "fat16");
    CHECK(targetRulesFor("vfat", 65'525).word == "fat32");
    CHECK(targetRulesFor("exfat", 100).word == "exfat");
    CHECK(targetRulesFor("exfat").word == "exfat");
    CHECK(targetRulesFor("btrfs").word == "ext4");
    CHECK(targetRulesFor("fuse.sshfs").word == "fat32");
    CHECK(targetRulesNamed("fat64") == nullptr);
    CHECK(wordsOf(rulesOf("ext4")) == "names of up to 255 bytes");
    CHECK(wordsOf(rulesOf("fat16")) ==
          "names of up to 255 characters, files of up to 4.29 GB, 511 entries in its "
          "topmost folder, times of writing to 2 s");
}

TEST_CASE("a name is shortened to what a player's path leaves it, with what tells it from another") {
    const auto& fat = rulesOf("fat32");
    std::vector<TargetName> names(3);
    for (auto& name : names) {
        name.folder = "Organ";
        name.stem = "Prelude and fugue in e flat major";
        name.ending = "flac";
        name.longestName = 20;
    }
    names[2].stem = "Aria";
    fitAll(fat, usualReplacements(), names, [](const BytePath&, std::size_t) { return false; });
    CHECK(names[0].fitted.name == "Prelude and fug.flac");
    CHECK(names[1].fitted.name == "Prelude and (2).flac");
    CHECK(names[2].fitted.name == "Aria.flac");
    CHECK_FALSE(names[0].fitted.why.empty());
    CHECK(names[2].fitted.why.empty());
}

TEST_CASE("thousands of one name come out, each with another, where a path leaves hardly any room") {
    const auto& fat = rulesOf("fat32");
    TargetName one;
    one.stem = "Prelude";
    one.ending = "flac";
    one.longestName = 12 + 5;
    one.album = "An album whose name does not fit beside it";
    std::vector<TargetName> names(3000, one);
    fitAll(fat, usualReplacements(), names, [](const BytePath&, std::size_t) { return false; });
    std::set<std::string> keys;
    for (const auto& name : names) {
        CHECK(keys.insert(collisionKey(fat, name.fitted.name)).second);
        CHECK(lengthIn(fat, name.fitted.name) <= one.longestName);
    }
}

TEST_CASE("times are kept by real file systems as their rules say") {
    if (getuid() != 0) {
        WARN("not run: mounting needs root");
        return;
    }
    const TempFolder folder;
    TestMounts mounts;
    const std::vector<std::tuple<std::string, std::vector<std::string>, std::vector<std::string>>> drives{
        {"fat32", {"mkfs.fat", "-F", "32"}, {"fusefat", "-o", "rw+"}},
        {"exfat", {"mkfs.exfat"}, {"mount.exfat-fuse"}},
        {"ntfs", {"mkntfs", "-F", "-q"}, {"lowntfs-3g"}},
        {"ext4", {"mkfs.ext4", "-q"}, {"mount", "-o", "loop"}}};
    for (const auto& [word, make, mount] : drives) {
        CAPTURE(word);
        const auto image = folder / (word + ".img");
        const auto place = folder / word;
        std::filesystem::create_directories(place);
        REQUIRE(run({"truncate", "-s", "40M", image}).code == 0);
        auto words = make;
        words.push_back(image);
        REQUIRE(run(words).code == 0);
        words = mount;
        words.insert(words.end(), {word == "exfat" ? mounts.loop(image) : image, place});
        if (run(words).code != 0) {
            WARN("not run: " + word + " cannot be mounted here");
            continue;
        }
        writeFile(place + "/a", "a");
        const timespec wanted{1'700'000'001, 987'654'321};
        const timespec times[2] = {wanted, wanted};
        REQUIRE(utimensat(AT_FDCWD, (place + "/a").c_str(), times, 0) == 0);
        struct stat kept {};
        REQUIRE(stat((place + "/a").c_str(), &kept) == 0);
        const auto in = [](const timespec& time) { return time.tv_sec * 1'000'000'000 + time.tv_nsec; };
        CHECK(in(wanted)-in(kept.st_mtim) >= 0);
        CHECK(in(wanted)-in(kept.st_mtim) < std::max<std::int64_t>(rulesOf(word).timeStep, 1));
        REQUIRE(run({"umount", "-l", place}).code == 0);
    }
}
