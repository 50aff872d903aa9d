// However a file is reached, it is no copy of itself: nothing that was held once is retired.
#include "core/audit/refresh_findings.h"
#include "core/audit/set_choice.h"
#include "core/base/trash_places.h"
#include "core/catalogue/policies.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/mounts.h"
#include "support/small_audio.h"

#include <sys/stat.h>

#include <functional>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

/// One set-up: what is mounted and linked, and what a custodian surveys in it.
struct Way {
    std::string name;
    bool mounts = false;
    std::function<bool(Collection&, TestMounts&)> prepare; ///< false where it is not to be had here
    std::vector<BytePath> surveyed{"V", "W"};
    bool isCopy = false;                     ///< what is found twice is there twice, so that one may go
    std::vector<BytePath> grounds{"V", "W"}; ///< where the files really are
};

void link(const BytePath& target, const BytePath& at) {
    fs::create_directories(fs::path(at).parent_path());
    fs::create_symlink(target, at);
}

/// A file that was thrown away by hand.
void throwAway(const std::string& content) {
    writeFile(joinPath(homeTrash(), "files/a.wav"), content);
    writeFile(joinPath(homeTrash(), "info/a.wav.trashinfo"),
              "[Trash Info]\nPath=/nowhere/a.wav\nDeletionDate=2026-01-01T00:00:00\n");
}

const std::string held = smallWav(1);

