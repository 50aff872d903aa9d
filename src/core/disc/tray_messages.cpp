#include "core/disc/tray_messages.h"

#include "core/base/text.h"

namespace sober {

Json shapeOf(const DiscContents& contents) {
    Json json{{"device", contents.device}, {"media_number", contents.mediaNumber}, {"title", contents.title},
              {"artist", contents.artist}, {"lead_out", contents.leadOut},         {"tracks", Json::array()}};
    for (const auto& track : contents.tracks) {
        json["tracks"].push_back({{"number", track.number},
                                  {"first", track.firstSector},
                                  {"sectors", track.sectors},
                                  {"gap", track.gap},
                                  {"audio", track.isAudio},
                                  {"pre_emphasis", track.preEmphasis},
                                  {"may_copy", track.mayCopy},
                                  {"isrc", track.isrc},
                                  {"title", track.title},
                                  {"artist", track.artist},
                                  {"marks", track.marks}});
    }
    return json;
}

void takeFrom(const Json& json, DiscContents& contents) {
    contents.device = json.at("device");
    contents.mediaNumber = json.at("media_number");
    contents.title = json.at("title");
    contents.artist = json.at("artist");
    contents.leadOut = json.at("lead_out");
    for (const auto& each : json.at("tracks")) {
        DiscTrack track;
        track.number = each.at("number");
        track.firstSector = each.at("first");
        track.sectors = each.at("sectors");
        track.gap = each.at("gap");
        track.isAudio = each.at("audio");
        track.preEmphasis = each.at("pre_emphasis");
        track.mayCopy = each.at("may_copy");
        track.isrc = each.at("isrc");
        track.title = each.at("title");
        track.artist = each.at("artist");
        track.marks = each.at("marks").get<std::vector<int>>();
        contents.tracks.push_back(std::move(track));
    }
}

} // namespace sober
