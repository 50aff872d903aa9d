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

/// The lists that lead to one of the old places, and those that were changed since they were read.
Result<std::vector<const ListFile*>> concerned(const Catalogue& catalogue, const PlayerShelf& shelf,
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

/// Rewrites several lists: first all are read and what cannot be done in one of them is left in all, so that
/// none is changed for nothing; then they are written one after another.
class Rewriting {
  public:
    Rewriting(const Catalogue& catalogue, const PlayerShelf& shelf, std::vector<const ListFile*> lists,
              NewPlaces places)
        : catalogue_(catalogue),
          shelf_(shelf),
          lists_(std::move(lists)),
          places_(std::move(places)),
          resolver_(shelf.volumes) {}

    Outcome prepare() {
        for (bool again = true; again;) {
            const auto leftBefore = result_.left.size();
            prepared_.clear();
            for (const auto* list : lists_) {
                if (const auto looked = prepareOne(*list); !looked) {
                    return looked;
                }
            }
            again = result_.left.size() > leftBefore;
        }
        return done();
    }

    Outcome write(EntryId entry, RunControl& control, const CarryOutHooks& hooks) {
        const LedgerStore ledger(catalogue_);
        for (const auto& [list, read, rewritten] : prepared_) {
            auto why = std::string("Stopped before this list was changed.");
            result_.interrupted = result_.interrupted || !control.proceed();
            if (!result_.interrupted) {
                const auto changed = changeList(ledger, entry, list->path, read, rewritten.text, hooks);
                if (changed) {
                    result_.references += rewritten.changes.size();
                    continue;
                }
                why = changed.error().sentence;
            }
            if (const auto left = leaveAllOf(*list, why); !left) {
                return left;
            }
        }
        return done();
    }

    TakenAlong result() { return std::move(result_); }

  private:
    struct Prepared {
        const ListFile* list;
        ReadList read;
        RewrittenList rewritten;
    };

    Outcome prepareOne(const ListFile& list) {
        if (list.away) {
            return leaveAllOf(list, awaySentence(list.path));
        }
        auto read = readList(list.path);
        auto rewritten = read ? rewrittenList(list, *read, contextOf(list, shelf_.players), resolver_,
                                              shelf_.volumes, places_)
                              : Result<RewrittenList>(read.error());
        if (!rewritten) {
            return leaveAllOf(list, rewritten.error().sentence);
        }
        for (const auto& each : rewritten->unreachable) {
            leave(each.place, each.sentence);
        }
        if (rewritten->changes.empty()) {
            return done();
        }
        if (const auto refusal = whyNotChange(list.path)) {
            return leaveAllOf(list, *refusal);
        }
        prepared_.push_back({&list, std::move(*read), std::move(*rewritten)});
        return done();
    }

    void leave(const BytePath& place, const std::string& sentence) {
        places_.erase(place);
        result_.left.push_back({place, sentence});
    }

    Outcome leaveAllOf(const ListFile& list, const std::string& sentence) {
        const auto own = PlayerStore(catalogue_).references(list.id);
        if (!own) {
            return own.error();
        }
        for (const auto& reference : *own) {
            if (places_.contains(reference.path)) {
                leave(reference.path, sentence);
            }
        }
        return done();
    }

    const Catalogue& catalogue_;
    const PlayerShelf& shelf_;
    std::vector<const ListFile*> lists_;
    NewPlaces places_;
    Resolver resolver_;
    std::vector<Prepared> prepared_;
    TakenAlong result_;
};

} // namespace

Result<PlayerShelf> PlayerShelf::of(const Catalogue& catalogue) {
    auto volumes = Volumes(catalogue).all();
    auto players = PlayerStore(catalogue).all();
    auto lists = PlayerStore(catalogue).lists();
    if (!volumes || !players || !lists) {
        return !volumes ? volumes.error() : !players ? players.error() : lists.error();
    }
    return PlayerShelf{std::move(*volumes), std::move(*players), std::move(*lists)};
}

const ListFile* PlayerShelf::list(ListFileId id) const {
    const auto found = std::ranges::find(lists, id, &ListFile::id);
    return found != lists.end() ? &*found : nullptr;
}

Result<BytePath> placeForReferences(const PlayerShelf& shelf, const BytePath& place,
                                    std::span<const Reference> references,
                                    std::span<const BytePath> candidates) {
    std::string reason = "No copy that stays could take its references over.";
    for (const auto& reference : references) {
        const auto* list = shelf.list(reference.list);
        auto refusal = list == nullptr || list->away
                           ? std::optional(awaySentence(list != nullptr ? list->path : BytePath()))
                           : whyNeverChange(list->path);
        if (refusal) {
            return Error{Cause::refused, place, std::move(*refusal)};
        }
    }
    for (const auto& candidate : candidates) {
        const bool reached = std::ranges::all_of(references, [&](const Reference& reference) {
            const auto* list = shelf.list(reference.list);
            const auto location = locationLeadingTo(candidate, place, reference.location, *list,
                                                    contextOf(*list, shelf.players), shelf.volumes);
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
    const auto shelf = PlayerShelf::of(catalogue);
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
    const auto shelf = PlayerShelf::of(catalogue);
    const auto lists =
        shelf ? concerned(catalogue, *shelf, newPlaces) : Result<std::vector<const ListFile*>>(shelf.error());
    if (!lists) {
        return lists.error();
    }
    Rewriting rewriting(catalogue, *shelf, *lists, newPlaces);
    if (const auto prepared = rewriting.prepare(); !prepared) {
        return prepared.error();
    }
    if (const auto written = rewriting.write(entry, control, hooks); !written) {
        return written.error();
    }
    if (!lists->empty()) {
        // What was written has to be known, whether or not the rest is given up.
        RunControl toTheEnd;
        if (const auto again = readPlayers(catalogue, toTheEnd); !again) {
            return again.error();
        }
    }
    return rewriting.result();
}

} // namespace sober
