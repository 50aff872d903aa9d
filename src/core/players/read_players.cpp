#include "core/players/read_players.h"

#include "core/base/file_handle.h"
#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/players/list_reading.h"
#include "core/survey/walk.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <set>

namespace sober {
namespace {

/// The lists at a place, absolute.
std::vector<BytePath> listsAt(const BytePath& place, RunControl& control) {
    if (!isFolder(place)) {
        return isTaken(place) ? std::vector<BytePath>{place} : std::vector<BytePath>{};
    }
    std::vector<BytePath> lists;
    const auto walked = walkVolume(place, {}, {}, control);
    for (const auto& file : walked.files) {
        if (isListName(file.path)) {
            lists.push_back(joinPath(place, file.path));
        }
    }
    std::ranges::sort(lists);
    return lists;
}

class Reading {
  public:
    Reading(const Catalogue& catalogue, std::vector<Volume> volumes, std::vector<Player> players,
            RunControl& control, const ProgressSink& onProgress)
        : store_(catalogue),
          volumes_(std::move(volumes)),
          players_(std::move(players)),
          resolver_(volumes_),
          control_(control),
          onProgress_(onProgress) {}

    Result<PlayersRead> run() {
        const auto known = store_.lists();
        RETURN_IF_FAILED(known);
        for (const auto& list : *known) {
            known_.emplace(list.path, list);
        }
        for (const auto& player : players_) {
            RETURN_IF_FAILED(lookAt(player));
        }
        RETURN_IF_FAILED(settleAll());
        return result_;
    }

  private:
    Outcome lookAt(const Player& player) {
        std::vector<BytePath> found;
        for (const auto& place : player.places) {
            for (auto& list : listsAt(place, control_)) {
                found.push_back(std::move(list));
            }
        }
        std::vector<ListFileId> gone;
        for (const auto& [path, list] : known_) {
            const bool own = std::ranges::find(list.players, player.id) != list.players.end();
            if (!own || list.away || std::ranges::find(found, path) != found.end()) {
                continue;
            }
            // A folder that cannot be listed now has lost none of its lists.
            if (presenceOf(path) == Presence::gone) {
                gone.push_back(list.id);
            } else {
                found.push_back(path);
            }
        }
        if (const auto forgotten = store_.forgetLists(player.id, gone); !forgotten) {
            return forgotten;
        }
        for (const auto& path : found) {
            if (!control_.proceed()) {
                result_.interrupted = true;
                break;
            }
            progress_.at = displayPath(path);
            onProgress_(progress_);
            if (const auto taken = takeList(path, player); !taken) {
                return taken;
            }
            ++progress_.files;
        }
        return done();
    }

    Outcome takeList(const BytePath& path, const Player& player) {
        ++result_.lists;
        const auto before = known_.find(path);
        const bool isKnown = before != known_.end();
        const bool owns =
            isKnown && std::ranges::find(before->second.players, player.id) != before->second.players.end();
        const auto stamp = stampAt(path);
        const bool unchanged =
            isKnown && stamp && before->second.problem.empty() && before->second.stamp.size == stamp->size &&
            before->second.stamp.mtime == stamp->mtime && before->second.stamp.inode == stamp->inode;
        if (unchanged) {
            const auto kept =
                owns ? Result<ListFileId>(before->second.id) : store_.keepList(before->second, player.id);
            return kept ? done() : Outcome(kept.error());
        }
        auto list = isKnown ? before->second : ListFile{};
        list.path = path;
        list.stamp = stamp ? *stamp : FileStamp{};
        list.problem.clear();
        auto read = readList(path);
        if (!read) {
            result_.errors.push_back({path, read.error().sentence});
            list.problem = read.error().sentence;
        }
        list.asUri = read ? read->playlist.format == PlaylistFormat::xspf : list.asUri;
        if (!owns) {
            list.players.push_back(player.id);
        }
        // What could not be read stays as it was known.
        const auto id = read ? takeEntries(list, player, std::move(read->playlist.entries))
                             : store_.keepList(list, player.id);
        RETURN_IF_FAILED(id);
        list.id = *id;
        known_[path] = list;
        if (read) {
            settled_.insert(*id);
        }
        return done();
    }

