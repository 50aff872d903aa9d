// Images as such, by the command: their bytes, and writing them over a drive; held against cmp, xxd's digits
// by od, and the kernel's own loop devices and mounts.
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/sound.h"

#include <nlohmann/json.hpp>

#include <unistd.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct SmallImage {
    SmallImage() {
        writeMusic(folder / "m.wav", 3, 5);
        ffmpeg({"-i", folder / "m.wav", "-metadata", "title=Slack Water", folder / "m.flac"});
        content = std::string(8'192, '\x11') + readFile(folder / "m.flac");
        content.resize(1U << 20, '\x22');
        writeFile(image, content);
    }
    ProgramRun tell(const std::vector<std::string>& words) const {
        std::vector<std::string> line{SOBER_PROGRAM, "--quiet", "--json", "--catalogue", folder / "c.sqlite"};
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    }
    json ask(const std::vector<std::string>& words) const {
        const auto ran = tell(words);
        INFO(ran.err);
        REQUIRE(ran.code == 0);
        return json::parse(ran.out);
    }
    ProgramRun write(const BytePath& to, const std::string& label, std::uint64_t size) const {
        return tell(
            {"salvage", "write", image, "--to", to, "--label", label, "--size", std::to_string(size)});
    }
    TempFolder folder{TempFolder::On::disk};
    BytePath image = folder / "card.img";
    std::string content;
};

} // namespace

