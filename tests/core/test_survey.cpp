#include "core/survey/volume_identity.h"
#include "core/survey/walk.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>
#include <sys/mount.h>
#include <sys/stat.h>

#include <filesystem>
#include <fstream>
#include <unistd.h>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

TEST_CASE("a second survey reads nothing that has not changed") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/sub/b.wav", smallWav(2));
    writeFile(collection / "V/notes.txt", "no audio");
    writeFile(collection / "V/fake.mp3", "no audio either");
    const auto first = collection.survey("V");
    CHECK(first.added == 2);
    CHECK(first.passedOver == 2);
    REQUIRE(first.errors.size() == 1);
    CHECK(first.errors[0].path == collection / "V/fake.mp3");
    CHECK(first.bytesRead == 2 * smallWav(1).size());
    const auto second = collection.survey("V");
    CHECK(second.bytesRead == 0);
    CHECK(second.unchanged == 2);
    CHECK(second.added + second.changed + second.moved + second.missing == 0);
    CHECK(second.errors.size() == 1);
}

TEST_CASE("a survey tells what was added, changed, moved, gone and back") {
    Collection collection;
    for (const auto& [name, seed] : {std::pair{"a", 1U}, {"b", 2U}, {"c", 3U}, {"d", 4U}, {"e", 5U}}) {
        writeFile(collection / ("V/" + std::string(name) + ".wav"), smallWav(seed));
    }
    collection.survey("V");
    fs::create_directories(collection / "V/deep");
    fs::rename(collection / "V/a.wav", collection / "V/deep/renamed.wav"); // by inode
    const std::string b = readFile(collection / "V/b.wav");
    fs::remove(collection / "V/b.wav");
    writeFile(collection / "V/deep/copied.wav", b); // by checksum
    writeFile(collection / "V/c.wav", smallWav(33));
    fs::remove(collection / "V/d.wav");
    fs::permissions(collection / "V/e.wav", fs::perms::owner_read); // another change time, same content
    writeFile(collection / "V/f.wav", smallWav(6));
    const auto report = collection.survey("V");
    CHECK(report.moved == 2);
    CHECK(report.changed == 1);
    CHECK(report.missing == 1);
    CHECK(report.added == 1);
    CHECK(report.unchanged == 1);
    CHECK(report.seen == 5);
    CHECK(collection.holding("V", "d.wav")->state == HoldingState::missing);
    CHECK(collection.holding("V", "deep/renamed.wav")->checksum ==
          collection.holding("V", "deep/renamed.wav")->checksum);
    CHECK_FALSE(collection.holding("V", "a.wav").has_value());

    writeFile(collection / "V/d.wav", smallWav(4));
    const auto back = collection.survey("V");
    CHECK(back.returned == 1);
    CHECK(collection.holding("V", "d.wav")->state == HoldingState::present);
}

TEST_CASE("a file written to while nothing but its content shows is found by its times") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    struct stat before {};
    stat((collection / "V/a.wav").c_str(), &before);
    writeFile(collection / "V/a.wav", smallWav(2));
    const timespec times[2] = {before.st_atim, before.st_mtim};
    utimensat(AT_FDCWD, (collection / "V/a.wav").c_str(), times, 0);
    CHECK(collection.survey("V").changed == 1); // the change time cannot be put back
}

TEST_CASE("names go through a survey as bytes") {
    Collection collection;
    const std::vector<BytePath> names{"caf\xE9.wav",
                                      "two\nlines.wav",
                                      "S\xC3\xA9.wav",
                                      "Se\xCC\x81.wav",
                                      "Twin.wav",
                                      "twin.wav",
                                      std::string(251, 'n') + ".wav",
                                      "100%41.wav"};
    std::uint32_t seed = 1;
    for (const auto& name : names) {
        writeFile(collection / ("V/" + name), smallWav(seed++));
    }
    CHECK(collection.survey("V").added == names.size());
    CHECK(collection.survey("V").unchanged == names.size());
    for (const auto& name : names) {
        CHECK(collection.holding("V", name).has_value());
    }
}

TEST_CASE("what a survey takes in is chosen once and kept with the volume") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    writeFile(collection / "V/.hidden.wav", smallWav(2));
    writeFile(collection / "V/.folder/b.wav", smallWav(3));
    writeFile(collection / "V/Samples/c.wav", smallWav(4));
    writeFile(collection / "V/x/y/deep.wav", smallWav(5));
    writeFile(collection / "V/large.wav", smallWav(6, 2));
    writeFile(collection / "V/.Trash-0/files/gone.wav", smallWav(7));
    fs::create_directory_symlink(collection / "V", collection / "V/loop");
    writeFile(collection / "outside/o.wav", smallWav(8));
    fs::create_directory_symlink(collection / "outside", collection / "V/link");
    struct Row {
        SurveyChoices choices;
        std::uint64_t seen;
    };
    SurveyChoices hidden, patterns, sizes, depth, links;
    hidden.leaveHidden = true;
    patterns.leavePatterns = {"Samples", "*.tmp", "x/*"};
    sizes.maxSize = 50'000;
    depth.maxDepth = 2;
    links.followLinks = true;
    const Row row = GENERATE_COPY(Row{{}, 6}, Row{hidden, 4}, Row{patterns, 4}, Row{sizes, 5}, Row{depth, 5},
                                  Row{links, 7});
    CHECK(collection.survey("V", row.choices).seen == row.seen);
    CHECK(collection.survey("V").seen == row.seen);
    CHECK(collection.volume("V").choices == row.choices);
}

