#include "demo/disc.h"

#include "core/disc/disc_contents.h"
#include "core/disc/sliding_crc.h"
#include "demo/repertoire.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

constexpr const char* album = "Kelp and Rosin";
constexpr std::size_t trackCount = 6;
constexpr int gap = 2 * sectorsPerSecond;
constexpr int driveOffset = 30; // samples
constexpr int scratch = 1'900;  // sectors that come out in the end
constexpr int hole = 2'200;     // sectors that nothing reads
constexpr int holeLength = 6;

struct MadeDisc {
    Samples samples;
    DiscContents contents;
    std::vector<Recording> tracks;
};

MadeDisc madeDisc() {
    MadeDisc made;
    for (auto& recording : repertoire()) {
        if (recording.tags.album == album && made.tracks.size() < trackCount) {
            made.tracks.push_back(std::move(recording));
        }
    }
    for (std::size_t i = 0; i < made.tracks.size(); ++i) {
        made.samples.resize(made.samples.size() + (i == 0 ? 0 : gap * sectorNumbers));
        DiscTrack track;
        track.number = static_cast<int>(i) + 1;
        track.firstSector = static_cast<int>(made.samples.size() / sectorNumbers);
        track.gap = i == 0 ? 0 : gap;
        auto samples = synthesise(made.tracks[i].piece);
        samples.resize((samples.size() + sectorNumbers - 1) / sectorNumbers * sectorNumbers);
        made.samples.insert(made.samples.end(), samples.begin(), samples.end());
        if (!made.contents.tracks.empty()) {
            auto& before = made.contents.tracks.back();
            before.sectors = track.firstSector - before.firstSector;
        }
        made.contents.tracks.push_back(track);
    }
    made.contents.leadOut = static_cast<int>(made.samples.size() / sectorNumbers);
    auto& last = made.contents.tracks.back();
    last.sectors = made.contents.leadOut - last.firstSector;
    return made;
}

std::span<const std::int16_t> samplesOf(const MadeDisc& made, const DiscTrack& track, int without) {
    return std::span(made.samples)
        .subspan(static_cast<std::size_t>(track.firstSector + without) * sectorNumbers,
                 static_cast<std::size_t>(track.sectors - 2 * without) * sectorNumbers);
}

std::string hexOf(std::uint32_t crc) {
    return fmt::format("{:08x}", crc);
}

std::string sheetOf(const MadeDisc& made) {
    auto sheet =
        fmt::format("CATALOG 4006381333931\nTITLE \"{}\"\nPERFORMER \"{}\"\nFILE \"KELP.bin\" BINARY\n",
                    album, made.tracks.front().tags.artist);
    const auto time = [](int sector) {
        return fmt::format("{:02}:{:02}:{:02}", sector / 75 / 60, sector / 75 % 60, sector % 75);
    };
    for (const auto& track : made.contents.tracks) {
        sheet += fmt::format("  TRACK {:02} AUDIO\n    ISRC QZPEL98000{:02}\n", track.number, track.number);
        sheet += track.gap > 0 ? fmt::format("    INDEX 00 {}\n", time(track.firstSector - track.gap))
                               : std::string();
        sheet += fmt::format("    INDEX 01 {}\n", time(track.firstSector));
    }
    return sheet;
}

} // namespace

bool makeDisc(const BytePath& folder) {
    const auto made = madeDisc();
    const auto place = joinPath(folder, "DISC");
    fs::create_directories(place);
    std::ofstream bin(joinPath(place, "KELP.bin"), std::ios::binary);
    bin.write(reinterpret_cast<const char*>(made.samples.data()),
              static_cast<std::streamsize>(made.samples.size() * sizeof(std::int16_t)));
    std::ofstream(joinPath(place, "KELP.cue")) << sheetOf(made);
    std::ofstream(joinPath(place, "KELP.faults")) << fmt::format(
        "offset {}\ncache 400\nslow 150\njitter 600 760 0.25 300\nunsteady {} {} 0.4\nunread {} {} 4\n"
        "unread {} {} 0\n",
        driveOffset, scratch, scratch + 40, scratch + 60, scratch + 70, hole, hole + holeLength - 1);
    Json reported = Json::array();
    Json named = Json::array();
    Json otherwise = Json::array();
    for (std::size_t i = 0; i < made.tracks.size(); ++i) {
        const auto& track = made.contents.tracks[i];
        reported.push_back(
            {{"number", track.number}, {"crc32", hexOf(crcOf(samplesOf(made, track, 5)))}, {"reported", 12}});
        named.push_back({{"title", made.tracks[i].tags.title}, {"artist", made.tracks[i].tags.artist}});
        otherwise.push_back({{"title", fmt::format("Reel No. {}", i + 1)}, {"artist", "Tidewrack"}});
    }
    const Json known = Json::array({{{"disc", discId(made.contents)},
                                     {"register", {{{"tracks", reported}}}},
                                     {"lookup",
                                      {{{"title", album},
                                        {"artist", made.tracks.front().tags.artist},
                                        {"date", "1998"},
                                        {"genre", "Folk"},
                                        {"tracks", named}},
                                       {{"title", "Dances of the Passage"},
                                        {"artist", "Tidewrack"},
                                        {"disc", 2},
                                        {"discs", 3},
                                        {"tracks", otherwise}}}}}});
    std::ofstream(joinPath(place, "discs.json")) << known.dump(1) << "\n";
    return bin.good();
}

Json discTruth() {
    const auto made = madeDisc();
    Json truth{{"sheet", "DISC/KELP.cue"},
               {"id", discId(made.contents)},
               {"offset", driveOffset},
               {"unread", {hole, hole + holeLength - 1}},
               {"crc32", Json::array()}};
    for (const auto& track : made.contents.tracks) {
        truth["crc32"].push_back(hexOf(crcOf(samplesOf(made, track, 0))));
    }
    return truth;
}

} // namespace sober::demo
