#include "core/exchange/bag.h"
#include "core/remedy/write_bag.h"
#include "support/collection.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>

#include <filesystem>

using namespace sober;
using namespace sober::test;
namespace fs = std::filesystem;

namespace {

const std::string declaration = "BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n";

std::string sumByTool(const std::string& tool, const BytePath& path) {
    const auto out = run({tool, path}).out;
    return out.substr(out.starts_with("\\") ? 1 : 0).substr(0, out.find(' '));
}

/// A bag of three files made by hand, with checksums of coreutils' tools.
struct HandMade {
    HandMade() {
        fs::create_directories(bag / "data/evening");
        writeFile(bag / "data/one.wav", smallWav(1));
        writeFile(bag / "data/evening/two.wav", smallWav(2));
        writeFile(bag / "data/100% fog\n.wav", smallWav(3));
        writeFile(bag / "bagit.txt", declaration);
        write();
    }
    void write() {
        std::string manifest;
        for (const auto& [name, path] : listed) {
            manifest += sumByTool("sha256sum", bag / path) + "  " + name + "\n";
        }
        writeFile(bag / "manifest-sha256.txt", manifest);
    }
    BagReport check() const {
        RunControl control;
        auto report = checkBag(bag / "", control, [](const Progress&) {});
        REQUIRE(report.ok());
        return *report;
    }
    TempFolder bag;
    std::vector<std::pair<std::string, BytePath>> listed{{"data/one.wav", "data/one.wav"},
                                                         {"data/evening/two.wav", "data/evening/two.wav"},
                                                         {"data/100%25 fog%0A.wav", "data/100% fog\n.wav"}};
};

std::string said(const BagReport& report) {
    std::string text;
    for (const auto& problem : report.problems) {
        text += problem.sentence + "\n";
    }
    return text;
}

} // namespace

TEST_CASE("a whole bag is complete and valid, and reading it changes nothing") {
    HandMade made;
    const auto before = contentsBelow(made.bag / "");
    const auto report = made.check();
    CHECK(said(report).empty());
    CHECK(report.complete);
    CHECK(report.valid);
    CHECK(report.version == "1.0");
    CHECK(report.files == 3);
    CHECK(report.algorithms == std::vector<std::string>{"sha256"});
    CHECK(contentsBelow(made.bag / "") == before);
}

TEST_CASE("what is wrong with a bag is said of the file it is wrong with") {
    struct Row {
        std::string what;
        std::function<void(HandMade&)> spoil;
        std::string sentence;
        bool complete = false;
    };
    const auto addLine = [](HandMade& made, const std::string& line) {
        writeFile(made.bag / "manifest-sha256.txt", readFile(made.bag / "manifest-sha256.txt") + line + "\n");
    };
    const std::string sum(64, 'a');
    const std::vector<Row> rows{
        {"a file gone", [](HandMade& made) { fs::remove(made.bag / "data/one.wav"); },
         "data/one.wav: is listed and not there."},
        {"a file more", [](HandMade& made) { writeFile(made.bag / "data/more.wav", "x"); },
         "data/more.wav: is there and not listed."},
        {"a file changed", [](HandMade& made) { writeFile(made.bag / "data/one.wav", smallWav(9)); },
         "data/one.wav: its SHA256 is another than is listed.", true},
        {"an absolute name", [&](HandMade& made) { addLine(made, sum + "  /etc/passwd"); },
         "line 4 names no place within the bag"},
        {"a home", [&](HandMade& made) { addLine(made, sum + "  ~/x"); },
         "line 4 names no place within the bag"},
        {"an escaping name", [&](HandMade& made) { addLine(made, sum + "  data/../../x"); },
         "line 4 leaves the bag"},
        {"no payload", [&](HandMade& made) { addLine(made, sum + "  bagit.txt"); },
         "line 4 names a file that is no payload"},
        {"a name twice", [&](HandMade& made) { addLine(made, sum + "  data/one.wav"); },
         "line 4 names a file for the second time"},
        {"rubbish", [&](HandMade& made) { addLine(made, "what is this"); }, "line 4 is no checksum and name"},
        {"a wrong sum of the payload",
         [](HandMade& made) { writeFile(made.bag / "bag-info.txt", "Payload-Oxum: 12.3\n"); },
         "bag-info.txt: states a payload of 12.3"},
        {"something to fetch",
         [&](HandMade& made) {
             addLine(made, sum + "  data/far.wav");
             writeFile(made.bag / "fetch.txt", "http://example.org/far.wav 100 data/far.wav\n");
         },
         "1 file has to be fetched from a network, which is not done"},
        {"a checksum nobody knows",
         [](HandMade& made) {
             writeFile(made.bag / "manifest-magic.txt", readFile(made.bag / "manifest-sha256.txt"));
         },
         "manifest-magic.txt: its kind of checksum is not known here."},
        {"a tag file changed",
         [](HandMade& made) {
             writeFile(made.bag / "tagmanifest-sha256.txt", std::string(64, 'b') + "  bagit.txt\n");
         },
         "bagit.txt: its SHA256 is another than is listed.", true},
        {"no manifest", [](HandMade& made) { fs::remove(made.bag / "manifest-sha256.txt"); },
         "It has no manifest of its payload."},
        {"another encoding",
         [](HandMade& made) {
             writeFile(made.bag / "bagit.txt",
                       "BagIt-Version: 1.0\nTag-File-Character-Encoding: ISO-8859-1\n");
         },
         "bagit.txt: names its files in ISO-8859-1, which is taken as bytes."},
        {"no version", [](HandMade& made) { writeFile(made.bag / "bagit.txt", "hello\n"); },
         "bagit.txt: does not state its version"},
        {"a link in place of a file",
         [](HandMade& made) {
             fs::remove(made.bag / "data/one.wav");
             fs::create_symlink("/etc/passwd", made.bag / "data/one.wav");
         },
         "data/one.wav: is listed and not there."},
    };
    for (const auto& row : rows) {
        CAPTURE(row.what);
        HandMade made;
        row.spoil(made);
        const auto report = made.check();
        CAPTURE(said(report));
        CHECK(said(report).find(row.sentence) != std::string::npos);
        CHECK(report.complete == row.complete);
        CHECK_FALSE(report.valid);
    }
}