TEST_CASE("a root that makes no sense is refused with one sentence") {
    Collection collection;
    writeFile(collection / "V/inner/a.wav", smallWav(1));
    writeFile(collection / "file.wav", smallWav(2));
    collection.survey("V");
    const auto [root, cause] = GENERATE(table<BytePath, Cause>({{"nowhere", Cause::notFound},
                                                                {"file.wav", Cause::wrongKind},
                                                                {"V/inner", Cause::refused},
                                                                {"", Cause::refused}}));
    const auto report = collection.trySurvey(root);
    REQUIRE_FALSE(report.ok());
    CHECK(report.error().cause == cause);
    CHECK(Volumes(collection.catalogue()).all()->size() == 1);
}

TEST_CASE("a volume is known again after its folder was renamed, and a second copy of it is another") {
    Collection collection;
    for (std::uint32_t i = 0; i < 10; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(i));
    }
    collection.survey("V");
    fs::copy(collection / "V", collection / "Copy", fs::copy_options::recursive);
    CHECK(collection.survey("Copy").added == 10);
    fs::rename(collection / "V", collection / "Moved");
    const auto moved = collection.survey("Moved");
    CHECK(moved.label == "V");
    CHECK(moved.unchanged == 10);
    CHECK(moved.bytesRead == 0);
    CHECK(Volumes(collection.catalogue()).all()->size() == 2);
}

TEST_CASE("what lies on a volume that is away is not missing") {
    Collection collection;
    writeFile(collection / "V/a.wav", smallWav(1));
    collection.survey("V");
    fs::rename(collection / "V", collection / "unplugged");
    REQUIRE(lookForVolumes(collection.catalogue()).ok());
    CHECK_FALSE(collection.volume("V").atHand);
    CHECK_FALSE(collection.trySurvey("V").ok());
    fs::create_directories(collection / "V"); // the empty mount point that remains
    REQUIRE(lookForVolumes(collection.catalogue()).ok());
    CHECK_FALSE(collection.volume("V").atHand);
    CHECK(collection.holding("V", "a.wav")->state == HoldingState::present);
}

TEST_CASE("a folder that cannot be listed takes nothing into missing") {
    Collection collection;
    writeFile(collection / "V/open/a.wav", smallWav(1));
    writeFile(collection / "V/closed/b.wav", smallWav(2));
    const BytePath catalogue = collection / "shared/c.sqlite";
    fs::create_directories(collection / "shared");
    for (const auto& path : {collection / "", collection / "shared", collection / "V"}) {
        fs::permissions(path, fs::perms::all);
    }
    REQUIRE(soberUnprivileged(catalogue, {"survey", collection / "V"}).code == 0);
    fs::permissions(collection / "V/closed", fs::perms::none);
    const auto report = soberUnprivileged(catalogue, {"survey", "--json", collection / "V"});
    CHECK(report.code == 3);
    CHECK(report.out.find("\"missing\": 0") != std::string::npos);
    CHECK(report.err.find("permission is denied") != std::string::npos);
    fs::permissions(collection / "V/closed", fs::perms::all);
    chmod((collection / "V/open/a.wav").c_str(), 0);
    const auto file = soberUnprivileged(catalogue, {"survey", "--json", collection / "V"});
    CHECK(file.code == 3);
    CHECK(file.out.find("\"missing\": 0") != std::string::npos);
}

TEST_CASE("a cancelled survey keeps what it read and goes on from there") {
    Collection collection;
    for (std::uint32_t i = 0; i < 40; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 1));
    }
    collection.survey("V");
    fs::remove(collection / "V/0.wav");
    for (std::uint32_t i = 100; i < 300; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 1));
    }
    RunControl control;
    const auto stopped = surveyVolume(collection.catalogue(), {collection / "V", {}, {}, {}}, control,
                                      [&](const Progress& progress) {
                                          CHECK(progress.files <= progress.totalFiles);
                                          CHECK(progress.bytes <= progress.totalBytes);
                                          if (progress.files >= 20) {
                                              control.cancel();
                                          }
                                      });
    REQUIRE(stopped.ok());
    CHECK(stopped->interrupted);
    CHECK(stopped->missing == 0);
    CHECK(stopped->added >= 20);
    const auto rest = collection.survey("V");
    CHECK(rest.missing == 1);
    CHECK(stopped->added + rest.added == 200);
}

