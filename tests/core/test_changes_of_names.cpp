// Two files change names at once, copies keep what they can of their original, and places of a location are
// told.
#include "core/players/resolver.h"
#include "core/remedy/changes/file_changes.h"
#include "core/remedy/changes/trash.h"
#include "support/mounts.h"
#include "support/temp_folder.h"

#include <sys/stat.h>
#include <sys/xattr.h>

#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

struct stat statusOf(const BytePath& path) {
    struct stat status {};
    REQUIRE(stat(path.c_str(), &status) == 0);
    return status;
}

} // namespace

TEST_CASE("two files change names at once, and nothing of either is lost") {
    Unflushed unflushed;
    const TempFolder folder(TempFolder::On::disk);
    writeFile(folder / "made", "new");
    writeFile(folder / "place", "old");
    const auto exchanged = exchangeEntries(folder / "made", folder / "place", unflushed);
    REQUIRE(exchanged.ok());
    if (!*exchanged) {
        WARN("not run: this file system cannot exchange names");
        return;
    }
    CHECK(readFile(folder / "place") == "new");
    CHECK(readFile(folder / "made") == "old");
    CHECK(exchangeEntries(folder / "none", folder / "place", unflushed).error().cause == Cause::notFound);
    CHECK(exchangeEntries(folder / "made", folder / "none", unflushed).error().cause == Cause::notFound);
    CHECK(readFile(folder / "place") == "new");
}

TEST_CASE("where a file system cannot exchange names it says so, and changes nothing") {
    Unflushed unflushed;
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    const TempFolder folder;
    TestMounts mounts;
    fs::create_directories(folder / "real");
    if (!mounts.view(folder / "real", folder / "view")) {
        WARN("not run: no file system in user space is to be had here");
        return;
    }
    writeFile(folder / "view/made", "new");
    writeFile(folder / "view/place", "old");
    const auto exchanged = exchangeEntries(folder / "view/made", folder / "view/place", unflushed);
    REQUIRE(exchanged.ok());
    CHECK(readFile(folder / "real/place") == (*exchanged ? "new" : "old"));
    CHECK(readFile(folder / "real/made") == (*exchanged ? "old" : "new"));
}

TEST_CASE("a file that is made anew keeps rights, owner and attributes of the one that it is made from") {
    Unflushed unflushed;
    const TempFolder folder(TempFolder::On::disk);
    writeFile(folder / "from", "content");
    REQUIRE(chmod((folder / "from").c_str(), 0640) == 0);
    const bool hasAttributes = setxattr((folder / "from").c_str(), "user.note", "kept", 4, 0) == 0;
    if (geteuid() == 0) {
        REQUIRE(chown((folder / "from").c_str(), 4321, 5432) == 0);
    }
    REQUIRE(copyToNew(folder / "from", folder / "to", unflushed).ok());
    const auto from = statusOf(folder / "from");
    const auto to = statusOf(folder / "to");
    CHECK(to.st_mode == from.st_mode);
    CHECK(to.st_uid == from.st_uid);
    CHECK(to.st_gid == from.st_gid);
    if (hasAttributes) {
        std::string value(16, '\0');
        REQUIRE(getxattr((folder / "to").c_str(), "user.note", value.data(), value.size()) == 4);
        CHECK(value.substr(0, 4) == "kept");
    }
}

TEST_CASE("the places that a location may lead to, the likeliest first, whether or not anything is there") {
    const TempFolder folder;
    Resolver resolver({});
    const ListContext context{folder.path(), false, {}, {}};
    const auto places = [&](const std::string& location) { return resolver.placesOf(location, context); };
    CHECK(places("a.wav") == std::vector<BytePath>{folder / "a.wav"});
    CHECK(places("x\\a.wav").front() == folder / "x/a.wav");
    CHECK(places("x\\a.wav").back() == folder / "x\\a.wav");
    CHECK(places("caf\xE9.wav").back() == folder / "caf\xC3\xA9.wav");
    // What only resolves by undoing percent signs does not count as where it leads.
    CHECK(places("a%20b.wav") == std::vector<BytePath>{folder / "a%20b.wav"});
    CHECK(places("http://x.example/a").empty());
    CHECK(places("C:\\Music\\a.wav").front() == "C:/Music/a.wav");
}
