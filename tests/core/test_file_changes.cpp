#include "core/base/file_handle.h"
#include "core/base/user_folders.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/changes/trash.h"
#include "support/run_program.h"
#include "support/temp_folder.h"

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <cstdlib>
#include <ctime>
#include <filesystem>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("a move never lands on anything") {
    Unflushed unflushed;
    const TempFolder folder;
    writeFile(folder / "from", "from");
    writeFile(folder / "taken", "taken");
    fs::create_symlink("nowhere", folder / "dangling");
    for (const auto* target : {"taken", "dangling"}) {
        const auto moved = moveEntry(folder / "from", folder / target, unflushed);
        REQUIRE_FALSE(moved.ok());
        CHECK(moved.error().cause == Cause::alreadyThere);
    }
    CHECK(readFile(folder / "from") == "from");
    CHECK(readFile(folder / "taken") == "taken");
    REQUIRE(moveEntry(folder / "from", folder / "free", unflushed).ok());
    CHECK(readFile(folder / "free") == "from");
    CHECK_FALSE(isTaken(folder / "from"));
    CHECK(moveEntry(folder / "from", folder / "other", unflushed).error().cause == Cause::notFound);
}

TEST_CASE("a new file is never written over one that is there") {
    Unflushed unflushed;
    const TempFolder folder;
    writeFile(folder / "there", "old");
    CHECK(writeNewFile(folder / "there", "new", unflushed).error().cause == Cause::alreadyThere);
    CHECK(readFile(folder / "there") == "old");
    REQUIRE(writeNewFile(folder / "new", "text", unflushed).ok());
    struct stat status {};
    stat((folder / "new").c_str(), &status);
    CHECK((status.st_mode & 0777) == 0600);
    CHECK(removeFile(folder / "new", unflushed).ok());
    CHECK(removeFile(folder / "new", unflushed).ok());
    CHECK_FALSE(removeFile(folder.path(), unflushed).ok());
}

TEST_CASE("folders are made with those above them, and a file in the way is said") {
    Unflushed unflushed;
    const TempFolder folder;
    REQUIRE(makeFolder(folder / "a/b/c", 0700, unflushed).ok());
    CHECK(fs::is_directory(folder / "a/b/c"));
    CHECK(makeFolder(folder / "a/b/c", 0700, unflushed).ok());
    writeFile(folder / "file", "x");
    CHECK(makeFolder(folder / "file", 0700, unflushed).error().cause == Cause::wrongKind);
    CHECK(makeFolder(folder / "file/below", 0700, unflushed).error().cause == Cause::wrongKind);
}

// Trash specification 1.0: Path is percent-encoded as in RFC 2396 section 2, DeletionDate is
// YYYY-MM-DDThh:mm:ss in local time.
TEST_CASE("the trash's note is written as the specification says") {
    const Trash home{"/home/x/.local/share/Trash", {}};
    const Trash card{"/media/card/.Trash-1000", "/media/card"};
    const Nanoseconds time = 1'795'569'061'000'000'000;
    const auto [path, encoded] = GENERATE(table<BytePath, std::string>({
        {"/media/card/plain.wav", "plain.wav"},
        {"/media/card/two words.wav", "two%20words.wav"},
        {"/media/card/100%.wav", "100%25.wav"},
        {"/media/card/caf\xE9/\xC3\xA9.wav", "caf%E9/%C3%A9.wav"},
        {"/media/card/a\nb.wav", "a%0Ab.wav"},
        {"/media/card/(1)~'*!._-.wav", "(1)~'*!._-.wav"},
    }));
    CHECK(noteText(card, path, time) ==
          "[Trash Info]\nPath=" + encoded + "\nDeletionDate=2026-11-25T01:11:01\n");
    CHECK(noteText(home, path, time) ==
          "[Trash Info]\nPath=/media/card/" + encoded + "\nDeletionDate=2026-11-25T01:11:01\n");
}

TEST_CASE("the note's time is local") {
    setenv("TZ", "Pacific/Auckland", 1);
    tzset();
    CHECK(noteText({"/t", {}}, "/a", 1'795'569'061'000'000'000).find("DeletionDate=2026-11-25T14:11:01") !=
          std::string::npos);
    setenv("TZ", "UTC", 1);
    tzset();
}

TEST_CASE("the folders of the user follow the Base Directory specification") {
    const char* before = std::getenv("XDG_DATA_HOME");
    const std::string kept = before != nullptr ? before : "";
    setenv("XDG_DATA_HOME", "relative/is/ignored", 1);
    CHECK(dataHome() == joinPath(homeFolder(), ".local/share"));
    setenv("XDG_DATA_HOME", "/somewhere", 1);
    CHECK(defaultCatalogue() == "/somewhere/sober-archivist/catalogue.sqlite");
    unsetenv("XDG_DATA_HOME");
    CHECK(dataHome() == joinPath(homeFolder(), ".local/share"));
    setenv("XDG_DATA_HOME", kept.c_str(), 1);
}

TEST_CASE("a trash that is a link, or a shared one without the sticky bit, is not used") {
    Unflushed unflushed;
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const TempFolder folder;
    REQUIRE(run({"mount", "-t", "tmpfs", "-o", "size=1m", "none", folder.path()}).code == 0);
    const auto user = std::to_string(geteuid());
    fs::create_directories(folder / ".Trash"); // no sticky bit
    writeFile(folder / "music/a.wav", "x");
    const auto own = trashFor(folder / "music/a.wav", unflushed);
    REQUIRE(own.ok());
    CHECK(own->folder == folder / (".Trash-" + user));
    CHECK(own->top == folder.path());
    fs::remove_all(folder / (".Trash-" + user));
    fs::create_directories(folder / "elsewhere");
    fs::create_directory_symlink("elsewhere", folder / (".Trash-" + user));
    const auto refused = trashFor(folder / "music/a.wav", unflushed);
    REQUIRE_FALSE(refused.ok());
    CHECK(refused.error().sentence.find("no trash to retire into") != std::string::npos);
    unmount(folder.path());
}
