// A real card: exFAT through FUSE, which ignores letter case, knows no owners, no hard links and no exchange
// of names, and makes its inodes up; and the card that was pulled.
#include "core/base/file_handle.h"
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/small_audio.h"
#include "support/temp_folder.h"

#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

/// A card with two copies, a single file and a list; a drive beside it.
struct Card : TempFolder {
    Card() {
        REQUIRE(run({"truncate", "-s", "16M", *this / "image"}).code == 0);
        REQUIRE(run({"mkfs.exfat", *this / "image"}).code == 0);
        device = mounts.loop(*this / "image");
        insert();
        writeFile(*this / "card/MUSIC/a.wav", smallWav(1));
        writeFile(*this / "card/MUSIC/b.wav", smallWav(1));
        writeFile(*this / "card/MUSIC/only.wav", smallWav(2));
        list = "#EXTM3U\r\nMUSIC\\A.WAV\r\nMUSIC/only.wav\r\n";
        writeFile(*this / "card/list.m3u", list);
        writeFile(*this / "drive/c.wav", smallWav(1));
        ask({"survey", *this / "card", *this / "drive"});
        ask({"players", "add", *this / "card/list.m3u", "--name", "pocket", "--ignores-case"});
    }
    ~Card() { pull(); }
    Card(const Card&) = delete;
    Card& operator=(const Card&) = delete;

    void insert() {
        fs::create_directories(*this / "card");
        const auto mounted = run({"mount.exfat-fuse", device, *this / "card"});
        INFO(mounted.err);
        REQUIRE(mounted.code == 0);
    }
    void pull() const { run({"umount", "-l", *this / "card"}); }
    json ask(std::vector<std::string> words, int code = 0) const {
        words.emplace_back("--json");
        const auto result = sober::test::sober(*this / "c.sqlite", words);
        INFO(result.out << result.err);
        CHECK(result.code == code);
        return result.out.empty() ? json() : json::parse(result.out);
    }

    TestMounts mounts;
    std::string device;
    std::string list;
};

bool canUseCards() {
    return canMount() && run({"sh", "-c", "test -c /dev/fuse && command -v mount.exfat-fuse"}).code == 0;
}

} // namespace

TEST_CASE("on a card files retire into its own trash, lists follow, and all of it comes back") {
    if (!canUseCards()) {
        WARN("not run: file systems in user space are not to be had here");
        return;
    }
    const Card card;
    card.ask({"docket", "add", "retire", card / "card/MUSIC/a.wav"});
    const auto carried = card.ask({"docket", "carry-out"});
    CHECK(carried["done"] == 1);
    CHECK(carried["references_touched"] == 1);
    CHECK_FALSE(isTaken(card / "card/MUSIC/a.wav"));
    CHECK(readFile(card / ("card/.Trash-" + std::to_string(getuid()) + "/files/a.wav")) == smallWav(1));
    CHECK(readFile(card / "card/list.m3u") == "#EXTM3U\r\nMUSIC\\b.wav\r\nMUSIC/only.wav\r\n");
    CHECK(card.ask({"undo", "last"})["done"].get<int>() >= 1);
    CHECK(readFile(card / "card/MUSIC/a.wav") == smallWav(1));
    CHECK(readFile(card / "card/list.m3u") == card.list);
    CHECK(card.ask({"survey", card / "card"})["missing"] == 0);
}

TEST_CASE("what stays on a card is known again after the other went, and copies on card and drive are two") {
    if (!canUseCards()) {
        WARN("not run: file systems in user space are not to be had here");
        return;
    }
    const Card card;
    // Both copies of the card go: the drive's stays, and the card's list cannot be led there.
    card.ask({"docket", "add", "retire", card / "card/MUSIC/b.wav"});
    CHECK(card.ask({"docket", "carry-out"})["done"] == 1);
    const auto refused = card.ask({"docket", "add", "retire", card / "card/MUSIC/a.wav"}, 1);
    CHECK(refused["actions"][0]["refused"].get<std::string>().find("would not find it") != std::string::npos);
    card.ask({"docket", "clear"});
    card.ask({"docket", "add", "retire", card / "drive/c.wav"});
    CHECK(card.ask({"docket", "carry-out"})["done"] == 1);
    CHECK(isTaken(card / "card/MUSIC/a.wav"));
}

TEST_CASE("a card that was pulled is away: nothing on it is missing, retired or counted as what stays") {
    if (!canUseCards()) {
        WARN("not run: file systems in user space are not to be had here");
        return;
    }
    Card card;
    card.ask({"docket", "add", "retire", card / "drive/c.wav"});
    card.pull();
    const auto carried = card.ask({"docket", "carry-out"}, 1);
    CHECK(carried["done"] == 0);
    CHECK(isTaken(card / "drive/c.wav"));
    CHECK(card.ask({"condition"})["findings"]["missing"] == 0);
    const auto empty = sober::test::sober(card / "c.sqlite", {"survey", card / "card"});
    CHECK(empty.code == 1);
    CHECK(empty.err.find("is away") != std::string::npos);
    CHECK(card.ask({"condition"})["volumes"].size() == 2);
    card.insert();
    CHECK(card.ask({"survey", card / "card"})["unchanged"] == 3);
    CHECK(card.ask({"docket", "carry-out"})["done"] == 1);
}
