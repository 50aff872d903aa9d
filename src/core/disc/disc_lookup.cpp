#include "core/disc/disc_lookup.h"

#include "core/base/text.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace sober {
namespace {

using Json = nlohmann::json;

constexpr std::size_t mostAnswers = 100;
constexpr std::size_t longestTitle = 500; // bytes

/// Text of a foreign service, in one line and of a length that a tag may have.
std::string plain(const Json& json, const char* name) {
    auto text = repairedUtf8(json.value(name, std::string()).substr(0, longestTitle));
    std::erase_if(text, [](char each) { return static_cast<unsigned char>(each) < 0x20 || each == 0x7F; });
    while (!isUtf8(text)) {
        text.pop_back();
    }
    return text;
}

} // namespace

bool DiscNames::isOfSeveral() const {
    return std::ranges::any_of(
        tracks, [this](const Track& track) { return !track.artist.empty() && track.artist != artist; });
}

Result<std::vector<DiscNames>> lookupFrom(std::string_view text, const DiscContents& contents) {
    const Error nonsense{Cause::damaged, {}, "The lookup answers what is no answer."};
    const auto audio = static_cast<std::size_t>(std::ranges::count_if(contents.tracks, &DiscTrack::isAudio));
    const auto json = Json::parse(text, nullptr, false);
    try {
        if (json.at("schema") != "sober.lookup/1") {
            return nonsense;
        }
        std::vector<DiscNames> answers;
        for (const auto& disc : json.at("discs")) {
            if (disc.at("tracks").size() != audio || answers.size() == mostAnswers) {
                continue;
            }
            DiscNames names{"the lookup",
                            plain(disc, "title"),
                            plain(disc, "artist"),
                            plain(disc, "date"),
                            plain(disc, "genre"),
                            std::clamp(disc.value("disc", 0), 0, 999),
                            std::clamp(disc.value("discs", 0), 0, 999),
                            {}};
            for (const auto& track : disc.at("tracks")) {
                names.tracks.push_back(
                    {plain(track, "title"), plain(track, "artist"), plain(track, "composer"), {}});
            }
            answers.push_back(std::move(names));
        }
        return answers;
    } catch (const Json::exception&) {
        return nonsense;
    }
}

DiscNames namesOnDisc(const DiscContents& contents) {
    DiscNames names{"the disc itself", contents.title, contents.artist, {}, {}, 0, 0, {}};
    for (const auto& track : contents.tracks) {
        if (track.isAudio) {
            names.tracks.push_back({track.title, track.artist, {}, {}});
        }
    }
    return names;
}

} // namespace sober
