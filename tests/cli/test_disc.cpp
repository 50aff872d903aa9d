// Discs through the command: images are shown and read as cd-info and cd-read of libcdio-utils read them, the
// files are held against the image by flac, metaflac, ffprobe and zlib, the sheets by libcue. Drives that
// misread and services are stand-ins.
#include "core/disc/tray.h"
#include "core/work/read_disc.h"
#include "support/disc_image.h"
#include "support/mounts.h"
#include "support/run_program.h"
#include "support/running_service.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include <libcue.h>
#include <regex>
#include <zlib.h>

using namespace sober;
using namespace sober::test;
using nlohmann::json;
namespace fs = std::filesystem;

namespace {

const std::string head =
    "CATALOG 4006381333931\nPERFORMER \"Pell Harbour Choir\"\nTITLE \"Winter Evenings\"\n";
const std::vector<std::string> lines{
    "    TITLE \"The Breakwater\"\n    PERFORMER \"Kit Rowe\"\n    FLAGS PRE\n    ISRC GBAYE2600001\n",
    "    TITLE \"Fog at \\ the Quay\"\n"};

struct Bench {
    TempFolder folder;
    BytePath catalogue = folder / "catalogue.sqlite";
    BytePath to = folder / "V";

    ProgramRun disc(std::vector<std::string> words, bool unsteady = false) const {
        std::vector<std::string> line{"timeout", "-s", "KILL", "100", "env"};
        if (unsteady) {
            line.push_back(std::string("SOBER_TRAY=") + UNSTEADY_TRAY);
        }
        line.insert(line.end(), {SOBER_PROGRAM, "--catalogue", catalogue, "--quiet", "--json", "disc"});
        line.insert(line.end(), words.begin(), words.end());
        return run(line);
    }
    json read(const DiscImage& image, int code, std::vector<std::string> more = {},
              bool unsteady = false) const {
        std::vector<std::string> words{"read", image.sheet, "--to", to};
        words.insert(words.end(), more.begin(), more.end());
        const auto ran = disc(words, unsteady);
        INFO(ran.err);
        REQUIRE(ran.code == code);
        return json::parse(ran.out);
    }
};

std::uint32_t crcOfBytes(const std::string& bytes) {
    return static_cast<std::uint32_t>(
        crc32(0, reinterpret_cast<const Bytef*>(bytes.data()), static_cast<uInt>(bytes.size())));
}

std::string hex(std::uint32_t crc) {
    return fmt::format("{:08x}", crc);
}

/// What a FLAC file holds, by the tool for it; tested by it first.
std::string decoded(const BytePath& flac) {
    REQUIRE(run({"flac", "--silent", "--test", flac}).code == 0);
    const auto raw = flac + ".raw";
    REQUIRE(run({"flac", "--silent", "--decode", "--force-raw-format", "--endian=little", "--sign=signed",
                 "-o", raw, flac})
                .code == 0);
    auto bytes = readFile(raw);
    fs::remove(raw);
    return bytes;
}

/// The samples of any file, by FFmpeg's tool.
std::string samplesOf(const BytePath& file) {
    const auto raw = file + ".raw";
    ffmpeg({"-i", file, "-f", "s16le", raw});
    auto bytes = readFile(raw);
    fs::remove(raw);
    return bytes;
}

/// What a register has of an image, without the first and last five sectors of each track.
json registered(const DiscImage& image, int reported) {
    json tracks = json::array();
    for (std::size_t i = 0; i < image.begins.size(); ++i) {
        const auto track = image.track(i);
        const auto edge = std::size_t{5} * discSectorBytes;
        tracks.push_back({{"number", i + 1},
                          {"crc32", hex(crcOfBytes(track.substr(edge, track.size() - 2 * edge)))},
                          {"reported", reported}});
    }
    return {{"tracks", tracks}};
}

std::string idOf(const Bench& bench, const DiscImage& image) {
    return json::parse(bench.disc({"show", image.sheet}).out).at("id");
}

} // namespace

