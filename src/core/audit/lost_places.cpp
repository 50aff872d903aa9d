#include "core/audit/lost_places.h"

#include "core/catalogue/volumes.h"
#include "core/players/list_reading.h"

#include <algorithm>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

class Gathering {
  public:
    Gathering(std::vector<Volume> volumes, std::vector<Player> players, std::vector<ListFile> lists,
              std::vector<BytePath> writtenOff)
        : volumes_(std::move(volumes)),
          players_(std::move(players)),
          lists_(std::move(lists)),
          writtenOff_(writtenOff.begin(), writtenOff.end()),
          resolver_(volumes_) {
        for (const auto& list : lists_) {
            contexts_.emplace(
                list.id, Context{&list, contextOf(list, players_), ignoresCase(list), rootAround(list.path)});
        }
    }

    /// One that leads nowhere or only loosely.
    void take(Reference reference) {
        const auto found = contexts_.find(reference.list);
        if (found == contexts_.end()) {
            return;
        }
        const auto& context = found->second;
        const bool worksThere = reference.state == ReferenceState::loosely && context.ignoresCase;
        const bool leadsNowhere = reference.state == ReferenceState::broken ||
                                  (reference.state == ReferenceState::loosely && !worksThere);
        if (leadsNowhere && writtenOff_.contains(reference.path)) {
            return;
        }
        ++result_.all;
        result_.resolved += worksThere ? 1 : 0;
        const auto place = placeOf(reference, context);
        addTo(place, std::move(reference), worksThere);
    }

    LostPlaces finish() { return std::move(result_); }

  private:
    struct Context {
        const ListFile* list;
        ListContext reading;
        bool ignoresCase;
        BytePath root; ///< of the volume that the list is on, "" for none
    };

    bool ignoresCase(const ListFile& list) const {
        return std::ranges::all_of(list.players, [&](PlayerId id) {
            const auto player = std::ranges::find(players_, id, &Player::id);
            return player != players_.end() && player->ignoresCase;
        });
    }

    BytePath rootAround(const BytePath& path) const {
        BytePath root;
        for (const auto& volume : volumes_) {
            root = isWithin(path, volume.root) && volume.root.size() > root.size() ? volume.root : root;
        }
        return root;
    }

    /// Lists that lead to one place from within a volume and from outside mean two things by it: the first
    /// must stay within.
    std::size_t placeOf(const Reference& reference, const Context& context) {
        const bool stays =
            !context.root.empty() && isWithin(reference.path, context.root) &&
            meaningOf(reference.location, context.reading.asUri, context.reading.folder).relative;
        const auto [place, isNew] = known_.emplace(reference.path, result_.places.size());
        if (isNew) {
            LostPlace lost;
            lost.path = reference.path;
            result_.places.push_back(std::move(lost));
            result_.byPlace.emplace_back();
            result_.resolvedAnyway.push_back(0);
        }
        auto& lost = result_.places[place->second];
        if (stays) {
            lost.within = context.root;
        }
        if (reference.state == ReferenceState::loosely) {
            lost.nearly = reference.path;
        } else if (reference.location.find('%') != std::string::npos && lost.nearly.empty()) {
            lost.nearly = resolver_.resolve(reference.location, context.reading).instead;
        }
        return place->second;
    }

    void addTo(std::size_t at, Reference reference, bool worksThere) {
        auto& lost = result_.places[at];
        const auto fill = [](std::string& into, const std::string& from) {
            if (into.empty()) {
                into = from;
            }
        };
        fill(lost.title, reference.title);
        fill(lost.artist, reference.artist);
        fill(lost.album, reference.album);
        lost.seconds = lost.seconds > 0 ? lost.seconds : reference.seconds;
        ++lost.references;
        result_.resolvedAnyway[at] += worksThere ? 1 : 0;
        result_.byPlace[at].push_back(result_.references.size());
        result_.references.push_back(std::move(reference));
    }

    std::vector<Volume> volumes_;
    std::vector<Player> players_;
    std::vector<ListFile> lists_;
    std::unordered_set<BytePath> writtenOff_;
    Resolver resolver_;
    std::unordered_map<ListFileId, Context> contexts_;
    std::unordered_map<BytePath, std::size_t> known_;
    LostPlaces result_;
};

/// What was catalogued at the lost places, or was what their references led to when they last did.
Outcome rememberFormer(const Catalogue& catalogue, LostPlaces& lost) {
    std::vector<BytePath> paths;
    for (const auto& place : lost.places) {
        paths.push_back(place.path);
    }
    const FormerPlaces former(catalogue);
    auto found = former.at(paths);
    RETURN_IF_FAILED(found);
    std::vector<HoldingId> ids;
    for (const auto& reference : lost.references) {
        if (reference.holding != 0) {
            ids.push_back(reference.holding);
        }
    }
    std::ranges::sort(ids);
    ids.erase(std::ranges::unique(ids).begin(), ids.end());
    const auto known = former.byIds(ids);
    RETURN_IF_FAILED(known);
    std::unordered_map<HoldingId, const FormerHolding*> byId;
    for (const auto& holding : *known) {
        byId.emplace(holding.id, &holding);
    }
    for (std::size_t at = 0; at < lost.places.size(); ++at) {
        auto& place = lost.places[at];
        place.former = std::move((*found)[at]);
        for (const auto index : lost.byPlace[at]) {
            const auto& reference = lost.references[index];
            const auto holding = byId.find(reference.holding);
            if (holding == byId.end() || std::ranges::find(place.former, reference.holding,
                                                           &FormerHolding::id) != place.former.end()) {
                continue;
            }
            place.former.push_back(*holding->second);
            if (reference.content) {
                place.former.back().content = *reference.content;
            }
        }
    }
    return done();
}

} // namespace

Result<LostPlaces> lostPlaces(const Catalogue& catalogue) {
    const PlayerStore store(catalogue);
    auto volumes = Volumes(catalogue).all();
    auto players = store.all();
    auto lists = store.lists();
    auto references = store.unresolved();
    const auto settled = store.settled();
    auto writtenOff = store.writtenOff();
    if (!volumes || !players || !lists) {
        return !volumes ? volumes.error() : !players ? players.error() : lists.error();
    }
    if (!references || !writtenOff || !settled) {
        return !references ? references.error() : !writtenOff ? writtenOff.error() : settled.error();
    }
    Gathering gathering(std::move(*volumes), std::move(*players), std::move(*lists), std::move(*writtenOff));
    for (auto& reference : *references) {
        gathering.take(std::move(reference));
    }
    auto lost = gathering.finish();
    lost.all += settled->resolved + settled->away;
    lost.resolved += settled->resolved;
    const auto remembered = rememberFormer(catalogue, lost);
    return remembered ? Result<LostPlaces>(std::move(lost)) : remembered.error();
}

} // namespace sober
