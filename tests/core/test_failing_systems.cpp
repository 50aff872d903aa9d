// Real file systems that fail in the middle: a card that is pulled (its process in user space ends), a drive
// that turns read-only, one that is full. Nothing is lost, other volumes go on, and with the file system back
// what was begun comes to its end.
#include "core/catalogue/ledger_store.h"
#include "core/remedy/journal/taking_back.h"
#include "core/work/carry_out.h"
#include "core/work/open_for_work.h"
#include "support/collection.h"
#include "support/mounts.h"
#include "support/small_audio.h"

#include <csignal>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct System {
    std::string name;
    std::vector<std::string> make;  ///< IMAGE is added
    std::vector<std::string> mount; ///< what is mounted, and the place, are added
    bool byLoop = false;
};

const std::vector<System>& pulledSystems() {
    static const std::vector<System> systems{
        {"exFAT", {"mkfs.exfat"}, {"mount.exfat-fuse"}, true},
        {"NTFS", {"mkntfs", "-F", "-q"}, {"lowntfs-3g", "-o", "ignore_case,windows_names"}, false}};
    return systems;
}

/// A volume CARD on a file system of an image, and one beside it.
struct Beside : Collection {
    explicit Beside(const System& kind) : system(kind) {
        fs::remove_all(joinPath(dataHome(), "Trash"));
        REQUIRE(run({"truncate", "-s", "16M", image()}).code == 0);
        auto words = system.make;
        words.push_back(image());
        REQUIRE(run(words).code == 0);
        fs::create_directories(card());
        mounts.emplace();
        device = system.byLoop ? mounts->loop(image()) : image();
    }
    ~Beside() { run({"umount", "-l", card()}); }

    void mount() {
        auto words = system.mount;
        words.insert(words.end(), {device, card()});
        const auto mounted = run(words);
        INFO(mounted.err);
        REQUIRE(mounted.code == 0);
    }
    /// The file system's process ends, as when a card is pulled: what is asked of it from now on fails.
    void pull() const {
        CHECK(run({"pkill", "-KILL", "-f", system.mount.front() + ".*" + card()}).code == 0);
        for (int i = 0; i < 200 && run({"pgrep", "-f", system.mount.front() + ".*" + card()}).code == 0;
             ++i) {
            usleep(10'000);
        }
    }
    void plugIn() {
        REQUIRE(run({"umount", "-l", card()}).code == 0);
        mount();
    }
    void fill() {
        for (const auto* volume : {"CARD", "HOME"}) {
            const auto seed = volume == std::string("CARD") ? 1U : 2U;
            for (const auto* name : {"keep.wav", "f/one.wav", "f/two.wav"}) {
                writeFile(*this / (std::string(volume) + "/" + name), smallWav(seed));
            }
            survey(volume);
            putOnDocket(ActionKind::retire, volume, "f/one.wav");
            putOnDocket(ActionKind::retire, volume, "f/two.wav");
        }
        before = contentsBelow(*this / "CARD");
    }
    /// How often the content of the card is on it, thrown away or not.
    int onCard() {
        int count = 0;
        for (const auto& [path, content] : contentsBelow(card())) {
            count += content == smallWav(1) ? 1 : 0;
        }
        return count;
    }
    void startAgain() {
        whileClosed([&] {
            const auto opened = openForWork(cataloguePath());
            INFO((opened ? std::string() : opened.error().sentence));
            REQUIRE(opened.ok());
        });
    }
    void comesToItsEnd() {
        startAgain();
        CHECK(LedgerStore(catalogue()).unfinished()->empty());
        CHECK(onCard() == 3);
        RunControl control;
        const auto rest = carryOut(catalogue(), control, {});
        REQUIRE(rest.ok());
        INFO((rest->refused.empty() ? std::string() : rest->refused.front().sentence));
        CHECK(rest->refused.empty());
        CHECK_FALSE(isTaken(card() + "/f/one.wav"));
        while (*lastUndoable(catalogue())) {
            const auto undone = undoEntry(catalogue(), **lastUndoable(catalogue()), control, {});
            REQUIRE(undone.ok());
            INFO((undone->refused.empty() ? std::string() : undone->refused.front().sentence));
            REQUIRE(undone->refused.empty());
        }
        auto now = contentsBelow(card());
        std::erase_if(now, [](const auto& each) { return each.first.find("/.Trash") != BytePath::npos; });
        CHECK(now == before);
    }

    BytePath card() const { return *this / "CARD"; }
    BytePath image() const { return *this / "image"; }

    System system;
    std::string device;
    std::optional<TestMounts> mounts;
    std::map<BytePath, std::string> before;
};

bool hasUserSpace() {
    return canMount() &&
           run({"sh", "-c", "test -c /dev/fuse && command -v mount.exfat-fuse lowntfs-3g"}).code == 0;
}

} // namespace