TEST_CASE("A disc says of itself what cd-info reads of it") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 300, 375}, head, lines, 1, 300);
    const auto shown = json::parse(bench.disc({"show", image.sheet}).out);
    const auto info = run({"cd-info", "--no-device-info", "--no-analyze", image.sheet}).out;
    std::vector<int> begins;
    const std::regex track("\\n +\\d+: \\d\\d:\\d\\d:\\d\\d  (\\d{6}) audio");
    for (auto at = std::sregex_iterator(info.begin(), info.end(), track); at != std::sregex_iterator();
         ++at) {
        begins.push_back(std::stoi((*at)[1]));
    }
    REQUIRE(begins == image.begins);
    REQUIRE(shown.at("tracks").size() == 3);
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(shown.at("tracks")[i].at("first_sector") == begins[i]);
        CHECK(shown.at("tracks")[i].at("audio") == true);
    }
    CHECK(info.find("4006381333931") != std::string::npos);
    CHECK(shown.at("media_number") == "4006381333931");
    CHECK(shown.at("tracks")[0].at("isrc") == "GBAYE2600001");
    CHECK(shown.at("tracks")[0].at("pre_emphasis") == true);
    CHECK(shown.at("tracks")[1].at("pre_emphasis") == false);
    CHECK(shown.at("tracks")[0].at("title") == "The Breakwater");
    CHECK(shown.at("tracks")[1].at("gap_sectors") == 150);
    CHECK(shown.at("hidden_sectors") == 300);
    CHECK_FALSE(fs::exists(bench.catalogue)); // to look makes nothing
}

TEST_CASE("What is read is what is on the disc, in every form, and says so for years") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 300, 375}, head, lines, 1, 300);
    const auto read = bench.read(image, 0, {"--form", "flac,mp3:V0,wav,opus:96@20%"});
    REQUIRE(read.at("tracks").size() == 4); // the hidden one, too
    for (std::size_t i = 0; i < 3; ++i) {
        const auto& track = read.at("tracks")[i + 1];
        CHECK(track.at("number") == i + 1);
        CHECK(track.at("agreed") == true);
        CHECK(track.at("register").is_null());
        CHECK(track.at("crc32") == hex(crcOfBytes(image.track(i))));
        CHECK((decoded(track.at("files")[0]) == image.track(i)));
        CHECK((samplesOf(track.at("files")[2]) == image.track(i)));
        const double seconds = static_cast<double>(image.track(i).size()) / discSectorBytes / 75;
        const auto lengthOf = [](const std::string& file) {
            return std::stod(
                run({"ffprobe", "-v", "error", "-show_entries", "format=duration", "-of", "csv=p=0", file})
                    .out);
        };
        CHECK(lengthOf(track.at("files")[1]) == Approx(seconds).margin(0.06));
        CHECK(lengthOf(track.at("files")[3]) == Approx(seconds / 5).margin(0.06));
    }
    // The same track by libcdio's own reading of it.
    const auto byTool = bench.folder / "second.raw";
    REQUIRE(run({"cd-read", "-m", "audio", "-s", std::to_string(image.begins[1]), "-e",
                 std::to_string(image.begins[2] - 1), "-o", byTool, "-i", image.sheet})
                .code == 0);
    CHECK((readFile(byTool) == image.track(1)));

    const BytePath first = read.at("tracks")[1].at("files")[0];
    CHECK(first == bench.to + "/flac/Pell Harbour Choir/Winter Evenings/01 The Breakwater.flac");
    const auto tags = run({"metaflac", "--export-tags-to=-", first}).out;
    for (const auto* tag : {"TITLE=The Breakwater", "ARTIST=Kit Rowe", "ALBUM=Winter Evenings",
                            "ALBUMARTIST=Pell Harbour Choir", "TRACKNUMBER=1/3", "ISRC=GBAYE2600001",
                            "PREEMPHASIS=1", "MCN=4006381333931"}) {
        CHECK(tags.find(tag) != std::string::npos);
    }
    CHECK(run({"metaflac", "--export-tags-to=-", read.at("tracks")[2].at("files")[0].get<std::string>()})
              .out.find("TITLE=Fog at \\ the Quay") != std::string::npos);

    auto* const cue = cue_parse_string(readFile(BytePath(parentOf(first)) + "/disc.cue").c_str());
    REQUIRE(cue != nullptr);
    CHECK(cd_get_ntrack(cue) == 3);
    auto* const track = cd_get_track(cue, 1);
    CHECK(std::string(track_get_filename(track)) == "01 The Breakwater.flac");
    CHECK(std::string(cdtext_get(PTI_TITLE, track_get_cdtext(track))) == "The Breakwater");
    CHECK(std::string(track_get_isrc(track)) == "GBAYE2600001");
    CHECK(track_is_set_flag(track, FLAG_PRE_EMPHASIS) != 0);
    cd_delete(cue);

    const auto report = readFile(read.at("report"));
    CHECK(report.find("CRC-32 " + read.at("tracks")[1].at("crc32").get<std::string>()) != std::string::npos);
    CHECK(report.find("hidden before the first") != std::string::npos);
    CHECK(fs::is_empty(bench.catalogue + ".discs/" + read.at("id").get<std::string>()));

    SECTION("again, it is held already, and taken back it goes to the trash") {
        const auto again =
            bench.read(image, 0, {"--tracks", "2", "--layout", "\"again\" / track \" \" title"});
        CHECK(again.at("tracks")[0].at("held_as").get<std::string>().find("02 Fog at") != std::string::npos);
        CHECK(fs::exists(again.at("tracks")[0].at("files")[0].get<std::string>()));
        CHECK(test::sober(bench.catalogue, {"undo", "last"}).code == 0);
        CHECK_FALSE(fs::exists(again.at("tracks")[0].at("files")[0].get<std::string>()));
    }
}

