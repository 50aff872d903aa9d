#include "core/work/look_at_disc.h"

#include "core/base/http_exchange.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/layout.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <map>
#include <set>

namespace sober {
namespace {

/// By how much a file may be longer or shorter than its track, in seconds: encoders' padding, an end that was
/// cut (common practice, no source).
double sameLength(double seconds) {
    return std::clamp(0.015 * seconds, 0.3, 2.5);
}

/// The nearest holding of each track that lies in one folder.
struct Near {
    Holding holding;
    double distance = 0;
};
using OfFolder = std::map<std::size_t, Near>;

/// How far a holding is from being a track: seconds by which its length differs from the track's, with the
/// silence behind it or without, and another number counted like a second.
double distance(const Holding& holding, const DiscTrack& track, double least, double seconds) {
    const double length = holding.claims.duration;
    const double differs = std::min(std::abs(length - least), std::abs(length - seconds));
    return differs + (std::atoi(holding.tags.track.c_str()) == track.number ? 0 : 1);
}

DiscNames namesOf(const std::vector<Holding>& holdings) {
    DiscNames names{"the collection", {}, {}, {}, {}, 0, 0, {}};
    const auto& first = holdings.front();
    names.title = first.tags.album;
    names.artist = first.filing.albumArtist;
    names.date = first.tags.date;
    names.genre = first.filing.genre;
    names.disc = std::atoi(numberOf(first.filing.disc, 1).c_str());
    const bool isOne = std::ranges::all_of(
        holdings, [&](const Holding& each) { return each.tags.artist == first.tags.artist; });
    if (names.artist.empty() && isOne) {
        names.artist = first.tags.artist;
    }
    for (const auto& holding : holdings) {
        names.tracks.push_back({holding.tags.title, holding.tags.artist});
    }
    return names;
}

Result<std::vector<HeldDisc>> heldAs(const Catalogue& catalogue, const DiscContents& contents) {
    const auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    // Of one record: a folder may hold all kinds of things that are as long by chance.
    std::map<std::tuple<VolumeId, BytePath, std::string>, OfFolder> folders;
    std::size_t count = 0;
    for (std::size_t i = 0; i < contents.tracks.size(); ++i) {
        const auto& track = contents.tracks[i];
        if (!track.isAudio) {
            continue;
        }
        // With the silence before the next one, or without.
        const int gap = i + 1 < contents.tracks.size() ? contents.tracks[i + 1].gap : 0;
        const double seconds = static_cast<double>(track.sectors) / sectorsPerSecond;
        const double least = static_cast<double>(track.sectors - gap) / sectorsPerSecond;
        const auto alike =
            Holdings(catalogue).lasting(least - sameLength(least), seconds + sameLength(seconds));
        RETURN_IF_FAILED(alike);
        for (const auto& holding : *alike) {
            auto& folder = folders[{holding.volume, BytePath(parentOf(holding.path)), holding.tags.album}];
            const double now = distance(holding, track, least, seconds);
            const auto [place, isNew] = folder.try_emplace(count, Near{holding, now});
            if (!isNew && now < place->second.distance) {
                place->second = {holding, now};
            }
        }
        ++count;
    }
    std::vector<HeldDisc> held;
    for (auto& [key, tracks] : folders) {
        const auto volume = std::ranges::find(*volumes, std::get<0>(key), &Volume::id);
        std::set<HoldingId> different;
        for (const auto& [at, near] : tracks) {
            different.insert(near.holding.id);
        }
        if (volume == volumes->end() || different.size() < count || count < 2) {
            continue;
        }
        HeldDisc disc{joinPath(volume->root, std::get<1>(key)), {}, {}, 0};
        for (auto& [at, near] : tracks) {
            disc.distance += near.distance;
            disc.holdings.push_back(std::move(near.holding));
        }
        disc.names = namesOf(disc.holdings);
        held.push_back(std::move(disc));
    }
    std::ranges::stable_sort(held, {}, &HeldDisc::distance);
    return held;
}

} // namespace

std::string discQuestion(const DiscContents& contents) {
    nlohmann::json question{{"schema", "sober.disc-asked/1"},
                            {"disc", discId(contents)},
                            {"lead_out", contents.leadOut},
                            {"tracks", nlohmann::json::array()}};
    for (const auto& track : contents.tracks) {
        question["tracks"].push_back(track.firstSector);
    }
    return question.dump();
}

Result<DiscLook> lookAtDisc(const Catalogue* catalogue, const Tray& tray, const std::string& lookup,
                            RunControl& control) {
    DiscLook look{tray.contents(), discId(tray.contents()), {}, {}, {}};
    auto held = catalogue != nullptr ? heldAs(*catalogue, look.contents) : std::vector<HeldDisc>{};
    RETURN_IF_FAILED(held);
    look.held = std::move(*held);
    const auto add = [&look](DiscNames names) {
        const bool isNamed = !names.title.empty() || std::ranges::any_of(names.tracks, [](const auto& track) {
            return !track.title.empty();
        });
        const bool isKnown = std::ranges::any_of(look.names, [&](const DiscNames& each) {
            return each.title == names.title && each.artist == names.artist && each.tracks == names.tracks;
        });
        if (isNamed && !isKnown) {
            look.names.push_back(std::move(names));
        }
    };
    for (const auto& disc : look.held) {
        add(disc.names);
    }
    if (!lookup.empty()) {
        const HttpService service{"lookup", lookup, {}};
        const auto answer = askService(service, "discs", discQuestion(look.contents), control);
        const auto names =
            answer ? lookupFrom(*answer, look.contents) : Result<std::vector<DiscNames>>(answer.error());
        if (!names && names.error().cause == Cause::interrupted) {
            return names.error();
        }
        if (!names) {
            look.problem = names.error().sentence;
        } else {
            std::ranges::for_each(*names, add);
        }
    }
    add(namesOnDisc(look.contents));
    return look;
}

} // namespace sober