TEST_CASE("a card that is pulled in the middle waits, and its work ends when it is back") {
    if (!hasUserSpace()) {
        WARN("not run: no file system in user space is to be had here");
        return;
    }
    const auto at = GENERATE(range(std::size_t{0}, std::size_t{2}));
    const auto when = GENERATE(Instant::checked, Instant::journalled, Instant::noteWritten, Instant::moved,
                               Instant::recorded);
    Beside collection(pulledSystems()[at]);
    CAPTURE(collection.system.name, static_cast<int>(when));
    collection.mount();
    collection.fill();
    RunControl control;
    CarryOutHooks hooks;
    bool pulled = false;
    hooks.onInstant = [&](Instant instant) {
        if (instant == when && !std::exchange(pulled, true)) {
            collection.pull();
        }
    };
    const auto carried = carryOut(collection.catalogue(), control, hooks);
    INFO((carried ? std::string() : carried.error().sentence));
    REQUIRE(carried.ok());
    CHECK(pulled);
    // The other volume's work is done, unless it was pulled after all was.
    CHECK_FALSE(isTaken(collection / "HOME/f/one.wav"));
    for (const auto& refused : carried->refused) {
        CHECK(refused.sentence.size() > 20);
    }
    // While it is gone the program starts.
    collection.startAgain();
    collection.plugIn();
    collection.comesToItsEnd();
}

TEST_CASE(
    "a drive that turns read-only in the middle keeps everything, and ends its work when it is mended") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const auto when = GENERATE(Instant::checked, Instant::journalled, Instant::noteWritten, Instant::moved);
    CAPTURE(static_cast<int>(when));
    Beside collection({"ext4", {"mkfs.ext4", "-q"}, {"mount", "-o", "loop"}, false});
    collection.mount();
    collection.fill();
    RunControl control;
    CarryOutHooks hooks;
    bool turned = false;
    hooks.onInstant = [&](Instant instant) {
        if (instant == when && !std::exchange(turned, true)) {
            CHECK(run({"mount", "-o", "remount,ro", collection.card()}).code == 0);
        }
    };
    const auto carried = carryOut(collection.catalogue(), control, hooks);
    REQUIRE(carried.ok());
    CHECK(turned);
    CHECK(collection.onCard() == 3);
    collection.startAgain();
    REQUIRE(run({"mount", "-o", "remount,rw", collection.card()}).code == 0);
    collection.comesToItsEnd();
}

TEST_CASE("a drive without room for the trash's notes keeps its files where they are") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    Beside collection({"tmpfs", {"true"}, {"mount", "-t", "tmpfs", "-o", "size=1m"}, false});
    collection.mount();
    collection.fill();
    REQUIRE(run({"sh", "-c", "cat /dev/zero > " + collection.card() + "/filler; true"}).code == 0);
    RunControl control;
    const auto carried = carryOut(collection.catalogue(), control, {});
    REQUIRE(carried.ok());
    CHECK(carried->refused.size() == 2);
    CHECK(carried->refused.front().sentence.find("no space is left") != std::string::npos);
    CHECK(isTaken(collection.card() + "/f/one.wav"));
    fs::remove(collection.card() + "/filler");
    collection.comesToItsEnd();
}
