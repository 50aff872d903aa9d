#include "core/remedy/docket/list_differences.h"

#include <algorithm>

namespace sober {
namespace {

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

} // namespace

Result<std::vector<ListDifference>> listDifferences(const Catalogue& catalogue, const DocketReview& review) {
    const auto shelf = PlayerShelf::of(catalogue);
    const auto newPlaces = newPlacesOf(review);
    const auto lists = shelf ? listsConcerned(catalogue, *shelf, newPlaces)
                             : Result<std::vector<ConcernedList>>(shelf.error());
    RETURN_IF_FAILED(lists);
    Resolver resolver(shelf->volumes);
    std::vector<ListDifference> differences;
    for (const auto& concerned : *lists) {
        const auto* list = concerned.file;
        ListDifference difference;
        difference.list = list->path;
        for (const auto& player : shelf->players) {
            if (std::ranges::find(list->players, player.id) != list->players.end()) {
                difference.players.push_back(player.name);
            }
        }
        const auto refusal = shelf->whyNever(*list);
        const auto read =
            refusal ? Result<ReadList>(refusedError(list->path, *refusal)) : readList(list->path);
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

} // namespace sober
