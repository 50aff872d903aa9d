#include "core/remedy/references_along.h"

#include "core/base/text.h"
#include "core/catalogue/volumes.h"
#include "core/players/read_players.h"
#include "core/remedy/docket.h"
#include "core/remedy/list_change.h"

#include <algorithm>
#include <set>

namespace sober {
namespace {

/// Everything that is needed to read and write the players' lists.
struct Shelf {
    std::vector<Volume> volumes;
    std::vector<Player> players;
    std::vector<ListFile> lists;

    const ListFile* list(ListFileId id) const {
        const auto found = std::ranges::find(lists, id, &ListFile::id);
        return found != lists.end() ? &*found : nullptr;
    }
};

Result<Shelf> shelfOf(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    auto players = PlayerStore(catalogue).all();
    auto lists = PlayerStore(catalogue).lists();
    if (!volumes || !players || !lists) {
        return !volumes ? volumes.error() : !players ? players.error() : lists.error();
    }
    return Shelf{std::move(*volumes), std::move(*players), std::move(*lists)};
}

/// The lists that lead to one of the old places, and those that were changed since they were read.
Result<std::vector<const ListFile*>> concerned(const Catalogue& catalogue, const Shelf& shelf,
                                               const NewPlaces& newPlaces) {
    std::vector<BytePath> places;
    for (const auto& [from, to] : newPlaces) {
        places.push_back(from);
    }
    const auto references = PlayerStore(catalogue).leadingTo(places);
    if (!references) {
        return references.error();
    }
    std::set<ListFileId> ids;
    for (const auto& reference : *references) {
        ids.insert(reference.list);
    }
    std::vector<const ListFile*> lists;
    for (const auto& list : shelf.lists) {
        const auto now = list.away ? Result<FileStamp>(Error{Cause::notFound, {}, {}}) : stampAt(list.path);
        const bool changed = now && (now->mtime != list.stamp.mtime || now->size != list.stamp.size ||
                                     now->inode != list.stamp.inode);
        if (ids.contains(list.id) || changed) {
            lists.push_back(&list);
        }
    }
    return lists;
}

/// Where references lead once an action is carried out: what it moves or retires, and what it repoints.
NewPlaces newPlacesOf(const DocketReview& review) {
    NewPlaces places;
    for (const auto& planned : review.actions) {
        if (!planned.refused && !planned.target.empty()) {
            places.emplace(planned.path, planned.target);
        }
    }
    return places;
}

std::string awaySentence(const BytePath& list) {
    return "The list " + displayPath(list) + " leads there and is away now; connect its volume first.";
}

} // namespace

Result<BytePath> placeForReferences(const Catalogue& catalogue, const BytePath& place,
                                    std::span<const Reference> references,
                                    std::span<const BytePath> candidates) {
    const auto shelf = shelfOf(catalogue);
    if (!shelf) {
        return shelf.error();
    }
    std::string reason = "No copy that stays could take its references over.";
    for (const auto& reference : references) {
        const auto* list = shelf->list(reference.list);
        auto refusal = list == nullptr || list->away
                           ? std::optional(awaySentence(list != nullptr ? list->path : BytePath()))
                           : whyNeverChange(list->path);
        if (refusal) {
            return Error{Cause::refused, place, std::move(*refusal)};
        }
    }
    for (const auto& candidate : candidates) {
        const bool reached = std::ranges::all_of(references, [&](const Reference& reference) {
            const auto* list = shelf->list(reference.list);
            const auto location = locationLeadingTo(candidate, place, reference.location, *list,
                                                    contextOf(*list, shelf->players), shelf->volumes);
            reason = location ? reason : location.error().sentence;
            return location.ok();
        });
        if (reached) {
            return candidate;
        }
    }
    return Error{Cause::refused, place, reason};
}

Result<std::vector<ListDifference>> listDifferences(const Catalogue& catalogue, const DocketReview& review) {
    const auto shelf = shelfOf(catalogue);
    const auto newPlaces = newPlacesOf(review);
    const auto lists =
        shelf ? concerned(catalogue, *shelf, newPlaces) : Result<std::vector<const ListFile*>>(shelf.error());
    if (!lists) {
        return lists.error();
    }
    Resolver resolver(shelf->volumes);
    std::vector<ListDifference> differences;
    for (const auto* list : *lists) {
        ListDifference difference;
        difference.list = list->path;
        for (const auto& player : shelf->players) {
            if (std::ranges::find(list->players, player.id) != list->players.end()) {
                difference.players.push_back(player.name);
            }
        }
        const auto refusal =
            list->away ? std::optional(awaySentence(list->path)) : whyNeverChange(list->path);
        const auto read =
            refusal ? Result<ReadList>(Error{Cause::refused, list->path, *refusal}) : readList(list->path);
        if (!read) {
            difference.refusal = read.error().sentence;
        } else if (auto rewritten = rewrittenList(*list, *read, contextOf(*list, shelf->players), resolver,
                                                  shelf->volumes, newPlaces)) {
            difference.changes = std::move(rewritten->changes);
            difference.unreachable = std::move(rewritten->unreachable);
        } else {
            difference.refusal = rewritten.error().sentence;
        }
        if (!difference.changes.empty() || !difference.unreachable.empty() || !difference.refusal.empty()) {
            differences.push_back(std::move(difference));
        }
    }
    return differences;
}

Result<TakenAlong> takeReferencesAlong(const Catalogue& catalogue, EntryId entry, const NewPlaces& newPlaces,
                                       RunControl& control, const CarryOutHooks& hooks) {
    TakenAlong result;
    const auto shelf = shelfOf(catalogue);
    const auto lists =
        shelf ? concerned(catalogue, *shelf, newPlaces) : Result<std::vector<const ListFile*>>(shelf.error());
    if (!lists) {
        return lists.error();
    }
    const LedgerStore ledger(catalogue);
    Resolver resolver(shelf->volumes);
    for (const auto* list : *lists) {
        const auto leaveAll = [&](const std::string& sentence) -> Outcome {
            const auto own = PlayerStore(catalogue).references(list->id);
            if (!own) {
                return own.error();
            }
            for (const auto& reference : *own) {
                const auto found = newPlaces.find(reference.path);
                if (found != newPlaces.end()) {
                    result.left.push_back({reference.path, sentence});
                }
            }
            return done();
        };
        if (!control.proceed()) {
            result.interrupted = true;
        }
        auto outcome = result.interrupted ? leaveAll("Stopped before this list was changed.")
                       : list->away       ? leaveAll(awaySentence(list->path))
                                          : done();
        if (!outcome) {
            return outcome.error();
        }
        if (result.interrupted || list->away) {
            continue;
        }
        const auto read = readList(list->path);
        auto rewritten = read ? rewrittenList(*list, *read, contextOf(*list, shelf->players), resolver,
                                              shelf->volumes, newPlaces)
                              : Result<RewrittenList>(read.error());
        if (rewritten && !rewritten->changes.empty()) {
            if (const auto changed = changeList(ledger, entry, list->path, *read, rewritten->text, hooks);
                !changed) {
                rewritten = changed.error();
            }
        }
        if (!rewritten) {
            if (outcome = leaveAll(rewritten.error().sentence); !outcome) {
                return outcome.error();
            }
            continue;
        }
        result.references += rewritten->changes.size();
        std::ranges::move(rewritten->unreachable, std::back_inserter(result.left));
    }
    if (!lists->empty()) {
        // What was written has to be known, whether or not the rest is given up.
        RunControl toTheEnd;
        if (const auto again = readPlayers(catalogue, toTheEnd); !again) {
            return again.error();
        }
    }
    return result;
}

} // namespace sober