TEST_CASE("a folder without a declaration is no bag") {
    HandMade made;
    fs::remove(made.bag / "bagit.txt");
    RunControl control;
    const auto report = checkBag(made.bag / "", control, [](const Progress&) {});
    REQUIRE_FALSE(report.ok());
    CHECK(report.error().cause == Cause::invalid);
}

// RFC 8493 section 4.1 and 4.2, from memory; it does not give the files' content, so that only the lists can
// be held against it.
TEST_CASE("the RFC's own examples are understood") {
    const auto basic = parseBagManifest("49afbd86a1ca9f34b677a3f09655eae9  data/27613-h/images/q172.png\n"
                                        "408ad21d50cef31da4df6d9ed81b01a7  data/27613-h/images/q172.txt\n",
                                        true);
    REQUIRE(basic.files.size() == 2);
    CHECK(basic.problems.empty());
    CHECK(basic.files[1].path == "data/27613-h/images/q172.txt");
    CHECK(basic.files[1].hex == "408ad21d50cef31da4df6d9ed81b01a7");
    const auto info = parseBagInfo("Source-Organization: FOO University\n"
                                   "Organization-Address: 1 Main St., Cupertino, California, 11111\n"
                                   "External-Description: Uncompressed greyscale TIFF images from the\n"
                                   "     FOO papers collection.\n"
                                   "Payload-Oxum: 279164409832.1198\n");
    REQUIRE(info.size() == 4);
    CHECK(info[2].second == "Uncompressed greyscale TIFF images from the FOO papers collection.");
    CHECK(info[3] == std::pair<std::string, std::string>("Payload-Oxum", "279164409832.1198"));
    CHECK(parseBagManifest(
              "408ad21d50cef31da4df6d9ed81b01a7  data/x\r\n49afbd86a1ca9f34b677a3f09655eae9\tdata/y\r", true)
              .files.size() == 2);
}

TEST_CASE("before version 1.0 a file may stand in one of several manifests") {
    HandMade made;
    const bool old = GENERATE(true, false);
    writeFile(made.bag / "bagit.txt", std::string("BagIt-Version: ") + (old ? "0.97" : "1.0") +
                                          "\nTag-File-Character-Encoding: UTF-8\n");
    writeFile(made.bag / "data/late.wav", smallWav(5));
    writeFile(made.bag / "manifest-md5.txt",
              sumByTool("md5sum", made.bag / "data/late.wav") + "  data/late.wav\n");
    const auto report = made.check();
    CAPTURE(said(report));
    CHECK(report.valid == old);
}

TEST_CASE("a bag that is written is valid by ourselves and by sha256sum, and holds every byte") {
    Collection collection;
    fs::create_directories(collection / "V/evening");
    writeFile(collection / "V/one.wav", smallWav(1));
    writeFile(collection / "V/evening/two.wav", smallWav(2));
    writeFile(collection / "V/evening/100%.txt", "notes");
    collection.survey("V");
    RunControl control;
    const auto write = [&](const BytePath& to) {
        return writeBag(collection.catalogue(), collection / "V", collection / to, control,
                        [](const Progress&) {});
    };
    SECTION("written") {
        const auto before = contentsBelow(collection / "V");
        REQUIRE(write("bag")->files == 3);
        CHECK(contentsBelow(collection / "V") == before);
        for (const auto& [path, content] : before) {
            CHECK(readFile(collection / ("bag/data/" + *relativeTo(path, collection / "V"))) == content);
        }
        CHECK(contentsBelow(collection / "bag/data").size() == 3);
        const auto report = checkBag(collection / "bag", control, [](const Progress&) {});
        CHECK(said(*report).empty());
        CHECK(report->valid);
        CHECK(report->info.back().first == "Payload-Oxum");
        const auto checked = run({"sh", "-c",
                                  "cd " + (collection / "bag") +
                                      " && sed 's/%25/%/' manifest-sha256.txt | sha256sum --strict -c - && "
                                      "sha256sum --strict -c tagmanifest-sha256.txt"});
        CHECK(checked.code == 0);
    }
    SECTION("not over what is there, and not onto a volume") {
        fs::create_directory(collection / "there");
        CHECK(write("there").error().cause == Cause::alreadyThere);
        CHECK(write("V/bag").error().cause == Cause::refused);
        CHECK_FALSE(isTaken(collection / "V/bag"));
    }
    SECTION("not with names that a bag cannot list") {
        writeFile(collection / "V/\xFF.wav", smallWav(4));
        CHECK(write("bag").error().cause == Cause::refused);
        CHECK_FALSE(isTaken(collection / "bag"));
    }
    SECTION("one that was stopped is no bag") {
        control.cancel();
        CHECK_FALSE(write("bag").ok());
        RunControl other;
        CHECK_FALSE(checkBag(collection / "bag", other, [](const Progress&) {}).ok());
    }
}