TEST_CASE("All of a disc in one file, with its sheet within and beside; data are left out, and said") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 320, 300}, head, lines);
    auto sheet = readFile(image.sheet);
    sheet.replace(sheet.find("TRACK 03 AUDIO"), 14, "TRACK 03 MODE1/2352");
    writeFile(image.sheet, sheet);
    const auto read = bench.read(image, 0, {"--one-file"});
    REQUIRE(read.at("tracks").size() == 2);
    const BytePath whole = read.at("tracks")[0].at("files")[0];
    CHECK(read.at("tracks")[1].at("files")[0] == whole);
    CHECK(whole == bench.to + "/Pell Harbour Choir/Winter Evenings/Winter Evenings.flac");
    CHECK((decoded(whole) == image.track(0) + image.track(1)));
    CHECK(readFile(read.at("report")).find("Track 3 holds data") != std::string::npos);
    const auto embedded = run({"metaflac", "--show-tag=CUESHEET", whole}).out;
    const auto beside = readFile(BytePath(parentOf(whole)) + "/disc.cue");
    CHECK(embedded.find("INDEX 01 " + DiscImage::time(image.begins[1])) != std::string::npos);
    auto* const cue = cue_parse_string(beside.c_str());
    REQUIRE(cue != nullptr);
    CHECK(cd_get_ntrack(cue) == 2);
    CHECK(track_get_start(cd_get_track(cue, 2)) == image.begins[1]);
    cd_delete(cue);
}

TEST_CASE("A scratch costs its sectors, and they are named; all else is right") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 450});
    image.fail("cache 200\njitter 0 500 0.2 400\nunsteady 100 104 0.5\nunread 300 303 0\nunread 700 710 2\n"
               "noise 800 801 1\n");
    const auto read = bench.read(image, 3, {"--retries", "20"}, true);
    CHECK(read.at("tracks")[0].at("doubtful_sectors") == json::array({{300, 303}}));
    CHECK(read.at("tracks")[0].at("unread_sectors") == 4);
    CHECK(read.at("tracks")[1].at("doubtful_sectors") == json::array({{800, 801}}));
    CHECK(read.at("tracks")[1].at("unread_sectors") == 0);
    CHECK(read.at("tracks")[0].at("agreed_late").get<int>() > 0);
    auto got = decoded(read.at("tracks")[0].at("files")[0]) + decoded(read.at("tracks")[1].at("files")[0]);
    REQUIRE(got.size() == image.samples.size());
    std::vector<int> different;
    for (int sector = 0; sector < image.sectors(); ++sector) {
        const auto at = static_cast<std::size_t>(sector) * discSectorBytes;
        if (got.compare(at, discSectorBytes, image.samples, at, discSectorBytes) != 0) {
            different.push_back(sector);
        }
    }
    for (const int sector : different) {
        CHECK(((sector >= 300 && sector <= 303) || sector == 800 || sector == 801));
    }
    CHECK(readFile(read.at("report")).find("DOUBTFUL") != std::string::npos);
}