TEST_CASE("a volume that vanishes half-way takes nothing into missing") {
    Collection collection;
    for (std::uint32_t i = 0; i < 60; ++i) {
        writeFile(collection / ("V/" + std::to_string(i) + ".wav"), smallWav(i, 0.5));
    }
    collection.survey("V");
    for (std::uint32_t i = 0; i < 60; ++i) {
        writeFile(collection / ("V/new" + std::to_string(i) + ".wav"), smallWav(1000 + i, 2));
    }
    RunControl control;
    bool gone = false;
    const auto report = surveyVolume(collection.catalogue(), {collection / "V", {}, {}, {}}, control,
                                     [&](const Progress& progress) {
                                         if (progress.files >= 5 && !gone) {
                                             fs::rename(collection / "V", collection / "pulled out");
                                             gone = true;
                                         }
                                     });
    REQUIRE_FALSE(report.ok());
    CHECK(report.error().sentence.find("vanished") != std::string::npos);
    CHECK(Holdings(collection.catalogue()).missing()->empty());
}

TEST_CASE("the same drive at another mount point is the same volume, by its file system's UUID") {
    if (!canMount()) {
        WARN("not run: mounting is not allowed here");
        return;
    }
    Collection collection;
    REQUIRE(run({"truncate", "-s", "16M", collection / "image"}).code == 0);
    REQUIRE(run({"mkfs.ext4", "-q", collection / "image"}).code == 0);
    fs::create_directories(collection / "here");
    fs::create_directories(collection / "there");
    REQUIRE(run({"mount", "-o", "loop", collection / "image", collection / "here"}).code == 0);
    writeFile(collection / "here/a.wav", smallWav(1));
    collection.survey("here");
    CHECK_FALSE(collection.volume("here").identity.filesystem.empty());
    unmount(collection / "here");
    REQUIRE(lookForVolumes(collection.catalogue()).ok());
    CHECK_FALSE(collection.volume("here").atHand);
    REQUIRE(run({"mount", "-o", "loop", collection / "image", collection / "there"}).code == 0);
    writeFile(collection / "there/b.wav", smallWav(2));
    const auto again = collection.survey("there");
    CHECK(again.label == "here");
    CHECK(again.unchanged == 1);
    CHECK(again.added == 1);
    unmount(collection / "there");
}

// proc(5): fields of mountinfo, octal escapes in paths, optional fields before the dash.
TEST_CASE("mounts are read from mountinfo, and the longest mount point wins") {
    const auto mounts = parseMountInfo("22 1 8:1 / / rw,relatime shared:1 - ext4 /dev/sda1 rw\n"
                                       "30 22 8:17 /music /media/My\\040Drive rw - vfat /dev/sdb1 rw\n"
                                       "nonsense\n");
    REQUIRE(mounts.size() == 2);
    CHECK(mounts[1].point == "/media/My Drive");
    CHECK(mounts[1].rootWithin == "/music");
    CHECK(mountOf(mounts, "/media/My Drive/x")->type == "vfat");
    CHECK(mountOf(mounts, "/media/My Drives")->type == "ext4");
    CHECK_FALSE(hasLastingInodes("vfat"));
    CHECK(hasLastingInodes("ext4"));
}

TEST_CASE("a survey that is stopped within an archive calls nothing missing and is gone on with") {
    Collection collection;
    constexpr unsigned files = 150; // more than are read ahead
    for (unsigned i = 0; i < files; ++i) {
        writeFile(collection / ("in/" + std::to_string(i) + ".wav"), smallWav(i, 0.01));
    }
    fs::create_directories(collection / "V");
    REQUIRE(run({"tar", "-C", collection / "in", "-cf", collection / "V/a.tar", "."}).code == 0);
    SurveyChoices choices;
    choices.lookInside = true;
    const auto stoppedAfter = GENERATE(1U, 3U);
    RunControl control;
    const auto stopped = surveyVolume(collection.catalogue(), {collection / "V", {}, choices, {}}, control,
                                      [&](const Progress& now) {
                                          CHECK(now.files <= now.totalFiles);
                                          if (now.files == stoppedAfter) {
                                              control.cancel();
                                          }
                                      });
    REQUIRE(stopped.ok());
    CHECK(stopped->interrupted);
    CHECK(stopped->added < files);
    const auto again = collection.survey("V");
    CHECK(again.added + again.unchanged == files);
    CHECK(again.missing == 0);
    CHECK(again.errors.empty());
    CHECK(collection.survey("V").unchanged == files);
}
