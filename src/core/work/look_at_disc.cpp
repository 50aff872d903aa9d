#include "core/work/look_at_disc.h"

#include "core/base/http_exchange.h"
#include "core/base/text.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/layout.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <map>

namespace sober {
namespace {

/// By how much a file may be longer or shorter than its track: gaps that were left out or in, encoders'
/// padding (common practice, no source).
constexpr double sameLength = 2.5;

/// The holding of each track that lies in one folder.
using OfFolder = std::map<std::size_t, Holding>;

bool isNearer(const Holding& one, const Holding& other, int number, double seconds) {
    const auto key = [&](const Holding& each) {
        return std::pair(std::atoi(each.tags.track.c_str()) != number,
                         std::abs(each.claims.duration - seconds));
    };
    return key(one) < key(other);
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
    if (!volumes) {
        return volumes.error();
    }
    std::map<std::pair<VolumeId, BytePath>, OfFolder> folders;
    std::size_t count = 0;
    for (const auto& track : contents.tracks) {
        if (!track.isAudio) {
            continue;
        }
        const double seconds = static_cast<double>(track.sectors) / sectorsPerSecond;
        const double gap = static_cast<double>(track.gap) / sectorsPerSecond;
        const auto alike = Holdings(catalogue).lasting(seconds - sameLength - gap, seconds + sameLength);
        if (!alike) {
            return alike.error();
        }
        for (const auto& holding : *alike) {
            auto& folder = folders[{holding.volume, BytePath(parentOf(holding.path))}];
            const auto [place, isNew] = folder.try_emplace(count, holding);
            if (!isNew && isNearer(holding, place->second, track.number, seconds)) {
                place->second = holding;
            }
        }
        ++count;
    }
    std::vector<HeldDisc> held;
    for (auto& [key, tracks] : folders) {
        const auto volume = std::ranges::find(*volumes, key.first, &Volume::id);
        std::set<HoldingId> different;
        for (const auto& [at, holding] : tracks) {
            different.insert(holding.id);
        }
        if (volume == volumes->end() || different.size() < count || count < 2) {
            continue;
        }
        HeldDisc disc{joinPath(volume->root, key.second), {}, {}};
        for (auto& [at, holding] : tracks) {
            disc.holdings.push_back(std::move(holding));
        }
        disc.names = namesOf(disc.holdings);
        held.push_back(std::move(disc));
    }
    // Two tracks may be told apart by the lengths; the best tagged comes first.
    std::ranges::stable_sort(held, std::ranges::greater{}, [](const HeldDisc& disc) {
        return std::ranges::count_if(disc.names.tracks,
                                     [](const auto& track) { return !track.title.empty(); });
    });
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
    if (!held) {
        return held.error();
    }
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