std::vector<Way> ways() {
    using C = Collection&;
    using M = TestMounts&;
    return {
        {"a folder is linked into another volume", false,
         [](C c, M) {
             link(c / "V", c / "W/in");
             return true;
         }},
        {"a file is linked into another volume", false,
         [](C c, M) {
             link(c / "V/a.wav", c / "W/in.wav");
             return true;
         }},
        {"a folder is linked within its volume", false,
         [](C c, M) {
             writeFile(c / "V/real/a.wav", held);
             fs::remove(c / "V/a.wav");
             link("real", c / "V/way");
             return true;
         }},
        {"a file is linked within its volume", false,
         [](C c, M) {
             link("a.wav", c / "V/way.wav");
             return true;
         }},
        {"the root is reached by a link",
         false,
         [](C c, M) {
             link(c / "V", c / "root");
             return true;
         },
         {"V", "root"}},
        {"a chain of links leads out and back", false,
         [](C c, M) {
             link(c / "W/two", c / "V/one");
             link(c / "V", c / "W/two");
             return true;
         }},
        {"a volume lies within another",
         false,
         [](C c, M) {
             writeFile(c / "V/inner/a.wav", held);
             fs::remove(c / "V/a.wav");
             return true;
         },
         {"V", "V/inner"}},
        {"a volume lies around another",
         false,
         [](C c, M) {
             writeFile(c / "V/inner/a.wav", held);
             fs::remove(c / "V/a.wav");
             return true;
         },
         {"V/inner", "V"}},
        {"a folder is bound elsewhere", true,
         [](C c, M m) {
             m.mount({"--bind", c / "V", c / "W"});
             return true;
         }},
        {"a part of a volume is bound elsewhere", true,
         [](C c, M m) {
             writeFile(c / "V/deep/a.wav", held);
             fs::remove(c / "V/a.wav");
             m.mount({"--bind", c / "V/deep", c / "W"});
             return true;
         }},
        {"a folder is bound within its own volume", true,
         [](C c, M m) {
             writeFile(c / "V/real/a.wav", held);
             fs::remove(c / "V/a.wav");
             m.mount({"--bind", c / "V/real", c / "V/again"});
             return true;
         }},
        {"a file is bound onto another name", true,
         [](C c, M m) {
             writeFile(c / "V/again.wav", "");
             m.mount({"--bind", c / "V/a.wav", c / "V/again.wav"});
             return true;
         }},
        {"a file is bound into another volume", true,
         [](C c, M m) {
             writeFile(c / "W/again.wav", "");
             m.mount({"--bind", c / "V/a.wav", c / "W/again.wav"});
             return true;
         }},
        {"one image is mounted twice", true,
         [](C c, M m) {
             TestMounts::makeExt4(c / "image");
             fs::remove(c / "V/a.wav");
             m.mount({"-o", "loop", c / "image", c / "V"});
             writeFile(c / "V/a.wav", held);
             m.mount({"-o", "loop", c / "image", c / "W"});
             return true;
         }},
        {"one image is mounted by two devices", true,
         [](C c, M m) {
             TestMounts::makeExt4(c / "image");
             fs::remove(c / "V/a.wav");
             const auto first = m.loop(c / "image");
             m.mount({first, c / "V"});
             writeFile(c / "V/a.wav", held);
             REQUIRE(run({"sync", "-f", c / "V/a.wav"}).code == 0);
             m.mount({"-o", "ro,noload", m.loop(c / "image"), c / "W"});
             return true;
         }},
        {"an overlay shows what lies below it", true,
         [](C c, M m) {
             for (const auto* folder : {"upper", "work"}) {
                 fs::create_directories(c / folder);
             }
             m.mount({"-t", "overlay", "none", "-o",
                      "lowerdir=" + c / "V" + ",upperdir=" + c / "upper" + ",workdir=" + c / "work",
                      c / "W"});
             return true;
         }},
        {"an overlay shows what lies in its upper folder", true,
         [](C c, M m) {
             for (const auto* folder : {"lower", "work"}) {
                 fs::create_directories(c / folder);
             }
             m.mount({"-t", "overlay", "none", "-o",
                      "lowerdir=" + c / "lower" + ",upperdir=" + c / "V" + ",workdir=" + c / "work",
                      c / "W"});
             return true;
         }},
        {"a file system in user space shows a folder again", true,
         [](C c, M m) { return m.view(c / "V", c / "W"); }},
        {"a memory file system is bound twice", true,
         [](C c, M m) {
             fs::remove(c / "V/a.wav");
             m.mount({"-t", "tmpfs", "-o", "size=4m", "none", c / "V"});
             writeFile(c / "V/a.wav", held);
             m.mount({"--bind", c / "V", c / "W"});
             return true;
         }},
        {"the trash is surveyed as a volume",
         false,
         [](C, M) {
             throwAway(held);
             return true;
         },
         {"V", "HOME-TRASH"}},
        {"the trash's files are surveyed as a volume",
         false,
         [](C, M) {
             throwAway(held);
             return true;
         },
         {"V", "HOME-TRASH/files"}},
        {"the trash lies in a linked home", false,
         [](C c, M) {
             throwAway(held);
             link(dataHome(), c / "W/home");
             return true;
         }},
        {"a link leads to a file in the trash", false,
         [](C c, M) {
             throwAway(held);
             link(joinPath(homeTrash(), "files/a.wav"), c / "W/kept.wav");
             return true;
         }},
        {"the trash is bound into a volume", true,
         [](C c, M m) {
             throwAway(held);
             m.mount({"--bind", joinPath(homeTrash(), "files"), c / "W/old"});
             return true;
         }},
        {"a card's own trash is reached by a link", true,
         [](C c, M m) {
             fs::remove(c / "V/a.wav");
             m.mount({"-t", "tmpfs", "-o", "size=4m", "none", c / "V"});
             writeFile(c / "V/a.wav", held);
             writeFile(c / ("V/.Trash-" + std::to_string(getuid()) + "/files/a.wav"), held);
             link(c / ("V/.Trash-" + std::to_string(getuid())), c / "W/old");
             return true;
         }},
        {"a drive is away and its mount point is surveyed",
         true,
         [](C c, M m) {
             TestMounts::makeExt4(c / "image");
             fs::remove(c / "V/a.wav");
             m.mount({"-o", "loop", c / "image", c / "V"});
             writeFile(c / "V/a.wav", held);
             c.survey("V");
             m.unmount(c / "V");
             CHECK_FALSE(c.trySurvey("V").ok());
             m.mount({"-o", "loop", c / "image", c / "V"});
             return true;
         },
         {"V"}},
        {"hard links of one volume",
         false,
         [](C c, M) {
             fs::create_hard_link(c / "V/a.wav", c / "V/b.wav");
             return true;
         },
         {"V"},
         true},
        {"hard links in two volumes",
         false,
         [](C c, M) {
             fs::create_hard_link(c / "V/a.wav", c / "W/b.wav");
             return true;
         },
         {"V", "W"},
         true},
        {"real copies in two volumes",
         false,
         [](C c, M) {
             writeFile(c / "W/b.wav", held);
             return true;
         },
         {"V", "W"},
         true},
    };
}

