// Drives that cannot read some of their bytes, by the stand-in: what is sound is in the image first, what is
// not is in the map, and any end of a run is gone on from. Images are held against their sources by cmp of
// diffutils.
#include "core/salvage/image_map.h"
#include "support/demo_copy.h"
#include "support/run_program.h"
#include "support/small_audio.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <random>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

struct FailingDrive {
    explicit FailingDrive(std::size_t bytes) {
        std::mt19937 random(9);
        content.resize(bytes);
        for (auto& byte : content) {
            byte = static_cast<char>(random());
        }
        writeFile(source, content);
        writeFile(twin, content);
    }
    ProgramRun make(const BytePath& from, std::uint64_t first, std::uint64_t past,
                    const std::string& limit = "60", std::vector<std::string> more = {}) const {
        std::vector<std::string> line{"timeout", "-s", "KILL", limit, "env"};
        if (past > first) {
            line.insert(line.end(),
                        {std::string("LD_PRELOAD=") + FAILING_READS, "FAILING_FILE=" + from,
                         "FAILING_FIRST=" + std::to_string(first), "FAILING_PAST=" + std::to_string(past)});
        }
        line.insert(line.end(),
                    {SOBER_PROGRAM, "--quiet", "--json", "salvage", "image", from, "--to", image});
        line.insert(line.end(), more.begin(), more.end());
        return run(line);
    }
    bool isSame() const { return run({"cmp", "-s", source, image}).code == 0; }

    TempFolder folder;
    std::string content;
    BytePath source = folder / "drive";
    BytePath twin = folder / "twin";
    BytePath image = folder / "drive.img";
};

} // namespace