    Result<ListFileId> takeEntries(const ListFile& list, const Player& player,
                                   std::vector<PlaylistEntry> entries) {
        ++result_.read;
        const auto old = list.id != 0 ? store_.references(list.id)
                                      : Result<std::vector<Reference>>(std::vector<Reference>{});
        RETURN_IF_FAILED(old);
        std::map<std::string_view, const Reference*> remembered;
        for (const auto& reference : *old) {
            remembered.emplace(reference.location, &reference);
        }
        std::vector<Reference> references;
        references.reserve(entries.size());
        for (auto& entry : entries) {
            Reference reference;
            reference.entry = references.size();
            reference.location = std::move(entry.location);
            reference.title = std::move(entry.title);
            reference.artist = std::move(entry.artist);
            reference.album = std::move(entry.album);
            reference.seconds = entry.seconds;
            if (const auto before = remembered.find(reference.location); before != remembered.end()) {
                reference.holding = before->second->holding;
                reference.content = before->second->content;
                reference.state = before->second->state;
                reference.path = before->second->path;
            }
            references.push_back(std::move(reference));
        }
        const auto context = contextOf(list, players_);
        std::vector<Reference> changed;
        changed.reserve(old->empty() ? references.size() : 0);
        for (auto& reference : references) {
            reference.list = list.id;
            settle(reference, context);
            if (reference.entry >= old->size() || reference != (*old)[reference.entry]) {
                changed.push_back(std::move(reference));
            }
        }
        result_.references += references.size();
        return store_.keepRead(list, player.id, std::move(changed), references.size());
    }

    /// True where that changes something.
    bool settle(Reference& reference, const ListContext& context) {
        auto resolution = resolver_.resolve(reference.location, context);
        auto& path = resolution.state == ReferenceState::loosely ? resolution.instead : resolution.path;
        if (resolution.state == reference.state && path == reference.path) {
            return false;
        }
        // What cannot be looked at now, or only could not a moment ago, leads where it led.
        const bool led =
            reference.state == ReferenceState::resolved || reference.state == ReferenceState::loosely;
        if (led && resolution.state == ReferenceState::broken &&
            presenceOf(reference.path) != Presence::gone) {
            return false;
        }
        reference.state = resolution.state;
        reference.path = std::move(path);
        return true;
    }

