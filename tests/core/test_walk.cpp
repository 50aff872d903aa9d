#include "core/base/user_folders.h"
#include "core/survey/walk.h"
#include "support/collection.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>
#include <sys/stat.h>

#include <fcntl.h>
#include <filesystem>
#include <set>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

std::set<BytePath> walked(const BytePath& root, const SurveyChoices& choices = {},
                          std::vector<BytePath> others = {}) {
    RunControl control;
    std::set<BytePath> paths;
    for (const auto& file : walkVolume(root, choices, others, control).files) {
        paths.insert(file.path);
    }
    return paths;
}

} // namespace

TEST_CASE("a walk meets regular files and nothing else") {
    const TempFolder folder;
    writeFile(folder / "a.wav", "1");
    writeFile(folder / "d/b.wav", "2");
    mkfifo((folder / "pipe").c_str(), 0600);
    fs::create_symlink("a.wav", folder / "link.wav");
    fs::create_directory_symlink(".", folder / "d/loop");
    fs::create_symlink("nowhere", folder / "dangling");
    CHECK(walked(folder.path()) == std::set<BytePath>{"a.wav", "d/b.wav"});
    SurveyChoices links;
    links.followLinks = true;
    // What a link leads to is met once, under its own name where that lies within.
    CHECK(walked(folder.path(), links) == std::set<BytePath>{"a.wav", "d/b.wav"});
    const TempFolder elsewhere;
    writeFile(elsewhere / "c.wav", "3");
    fs::create_symlink(elsewhere / "c.wav", folder / "out.wav");
    fs::create_symlink(elsewhere / "c.wav", folder / "out again.wav");
    CHECK(walked(folder.path()).size() == 2);
    CHECK(walked(folder.path(), links).size() == 3);
}

TEST_CASE("trash folders and the roots of other volumes are left out") {
    const TempFolder folder;
    writeFile(folder / ".Trash/1000/files/a.wav", "1");
    writeFile(folder / ".Trash-1000/files/a.wav", "1");
    writeFile(folder / "Trash/a.wav", "1"); // a folder of that name is not the desktop's
    writeFile(folder / "other/b.wav", "2");
    CHECK(walked(folder.path(), {}, {folder / "other"}) == std::set<BytePath>{"Trash/a.wav"});
    writeFile(joinPath(dataHome(), "Trash/files/c.wav"), "3");
    CHECK(walked(dataHome()).empty());
    fs::remove_all(joinPath(dataHome(), "Trash"));
}

TEST_CASE("patterns are held against the name and against the path below the root") {
    const TempFolder folder;
    for (const auto* path : {"a.wav", "a.tmp", "x/a.wav", "x/y/a.wav", "y/a.wav"}) {
        writeFile(folder / path, "1");
    }
    const auto [pattern, left] = GENERATE(table<std::string, std::size_t>(
        {{"*.tmp", 4}, {"x", 3}, {"y", 3}, {"x/y", 4}, {"[ab].wav", 1}, {"nothing", 5}}));
    SurveyChoices choices;
    choices.leavePatterns = {pattern};
    CAPTURE(pattern);
    CHECK(walked(folder.path(), choices).size() == left);
}

TEST_CASE("a root that vanished costs one error and no file is called gone") {
    RunControl control;
    const auto walk = walkVolume("/nowhere/at/all", {}, {}, control);
    CHECK(walk.files.empty());
    REQUIRE(walk.errors.size() == 1);
    CHECK(walk.unlisted == std::vector<BytePath>{""});
}

TEST_CASE("a cancelled walk ends soon") {
    const TempFolder folder;
    for (int i = 0; i < 50; ++i) {
        writeFile(folder / (std::to_string(i) + "/a.wav"), "1");
    }
    RunControl control;
    control.cancel();
    CHECK(walkVolume(folder.path(), {}, {}, control).files.empty());
}

TEST_CASE("a path too long for the system costs one error line") {
    Collection collection;
    fs::create_directories(collection / "V");
    writeFile(collection / "V/near.wav", smallWav(1));
    const std::string step(200, 'd');
    int parent = open((collection / "V").c_str(), O_RDONLY | O_DIRECTORY);
    for (int i = 0; i < 24; ++i) {
        REQUIRE(mkdirat(parent, step.c_str(), 0700) == 0);
        const int next = openat(parent, step.c_str(), O_RDONLY | O_DIRECTORY);
        close(parent);
        parent = next;
    }
    const int file = openat(parent, "far.wav", O_WRONLY | O_CREAT, 0600);
    const auto wav = smallWav(2);
    REQUIRE(write(file, wav.data(), wav.size()) == static_cast<ssize_t>(wav.size()));
    close(file);
    close(parent);
    const auto report = collection.survey("V");
    CHECK(report.seen == 1);
    CHECK(report.errors.size() == 1);
    // Taken down step by step: too long for the helper that clears the test's folder.
    REQUIRE(std::system(
                ("cd '" + (collection / "V") + "' && find . -depth -delete 2>/dev/null; true").c_str()) == 0);
}