/// How often the content stands in files of its own outside of any trash.
int timesHeld(Collection& collection, const Way& way) {
    std::set<std::pair<dev_t, ino_t>> files;
    for (const auto& ground : way.grounds) {
        std::error_code none;
        for (auto it = fs::recursive_directory_iterator(collection / ground, none);
             it != fs::recursive_directory_iterator(); ++it) {
            struct stat status {};
            const auto path = it->path().native();
            if (lstat(path.c_str(), &status) == 0 && S_ISREG(status.st_mode) && !isInTrash(path) &&
                readFile(path) == held) {
                files.emplace(status.st_dev, status.st_ino);
            }
        }
    }
    return static_cast<int>(files.size());
}

enum class Decision { first, last, suggested };

/// Surveys what a custodian would, puts on the docket what is decided and carries it out.
CarriedOut decideAndCarryOut(Collection& collection, const Way& way, Effort effort, Decision decision) {
    RunControl control;
    SurveyChoices links;
    links.followLinks = true;
    for (BytePath root : way.surveyed) {
        const bool inTrash = root.starts_with("HOME-TRASH");
        root = inTrash ? homeTrash() + root.substr(10) : collection / root;
        const auto surveyed =
            surveyVolume(collection.catalogue(), {root, {}, links, effort}, control, [](const Progress&) {});
        CHECK((surveyed.ok() || surveyed.error().cause == Cause::refused));
    }
    REQUIRE(lookAgain(collection.catalogue()).ok());
    const auto carrying = *Holdings(collection.catalogue()).carrying([] {
        return checksumOf({reinterpret_cast<const std::uint8_t*>(held.data()), held.size()});
    }());
    if (decision == Decision::suggested) {
        const auto ids = Findings(collection.catalogue()).setOrder(SetOrder::mostBytes, {});
        const auto preview = previewPolicy(collection.catalogue(), *ids, {}, control);
        REQUIRE((preview.ok() && applyPreview(collection.catalogue(), *preview).ok()));
    } else if (!carrying.empty()) {
        const auto id = (decision == Decision::first ? carrying.front() : carrying.back()).id;
        const std::vector<DocketAction> actions{{0, ActionKind::retire, id, "", timeNow()}};
        REQUIRE(DocketStore(collection.catalogue()).add(actions).ok());
    }
    const auto carried = carryOut(collection.catalogue(), control, {});
    INFO((carried ? std::string() : carried.error().sentence));
    REQUIRE(carried.ok());
    return *carried;
}

} // namespace

TEST_CASE("by whatever way a file is reached, the last copy of it stays") {
    int notRun = 0;
    for (const auto& way : ways()) {
        for (const auto effort : {Effort::index, Effort::full}) {
            for (const auto decision : {Decision::first, Decision::last, Decision::suggested}) {
                CAPTURE(way.name, effort == Effort::full, static_cast<int>(decision));
                if (way.mounts && !canMount()) {
                    ++notRun;
                    continue;
                }
                fs::remove_all(homeTrash());
                Collection collection;
                TestMounts mounts;
                writeFile(collection / "V/a.wav", held);
                fs::create_directories(collection / "W");
                if (!way.prepare(collection, mounts)) {
                    ++notRun;
                    continue;
                }
                const auto before = timesHeld(collection, way);
                REQUIRE(before >= 1);
                const auto carried = decideAndCarryOut(collection, way, effort, decision);
                CHECK(timesHeld(collection, way) >= 1);
                CHECK((way.isCopy || carried.done == 0));
                RunControl control;
                if (carried.done > 0) {
                    CHECK(undoEntry(collection.catalogue(), carried.entry, control, {})->refused.empty());
                    CHECK(timesHeld(collection, way) == before);
                }
            }
        }
    }
    if (notRun > 0) {
        WARN(
            notRun << " cases were not run: mounting, or a file system in user space, is not to be had here");
    }
}