    Outcome settleAll() {
        const auto lists = store_.lists();
        RETURN_IF_FAILED(lists);
        for (const auto& list : *lists) {
            if (settled_.contains(list.id)) {
                continue;
            }
            std::vector<Reference> changed;
            auto references = store_.references(list.id);
            RETURN_IF_FAILED(references);
            const auto context = contextOf(list, players_);
            for (auto& reference : *references) {
                if (++result_.references % 4096 == 0 && !control_.proceed()) {
                    result_.interrupted = true;
                    break;
                }
                const bool becameAway = list.away && reference.state != ReferenceState::away &&
                                        reference.state != ReferenceState::stream;
                if (becameAway) {
                    reference.state = ReferenceState::away;
                }
                if (becameAway || (!list.away && settle(reference, context))) {
                    changed.push_back(std::move(reference));
                }
            }
            if (const auto settled = store_.settle(list.id, changed); !settled) {
                return settled;
            }
        }
        return done();
    }
    PlayerStore store_;
    std::vector<Volume> volumes_;
    std::vector<Player> players_;
    Resolver resolver_;
    RunControl& control_;
    const ProgressSink& onProgress_;
    std::map<BytePath, ListFile> known_;
    std::set<ListFileId> settled_; ///< read and resolved in this run
    PlayersRead result_;
    Progress progress_;
};

/// The root of the volume below which most absolute locations of these lists lead somewhere, which they do
/// not as they stand; "" where that is not so.
Result<BytePath> deviceRootOf(const Catalogue& catalogue, const Player& player) {
    const PlayerStore store(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto lists = store.lists();
    if (!volumes || !lists) {
        return volumes ? lists.error() : volumes.error();
    }
    Resolver resolver(*volumes);
    std::map<BytePath, std::uint64_t> better;
    std::uint64_t absolute = 0;
    for (const auto& list : *lists) {
        const auto volume = volumeHolding(*volumes, list.path);
        if (!volume || std::ranges::find(list.players, player.id) == list.players.end()) {
            continue;
        }
        const auto references = store.references(list.id);
        RETURN_IF_FAILED(references);
        auto context = contextOf(list, std::array{player});
        context.writtenPrefix.assign(1, '/');
        context.standsFor = (*volume)->root;
        for (const auto& reference : *references) {
            if (reference.location.starts_with('/') || reference.location.starts_with('\\')) {
                ++absolute;
                const bool helps =
                    reference.state == ReferenceState::broken &&
                    resolver.resolve(reference.location, context).state != ReferenceState::broken;
                better[context.standsFor] += helps ? 1 : 0;
            }
        }
    }
    for (const auto& [root, count] : better) {
        if (count * 2 > absolute) {
            return root;
        }
    }
    return BytePath();
}

} // namespace

Result<PlayersRead> readPlayers(const Catalogue& catalogue, RunControl& control,
                                const ProgressSink& onProgress) {
    auto players = PlayerStore(catalogue).all();
    auto volumes = Volumes(catalogue).all();
    if (!players || !volumes) {
        return players ? volumes.error() : players.error();
    }
    return Reading(catalogue, std::move(*volumes), std::move(*players), control, onProgress).run();
}

Result<Player> takeInPlayer(const Catalogue& catalogue, Player wanted, RunControl& control,
                            const ProgressSink& onProgress) {
    const PlayerStore store(catalogue);
    auto players = store.all();
    RETURN_IF_FAILED(players);
    for (auto& place : wanted.places) {
        const auto real = realPathOf(place);
        if (!real) {
            return Error{Cause::notFound, place, fmt::format("{} is not there.", displayPath(place))};
        }
        place = *real;
        if (listsAt(place, control).empty() || (!isFolder(place) && !isListName(place))) {
            return Error{Cause::invalid, place,
                         fmt::format("{} holds no list of a kind that is known (M3U, M3U8, PLS, XSPF, cue "
                                     "sheet).",
                                     displayPath(place))};
        }
    }
    if (wanted.places.empty()) {
        return Error{Cause::invalid, {}, "A player needs a list, or a folder that holds some."};
    }
    auto same = std::ranges::find_if(*players, [&](const Player& each) {
        return wanted.name.empty()
                   ? std::ranges::find(each.places, wanted.places.front()) != each.places.end()
                   : each.name == wanted.name;
    });
    const bool isNew = same == players->end();
    Player player = wanted;
    if (!isNew) {
        player = *same;
        for (const auto& place : wanted.places) {
            if (std::ranges::find(player.places, place) == player.places.end()) {
                player.places.push_back(place);
            }
        }
        player.ignoresCase = player.ignoresCase || wanted.ignoresCase;
        if (!wanted.writtenPrefix.empty()) {
            player.writtenPrefix = wanted.writtenPrefix;
            player.standsFor = wanted.standsFor;
        }
        RETURN_IF_FAILED(store.update(player));
    } else {
        if (player.name.empty()) {
            player.name = displayPath(stemOf(nameOf(player.places.front())));
        }
        const auto added = store.add(player);
        RETURN_IF_FAILED(added);
        player = *added;
    }
    RETURN_IF_FAILED(readPlayers(catalogue, control, onProgress));
    if (isNew && player.writtenPrefix.empty()) {
        const auto root = deviceRootOf(catalogue, player);
        RETURN_IF_FAILED(root);
        if (!root->empty()) {
            player.writtenPrefix.assign(1, '/');
            player.standsFor = *root;
            RETURN_IF_FAILED(store.update(player));
            RETURN_IF_FAILED(readPlayers(catalogue, control, onProgress));
        }
    }
    return player;
}

} // namespace sober
