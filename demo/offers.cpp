#include "demo/offers.h"

#include "demo/encode.h"
#include "demo/synth.h"

#include <nlohmann/json.hpp>

#include <filesystem>
#include <fstream>

namespace sober::demo {
namespace {

namespace fs = std::filesystem;
using Json = nlohmann::ordered_json;

struct PlantedOffer {
    std::string file;
    std::string title;
    Piece piece;
    bool isFalse; ///< an MP3 of 96 kbit/s, raised
    std::string expected;
};

const std::vector<PlantedOffer>& plannedOffers() {
    static const std::vector<PlantedOffer> offers{
        {"sea_wall_march.flac", "Sea Wall March", {Voice::brass, 901, 18, 104}, false, "better"},
        {"fender_and_rope.mp3", "Fender and Rope", {Voice::bells, 903, 16, 100}, true, "not-better"},
        {"slack_tide.flac", "Slack Tide", {Voice::bells, 985, 16, 80}, false, "only-tags"},
        {"the_gauge_board.flac", "The Gauge Board", {Voice::brass, 902, 24, 88}, false, "other-length"}};
    return offers;
}

} // namespace

bool makeOffers(const BytePath& folder) {
    const std::string artist = "Pell Silver Band";
    const auto at = [&](const std::string& name) { return joinPath(folder, "OFFERS/" + name); };
    fs::create_directories(joinPath(folder, "OFFERS"));
    Json listed = Json::array();
    for (const auto& offer : plannedOffers()) {
        const TagSet tags{offer.title, artist, "Sea Wall Concerts", 0, 2016};
        const auto low = at("low.mp3");
        const bool made = offer.isFalse ? encode(synthesise(offer.piece), tags, low, {"-b:a", "96k"}) &&
                                              runQuietly({"ffmpeg", "-v", "error", "-y", "-i", low, "-b:a",
                                                          "320k", at(offer.file)}) == 0
                                        : encode(synthesise(offer.piece), tags, at(offer.file));
        if (!made) {
            return false;
        }
        fs::remove(low);
        const bool isLossless = offer.file.ends_with("flac");
        listed.push_back({{"file", offer.file},
                          {"title", offer.title},
                          {"artist", artist},
                          {"seconds", offer.piece.seconds},
                          {"codec", isLossless ? "flac" : "mp3"},
                          {"lossless", isLossless},
                          {"bitrate", isLossless ? 900'000 : 320'000}});
    }
    std::ofstream(at("offers.json")) << listed.dump(1) << "\n";
    return true;
}

Json offersTruth() {
    Json truth = Json::array();
    for (const auto& offer : plannedOffers()) {
        truth.push_back(
            {{"file", "OFFERS/" + offer.file}, {"title", offer.title}, {"expected", offer.expected}});
    }
    return truth;
}

} // namespace sober::demo