TEST_CASE("what was to stay and is not there any more lets nothing go") {
    struct Row {
        std::string what;
        std::function<void(const BytePath&)> happens;
    };
    const auto row = GENERATE(values<Row>({
        {"deleted", [](const BytePath& path) { fs::remove(path); }},
        {"renamed", [](const BytePath& path) { fs::rename(path, path + ".old"); }},
        {"written anew", [](const BytePath& path) { writeFile(path, smallWav(9)); }},
        {"cut short", [](const BytePath& path) { fs::resize_file(path, 100); }},
        {"replaced by another",
         [](const BytePath& path) {
             writeFile(path + ".new", smallWav(8));
             fs::rename(path + ".new", path);
         }},
    }));
    const auto when = GENERATE(Instant::checked, Instant::journalled, Instant::noteWritten, Instant::moved);
    CAPTURE(row.what, static_cast<int>(when));
    fs::remove_all(homeTrash());
    Collection collection;
    for (const auto* name : {"keep.wav", "one.wav", "two.wav"}) {
        writeFile(collection / ("V/" + std::string(name)), held);
    }
    collection.survey("V");
    collection.putOnDocket(ActionKind::retire, "V", "one.wav");
    collection.putOnDocket(ActionKind::retire, "V", "two.wav");
    RunControl control;
    CarryOutHooks hooks;
    bool happened = false;
    hooks.onInstant = [&](Instant instant) {
        if (instant == when && !happened) {
            happened = true;
            row.happens(collection / "V/keep.wav");
        }
    };
    const auto carried = carryOut(collection.catalogue(), control, hooks);
    REQUIRE(carried.ok());
    CHECK(carried->done == 0);
    REQUIRE(carried->refused.size() == 2);
    CHECK(readFile(collection / "V/one.wav") == held);
    CHECK(readFile(collection / "V/two.wav") == held);
    CHECK(contentsBelow(homeTrash()).empty());
    CHECK(DocketStore(collection.catalogue()).all()->size() == 2);
    if (when == Instant::moved) {
        CHECK(carried->refused.front().sentence.find("put back") != std::string::npos);
    }
}

TEST_CASE("two catalogues with opposite dockets leave one copy") {
    const auto when = GENERATE(Instant::checked, Instant::journalled, Instant::noteWritten, Instant::moved,
                               Instant::recorded);
    fs::remove_all(homeTrash());
    Collection one;
    Collection other;
    writeFile(one / "V/a.wav", held);
    writeFile(one / "V/b.wav", held);
    RunControl control;
    one.survey("V");
    REQUIRE(surveyVolume(other.catalogue(), {one / "V", {}, {}, {}}, control, [](const Progress&) {}).ok());
    one.putOnDocket(ActionKind::retire, "V", "a.wav");
    other.putOnDocket(ActionKind::retire, "V", "b.wav");
    CarryOutHooks hooks;
    bool happened = false;
    hooks.onInstant = [&](Instant instant) {
        if (instant == when && !happened) {
            happened = true;
            REQUIRE(carryOut(other.catalogue(), control, {}).ok());
        }
    };
    REQUIRE(carryOut(one.catalogue(), control, hooks).ok());
    CHECK((isTaken(one / "V/a.wav") || isTaken(one / "V/b.wav")));
}

TEST_CASE("a drive in another's place is another volume, and each has its place back") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    Collection collection;
    TestMounts mounts;
    for (const auto* image : {"first", "second"}) {
        TestMounts::makeExt4(collection / image);
    }
    mounts.mount({"-o", "loop", collection / "first", collection / "card"});
    writeFile(collection / "card/a.wav", held);
    const auto first = collection.survey("card");
    mounts.unmount(collection / "card");
    mounts.mount({"-o", "loop", collection / "second", collection / "card"});
    writeFile(collection / "card/b.wav", held);
    const auto second = collection.survey("card");
    CHECK(second.volume != first.volume);
    REQUIRE(lookAgain(collection.catalogue()).ok());
    CHECK_FALSE(collection.volume(first.label).atHand);
    CHECK(collection.volume(second.label).atHand);
    mounts.unmount(collection / "card");
    writeFile(collection / "card/stray.wav", held);
    CHECK(collection.trySurvey("card").error().sentence.find("is away") != std::string::npos);
    REQUIRE(lookAgain(collection.catalogue()).ok());
    CHECK_FALSE(collection.volume(first.label).atHand);
    CHECK_FALSE(collection.volume(second.label).atHand);
    mounts.mount({"-o", "loop", collection / "first", collection / "card"});
    REQUIRE(lookAgain(collection.catalogue()).ok());
    CHECK(collection.volume(first.label).atHand);
    CHECK_FALSE(collection.volume(second.label).atHand);
    CHECK(collection.survey("card").unchanged == 1);
}