TEST_CASE("What cannot be read is known to the sector, and the rest is safe") {
    struct Place {
        std::uint64_t first, past;
    };
    const auto place = GENERATE(Place{1'000'000, 1'000'001}, Place{0, 4'096}, Place{3'000'100, 3'300'700},
                                Place{5'242'000, 5'242'880});
    const FailingDrive drive(5U << 20);
    const auto ran = drive.make(drive.source, place.first, place.past);
    INFO(ran.err);
    CHECK(ran.code == 3);
    const auto told = json::parse(ran.out);
    CHECK(told["schema"] == "sober.image/1");
    CHECK(told["bytes"] == drive.content.size());
    CHECK(told["complete"] == false);
    const auto first = place.first / 512 * 512;
    const auto past = (place.past + 511) / 512 * 512;
    REQUIRE(told["unread"] == json{{first, past - 1}});
    const auto image = readFile(drive.image);
    CHECK((image.substr(0, first) == drive.content.substr(0, first)));
    CHECK((image.substr(past) == drive.content.substr(past)));
    CHECK(unreadOf(drive.image)->size() == 1);

    SECTION("and comes from the same drive on a better day") {
        CHECK(drive.make(drive.source, 0, 0).code == 0);
        CHECK(drive.isSame());
        CHECK(unreadOf(drive.image)->empty());
    }
    SECTION("or from another copy of it, damaged elsewhere") {
        const auto elsewhere = place.first > 2'000'000 ? 500'000U : 4'000'000U;
        CHECK(drive.make(drive.twin, elsewhere, elsewhere + 5'000).code == 0);
        CHECK(drive.isSame());
    }
}

TEST_CASE("An image whose making was killed again and again is the same in the end") {
    const FailingDrive drive(24U << 20);
    std::mt19937 random(3);
    int ended = 0;
    for (int times = 0; times < 50; ++times) {
        const auto ran = drive.make(drive.source, 7'000'000, 7'100'000,
                                    std::to_string(0.001 + static_cast<double>(random() % 40) / 1000));
        ended += ran.code == 3 ? 1 : 0;
        if (fs::exists(mapBeside(drive.image))) {
            const auto map = ImageMap::parse(readFile(mapBeside(drive.image)));
            REQUIRE(map.ok());
            const auto image = readFile(drive.image);
            for (const auto& [first, past] : map->ranges(Reading::read)) {
                // What the map says is in the image is there.
                REQUIRE((image.compare(first, past - first, drive.content, first, past - first) == 0));
            }
        }
    }
    CHECK(ended < 50);
    CHECK(drive.make(drive.source, 0, 0).code == 0);
    CHECK(drive.isSame());
}

TEST_CASE("Wherever the making of an image ends, it is gone on from") {
    const auto* const kind = GENERATE("open", "write", "fdatasync", "rename", "unlink", "ftruncate");
    const auto* const how = GENERATE("kill", "kill-after", "EIO");
    for (int nth = 1; nth <= 4; ++nth) {
        const FailingDrive drive(64U << 10);
        INFO(kind << " " << nth << " " << how);
        const auto first =
            run({"env", std::string("LD_PRELOAD=") + FAILING_CALLS, std::string("FAILING_CALL=") + kind,
                 "FAILING_NTH=" + std::to_string(nth), std::string("FAILING_HOW=") + how,
                 "FAILING_BELOW=" + drive.folder.path(), SOBER_PROGRAM, "--quiet", "--json", "salvage",
                 "image", drive.source, "--to", drive.image});
        INFO(first.code << first.err);
        const auto again = drive.make(drive.source, 0, 0);
        INFO(again.err);
        REQUIRE(again.code == 0);
        REQUIRE(drive.isSame());
        if (first.code == 0) {
            break;
        }
    }
}

TEST_CASE("An image is never made over anything, of itself, or of another drive") {
    const FailingDrive drive(1U << 20);
    writeFile(drive.image, "somebody's file");
    CHECK(drive.make(drive.source, 0, 0).code == 1);
    CHECK(readFile(drive.image) == "somebody's file");
    fs::remove(drive.image);
    CHECK(drive.make(drive.source, 0, 0).code == 0);
    writeFile(drive.twin, drive.content + "more");
    CHECK(drive.make(drive.twin, 0, 0).code == 1);
    CHECK(drive.isSame());
    fs::remove(drive.image);
    const auto gone = drive.make(drive.source, 0, 0);
    CHECK(gone.code == 1);
    CHECK(gone.err.find("remove its map") != std::string::npos);
    // A map that says nothing yet is no leave to write over what somebody put there meanwhile.
    writeFile(mapBeside(drive.image), ImageMap(drive.content.size()).text());
    writeFile(drive.image, "somebody's file");
    CHECK(drive.make(drive.source, 0, 0).code == 1);
    CHECK(readFile(drive.image) == "somebody's file");
    fs::remove(drive.image);
    CHECK(drive.make(drive.source, 0, 0).code == 0);
    CHECK(drive.isSame());
    fs::remove(drive.image);
    fs::remove(mapBeside(drive.image));
    fs::create_hard_link(drive.source, drive.image);
    CHECK(drive.make(drive.source, 0, 0).code == 1);
    CHECK((readFile(drive.source) == drive.content));
    CHECK(drive.make(drive.folder / "none", 0, 0).code == 1);
}

TEST_CASE("What lies across places that were not read is found, and not said to be whole") {
    FailingDrive drive(1U << 20);
    const auto wave = smallWav(5, 8);
    drive.content.replace(65'536, wave.size(), wave);
    writeFile(drive.source, drive.content);
    REQUIRE(drive.make(drive.source, 300'000, 310'000).code == 3);
    const auto ran = run({SOBER_PROGRAM, "--quiet", "--json", "--catalogue",
                          drive.folder / "catalogue.sqlite", "salvage", "scan", drive.image});
    const auto scan = json::parse(ran.out);
    REQUIRE(scan["finds"].size() == 1);
    CHECK(scan["finds"][0]["sound"] == false);
    CHECK(scan["finds"][0]["complete"].get<double>() < 1);
    CHECK(scan["finds"][0]["complete"].get<double>() > 0.95);
}

TEST_CASE("A map says of every byte once how far it was read, or is none") {
    ImageMap map(10'000);
    map.sources = {"/dev/card one", "/tmp/100% \xE9"};
    map.set({0, 4'096}, Reading::read);
    map.set({4'096, 5'120}, Reading::step);
    map.set({4'608, 5'120}, Reading::bad);
    map.set({8'000, 20'000}, Reading::read);
    CHECK(map.ranges(Reading::read) == std::vector<ByteRange>{{0, 4'096}, {8'000, 10'000}});
    CHECK(map.ranges(Reading::step) == std::vector<ByteRange>{{4'096, 4'608}});
    CHECK(map.unread() == std::vector<ByteRange>{{4'096, 8'000}});
    const auto again = ImageMap::parse(map.text());
    REQUIRE(again.ok());
    CHECK(again->text() == map.text());
    CHECK(again->sources == map.sources);
    map.set({0, 10'000}, Reading::read);
    CHECK(map.unread().empty());
    for (const auto* text :
         {"", "sober image map 2\nbytes 5\n0 5 read\n", "sober image map 1\nbytes 5\n0 4 read\n",
          "sober image map 1\nbytes 5\n1 5 read\n", "sober image map 1\nbytes 5\n0 6 read\n",
          "sober image map 1\nbytes 5\n0 5 eaten\n", "sober image map 1\nbytes 5\n0 3 read\n2 5 bad\n",
          "sober image map 1\n0 5 read\n", "sober image map 1\nbytes 99999999999999999999999\n"}) {
        INFO(text);
        CHECK_FALSE(ImageMap::parse(text).ok());
    }
}