TEST_CASE("A register proves the reading and the drive's offset") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 450, 450});
    const auto id = idOf(bench, image);
    const auto serve = [&](const json& discs) { writeFile(bench.folder / "S/discs.json", discs.dump()); };
    const int offset = GENERATE(0, 30, -667);
    auto wrong = registered(image, 3);
    wrong["tracks"][1]["crc32"] = "00000000";
    serve(json::array({{{"disc", id}, {"register", {wrong, registered(image, 12)}}}}));
    const RunningService services(DISC_SERVICES, bench.folder / "S");
    image.fail("offset " + std::to_string(offset));
    const auto read = bench.read(image, 0, {"--register", services.address() + "/register"}, true);
    CHECK(read.at("offset") == offset);
    CHECK(read.at("offset_proven") == true);
    CHECK(read.at("missing_samples") == std::abs(offset));
    const std::vector<int> agree{15, 12, 15};
    for (std::size_t i = 0; i < 3; ++i) {
        CHECK(read.at("tracks")[i].at("register").at("agree") == agree[i]);
        CHECK(read.at("tracks")[i].at("register").at("offset") == offset);
    }
    auto expected = image.samples;
    const auto lost = static_cast<std::size_t>(4 * std::abs(offset));
    expected.replace(offset < 0 ? 0 : expected.size() - lost, lost, lost, '\0');
    std::string got;
    for (const auto& track : read.at("tracks")) {
        got += decoded(track.at("files")[0]);
    }
    CHECK((got == expected));
    CHECK(readFile(read.at("report")).find("12 others got the same") != std::string::npos);
}

TEST_CASE("One track that is read alone finds the offset, too") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 450});
    writeFile(bench.folder / "S/discs.json",
              json::array({{{"disc", idOf(bench, image)}, {"register", {registered(image, 7)}}}}).dump());
    const RunningService services(DISC_SERVICES, bench.folder / "S");
    image.fail("offset 48");
    const auto read =
        bench.read(image, 0, {"--register", services.address() + "/register", "--tracks", "2"}, true);
    CHECK(read.at("offset") == 48);
    CHECK(read.at("tracks")[0].at("register").at("agree") == 7);
}

TEST_CASE("A register that knows another reading, or nothing, or answers badly") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {320, 320});
    const DiscImage other(bench.folder / "O", {320, 320}, {}, {}, 50);
    const auto id = idOf(bench, image);
    const auto run = [&](const json& disc) {
        writeFile(bench.folder / "S/discs.json", json::array({disc}).dump());
        const RunningService services(DISC_SERVICES, bench.folder / "S");
        return bench.read(image, 0, {"--register", services.address() + "/register", "--tracks", "1"});
    };
    const auto differs = run({{"disc", id}, {"register", {registered(other, 9)}}});
    CHECK(differs.at("tracks")[0].at("register").at("agree") == 0);
    CHECK(differs.at("tracks")[0].at("register").at("known") == true);
    CHECK(differs.at("offset_proven") == false);
    CHECK(run({{"disc", "another"}}).at("tracks")[0].at("register").at("known") == false);
    for (const auto* fault : {"nonsense", "huge", "circle", "elsewhere", "refused"}) {
        const auto bad = run({{"disc", id}, {"fault", fault}});
        CHECK(bad.at("tracks")[0].at("register").is_null());
        CHECK(bad.at("register_problem").get<std::string>().find("rip register") != std::string::npos);
    }
}

TEST_CASE("Names come from a lookup, several to choose from; what is hostile in them stays text") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {320, 320}, head, lines);
    const json several{{"title", "Harbour Nights"},
                       {"disc", 2},
                       {"discs", 3},
                       {"date", "1998"},
                       {"tracks",
                        {{{"title", "A/B: ../x"}, {"artist", "Ada Penn"}},
                         {{"title", "\"Quoted\""}, {"artist", "Tom Quay"}}}}};
    writeFile(
        bench.folder / "S/discs.json",
        json::array(
            {{{"disc", idOf(bench, image)},
              {"lookup",
               {{{"title", "Wrong"}, {"artist", "Nobody"}, {"tracks", {{{"title", "x"}}, {{"title", "y"}}}}},
                several}}}})
            .dump());
    const RunningService services(DISC_SERVICES, bench.folder / "S");
    const auto lookup = services.address() + "/lookup";
    const auto shown = json::parse(bench.disc({"show", image.sheet, "--lookup", lookup}).out);
    REQUIRE(shown.at("names").size() == 3);
    CHECK(shown.at("names")[1].at("title") == "Harbour Nights");
    CHECK(shown.at("names")[2].at("source") == "the disc itself");
    const auto read = bench.read(image, 0, {"--lookup", lookup, "--answer", "2", "--plain-tags"});
    const BytePath file = read.at("tracks")[0].at("files")[0];
    CHECK(parentOf(file) == bench.to + "/Various Artists/Harbour Nights");
    CHECK(nameOf(file).starts_with("2-01 A"));
    const auto tags = run({"metaflac", "--export-tags-to=-", file}).out;
    CHECK(tags.find("TITLE=A/B: ../x") != std::string::npos);
    CHECK(tags.find("DISCNUMBER=2/3") != std::string::npos);
    CHECK(tags.find("ISRC") == std::string::npos);
    CHECK(bench.disc({"read", image.sheet, "--to", bench.to, "--answer", "9"}).code == 2);
}