TEST_CASE("The bytes of an image are shown with what they are") {
    const SmallImage small;
    const auto scan = small.ask({"salvage", "scan", small.image});
    REQUIRE(scan["finds"].size() == 1);
    const auto find = std::to_string(scan["finds"][0]["id"].get<int>());
    const auto look = small.ask({"salvage", "bytes", small.image, "--find", find, "--length", "64"});
    CHECK(look["at"] == 8'192);
    CHECK(look["image_bytes"] == small.content.size());
    auto digits = run({"sh", "-c", "od -An -v -tx1 -j 8192 -N 64 '" + small.image + "' | tr -d ' \n'"}).out;
    CHECK(look["hex"] == digits);
    CHECK(look["parts"][0] == json{{"first", 8'192}, {"last", 8'195}, {"name", "fLaC"}});
    CHECK(look["parts"][1]["name"] == "STREAMINFO");
    CHECK(look["parts"][1]["last"].get<int>() - look["parts"][1]["first"].get<int>() + 1 == 38);
    // The filling before it is nobody's.
    CHECK(small.ask({"salvage", "bytes", small.image, "--length", "16"})["parts"].empty());
    CHECK(small.ask({"salvage", "bytes", small.image, "--at", "99999999"})["hex"] == "");
}

TEST_CASE("Text and bytes are looked for from a place on") {
    const SmallImage small;
    small.ask({"salvage", "scan", small.image});
    const auto title =
        small.ask({"salvage", "bytes", small.image, "--text", "Slack Water", "--length", "11"});
    CHECK(title["at"] == small.content.find("Slack Water"));
    CHECK(title["hex"] == "536c61636b205761746572");
    CHECK(title["parts"][0]["name"] == "VORBIS_COMMENT");
    CHECK(small.ask({"salvage", "bytes", small.image, "--hex", "66 4C 61 43"})["at"] == 8'192);
    CHECK(small.tell({"salvage", "bytes", small.image, "--hex", "66 4C 61 43", "--at", "8193"}).code == 1);
    CHECK(small.tell({"salvage", "bytes", small.image, "--hex", "6x"}).code != 0);
    CHECK(small.tell({"salvage", "bytes", small.image, "--find", "99"}).code == 1);
    CHECK(small.tell({"salvage", "bytes", small.folder / "none.img"}).code == 1);
}

TEST_CASE("What was found in an image can be forgotten, unless it stands on the docket") {
    const SmallImage small;
    small.ask({"salvage", "scan", small.image});
    CHECK(small.tell({"salvage", "forget", small.image}).code == 0);
    CHECK(small.tell({"salvage", "list", small.image}).code == 1);
    CHECK(small.tell({"salvage", "forget", small.image}).code == 1);
    CHECK((readFile(small.image) == small.content));
}

TEST_CASE("An image is written over what was named by its label and size, and nothing else") {
    const SmallImage small;
    const auto target = small.folder / "target.img";
    REQUIRE(run({"truncate", "-s", "40M", target}).code == 0);
    REQUIRE(run({"mkfs.fat", "-F", "32", "-n", "WORK CARD", target}).code == 0);
    const auto before = readFile(target);
    for (const auto& [label, size] :
         {std::pair("WORK CARD", 40U << 10), {"OTHER", 40U << 20}, {"", 40U << 20}}) {
        const auto refused = small.write(target, label, size);
        CHECK(refused.code == 1);
        CHECK(refused.err.find("\"WORK CARD\"") != std::string::npos);
        CHECK(refused.err.find("41943040 bytes") != std::string::npos);
    }
    CHECK((readFile(target) == before));
    const auto written = small.write(target, "WORK CARD", 40U << 20);
    INFO(written.err);
    REQUIRE(written.code == 0);
    CHECK(json::parse(written.out)["bytes"] == small.content.size());
    CHECK(run({"cmp", "-n", std::to_string(small.content.size()), small.image, target}).code == 0);
    CHECK((readFile(target).substr(small.content.size()) == before.substr(small.content.size())));
    const auto history = small.ask({"ledger"});
    CHECK(history.dump().find("and compared it") != std::string::npos);
}

TEST_CASE("An image is not written over itself, a recording, what is too small or in use") {
    const SmallImage small;
    fs::create_directories(small.folder / "V");
    fs::copy_file(small.folder / "m.wav", small.folder / "V/m.wav");
    REQUIRE(small.tell({"survey", small.folder / "V"}).code == 0);
    const auto wave = readFile(small.folder / "V/m.wav");
    const auto recording = small.write(small.folder / "V/m.wav", "m.wav", wave.size());
    CHECK(recording.code == 1);
    CHECK(recording.err.find("a recording of the collection") != std::string::npos);
    CHECK((readFile(small.folder / "V/m.wav") == wave));
    CHECK(small.write(small.image, "card.img", small.content.size()).code == 1);
    writeFile(small.folder / "little", std::string(1'000, 'x'));
    CHECK(small.write(small.folder / "little", "little", 1'000).code == 1);
    CHECK(readFile(small.folder / "little") == std::string(1'000, 'x'));
    CHECK(small.write(small.folder / "none", "none", 1'000).code == 1);
    CHECK((readFile(small.image) == small.content));

    if (geteuid() != 0) {
        WARN("Not tried: loop devices need root.");
        return;
    }
    TestMounts mounts;
    const auto drive = small.folder / "drive.img";
    TestMounts::makeExt4(drive);
    const auto device = mounts.loop(drive);
    const auto before = readFile(drive);
    // The file is in use by its loop, the loop is free.
    CHECK(small.write(drive, "drive.img", before.size()).err.find("uses it") != std::string::npos);
    mounts.mount({device, small.folder / "mounted"});
    const auto name = device.substr(device.rfind('/') + 1);
    const auto mounted = small.write(device, name, before.size());
    CHECK(mounted.code == 1);
    CHECK(mounted.err.find("it is mounted at") != std::string::npos);
    mounts.unmount(small.folder / "mounted");
    const auto written = small.write(device, name, before.size());
    INFO(written.err);
    CHECK(written.code == 0);
    CHECK(run({"cmp", "-n", std::to_string(small.content.size()), small.image, device}).code == 0);
}

TEST_CASE("A drive that does not keep what is written is found out, and the image stays whole") {
    const SmallImage small;
    const auto target = small.folder / "target.img";
    writeFile(target, std::string(2U << 20, 'x'));
    // A file system without room: a file with holes cannot be filled there.
    if (geteuid() != 0) {
        WARN("Not tried: mounting needs root.");
        return;
    }
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=512k", "tmpfs", small.folder / "full"});
    const auto holey = small.folder / "full/target";
    REQUIRE(run({"truncate", "-s", "2M", holey}).code == 0);
    const auto failed = small.write(holey, "target", 2U << 20);
    CHECK(failed.code == 1);
    CHECK((readFile(small.image) == small.content));
    const auto history = small.ask({"ledger"});
    CHECK(history.dump().find("Did not write all of") != std::string::npos);
}