TEST_CASE("A disc that was wiped is tried again where it was doubtful, and what was known stays known") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {450, 320});
    auto catalogue = Catalogue::openForWriting(bench.catalogue);
    REQUIRE(catalogue.ok());
    DiscRequest request;
    request.disc = image.sheet;
    request.to = bench.to;
    request.effort.retries = 6;
    const auto readNow = [&](const std::string& faults) {
        image.fail(faults);
        ::setenv("SOBER_TRAY", UNSTEADY_TRAY, 1);
        RunControl control;
        auto read = readDisc(*catalogue, request, control, {});
        ::unsetenv("SOBER_TRAY");
        REQUIRE(read.ok());
        return std::move(*read);
    };
    const auto first = readNow("unread 100 103 0\nunread 700 701 0\n");
    CHECK(first.disc.tracks[0].doubtful == std::vector{std::pair(100, 103)});
    // Wiped, and laid in so that it fails elsewhere.
    const auto second = readNow("unread 200 203 0\nunread 700 701 0\n");
    CHECK(second.disc.tracks[0].agreed());
    CHECK(second.disc.tracks[0].crc == crcOfBytes(image.track(0)));
    CHECK(second.disc.tracks[1].doubtful == std::vector{std::pair(700, 701)});
    CHECK(second.places.size() == 5);
}

TEST_CASE("What is as long and sounds otherwise does not name a disc, and what sounds alike does") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {600, 450}, head, lines);
    const bool isTheDisc = GENERATE(true, false);
    const DiscImage other(bench.folder / "O", {600, 450}, {}, {}, 80);
    const auto held = bench.folder / "H/Held";
    fs::create_directories(held);
    for (std::size_t i = 0; i < 2; ++i) {
        writeFile(bench.folder / "track.raw", (isTheDisc ? image : other).track(i));
        ffmpeg({"-f", "s16le", "-ar", "44100", "-ac", "2", "-i", bench.folder / "track.raw", "-b:a", "128k",
                "-metadata", "album=As It Is Held", "-metadata", fmt::format("title=Held {}", i + 1),
                "-metadata", fmt::format("track={}", i + 1), fmt::format("{}/{}.mp3", held, i + 1)});
    }
    REQUIRE(test::sober(bench.catalogue, {"survey", bench.folder / "H", "--effort", "full"}).code == 0);
    const auto shown = json::parse(bench.disc({"show", image.sheet}).out);
    CHECK(shown.at("held").size() == 1);
    CHECK(shown.at("names")[0].at("title") == "As It Is Held");
    const auto read = bench.read(image, 0);
    CHECK(read.at("title") == (isTheDisc ? "As It Is Held" : "Winter Evenings"));
    CHECK(read.at("tracks")[0].at("held_as").is_null() == !isTheDisc);
}

TEST_CASE("A pulled disc keeps what was read, and the next reading goes on from there") {
    const Bench bench;
    const DiscImage image(bench.folder / "D", {3'000, 2'400});
    image.fail("pulled 11500");
    const auto broken = bench.disc({"read", image.sheet, "--to", bench.to}, true);
    CHECK(broken.code == 1);
    CHECK(broken.err.find("not there any more") != std::string::npos);
    const auto kept = bench.catalogue + ".discs/" + idOf(bench, image) + "/000000.sectors";
    REQUIRE(fs::exists(kept));
    const auto when = fs::last_write_time(kept);
    image.fail("unread 100 200 0"); // of what is kept already
    const auto read = bench.read(image, 0, {}, true);
    CHECK((decoded(read.at("tracks")[0].at("files")[0]) == image.track(0)));
    CHECK((decoded(read.at("tracks")[1].at("files")[0]) == image.track(1)));
    CHECK((fs::exists(kept) ? fs::last_write_time(kept) : when) == when);
}

TEST_CASE("What is no audio disc says why, and a drive that hangs is given up") {
    const Bench bench;
    const auto sentence = [&](const std::string& name, const std::string& sheet, std::size_t bytes) {
        writeFile(bench.folder / (name + ".cue"), sheet);
        if (bytes > 0) {
            writeFile(bench.folder / (name + ".bin"), std::string(bytes, '\1'));
        }
        const auto ran = bench.disc({"show", bench.folder / (name + ".cue")});
        CHECK(ran.code == 1);
        CHECK(std::ranges::count(ran.err, '\n') == 1);
        return ran.err;
    };
    const auto file = [](const std::string& name) { return "FILE \"" + name + ".bin\" BINARY\n"; };
    CHECK(sentence("gone", file("gone") + "  TRACK 01 AUDIO\n    INDEX 01 00:00:00\n", 0).find("missing") !=
          std::string::npos);
    CHECK(sentence("short",
                   file("short") +
                       "  TRACK 01 AUDIO\n    INDEX 01 00:00:00\n  TRACK 02 AUDIO\n    INDEX 01 00:10:00\n",
                   235'200)
              .find("shorter") != std::string::npos);
    CHECK(sentence("data", file("data") + "  TRACK 01 MODE1/2352\n    INDEX 01 00:00:00\n", 2'352'000)
              .find("data only") != std::string::npos);
    CHECK(sentence("turned",
                   file("turned") +
                       "  TRACK 01 AUDIO\n    INDEX 01 00:08:00\n  TRACK 02 AUDIO\n    INDEX 01 00:02:00\n",
                   2'352'000)
              .find("contradicts itself") != std::string::npos);
    CHECK(sentence("wave", "FILE \"wave.wav\" WAVE\n  TRACK 01 AUDIO\n    INDEX 01 00:00:00\n", 0)
              .find("another kind") != std::string::npos);
    CHECK_FALSE(sentence("junk", std::string("\0\xFF\x80 FILE", 9), 0).empty());

    const DiscImage image(bench.folder / "D", {320});
    image.fail("silent 100");
    ::setenv("SOBER_TRAY", UNSTEADY_TRAY, 1);
    RunControl control;
    auto tray = Tray::open(image.sheet, control, 1);
    ::unsetenv("SOBER_TRAY");
    REQUIRE(tray.ok());
    CHECK(tray->read(0, 20).ok());
    const auto hung = tray->read(100, 90);
    REQUIRE_FALSE(hung.ok());
    CHECK(hung.error().sentence.find("does not answer") != std::string::npos);
}

TEST_CASE("A disc of 99 tracks of four seconds is read to its last") {
    const Bench bench;
    std::string sheet = "FILE \"many.bin\" BINARY\n";
    for (int i = 0; i < 99; ++i) {
        sheet += fmt::format("  TRACK {:02} AUDIO\n    INDEX 01 {}\n", i + 1, DiscImage::time(i * 300));
    }
    std::mt19937 random(4);
    std::string samples(std::size_t{99} * 300 * discSectorBytes, '\0');
    for (std::size_t i = 0; i < samples.size(); i += 4) {
        const auto value = static_cast<std::uint32_t>(random());
        samples.replace(i, 4, reinterpret_cast<const char*>(&value), 4);
    }
    writeFile(bench.folder / "many.cue", sheet);
    writeFile(bench.folder / "many.bin", samples);
    const auto ran = bench.disc(
        {"read", bench.folder / "many.cue", "--to", bench.to, "--tracks", "1,98-99", "--form", "wav"});
    INFO(ran.err);
    REQUIRE(ran.code == 0);
    const auto read = json::parse(ran.out);
    REQUIRE(read.at("tracks").size() == 3);
    CHECK((samplesOf(read.at("tracks")[2].at("files")[0]) ==
           samples.substr(std::size_t{98} * 300 * discSectorBytes)));
}

TEST_CASE("A target without room is told before anything is read") {
    if (!canMount()) {
        WARN("Not run: no file systems can be mounted here.");
        return;
    }
    const Bench bench;
    const DiscImage image(bench.folder / "D", {900});
    TestMounts mounts;
    mounts.mount({"-t", "tmpfs", "-o", "size=400k", "none", bench.to});
    const auto ran = bench.disc({"read", image.sheet, "--to", bench.to});
    CHECK(ran.code == 1);
    CHECK(ran.err.find("room for") != std::string::npos);
}
