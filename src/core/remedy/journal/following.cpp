#include "core/remedy/journal/following.h"

#include "core/base/text.h"
#include "core/remedy/journal/list_change.h"

#include <algorithm>

namespace sober {

Result<Following> Following::lead(const Catalogue& catalogue, EntryId entry, NewPlaces places,
                                  RunControl& control, const CarryOutHooks& hooks, WrittenLists* written) {
    auto shelf = places.empty() ? Result(PlayerShelf{}) : PlayerShelf::of(catalogue);
    RETURN_IF_FAILED(shelf);
    Following following(catalogue, entry, std::move(*shelf), std::move(places), written);
    const auto lists = listsConcerned(catalogue, following.shelf_, following.places_);
    RETURN_IF_FAILED(lists);
    RETURN_IF_FAILED(following.prepare(*lists));
    const auto outcome = following.write(control, hooks);
    return outcome ? Result(std::move(following)) : Result<Following>(outcome.error());
}

Outcome Following::prepare(std::span<const ListFile* const> lists) {
    Resolver resolver(shelf_.volumes);
    for (bool again = !lists.empty(); again;) {
        const auto leftBefore = left_.size();
        changes_.clear();
        for (const auto* list : lists) {
            if (const auto looked = prepareOne(*list, resolver); !looked) {
                return looked;
            }
        }
        again = left_.size() > leftBefore;
    }
    led_ = places_;
    return done();
}

Outcome Following::prepareOne(const ListFile& list, Resolver& resolver) {
    if (list.away || shelf_.unsettled.contains(list.path)) {
        return leaveAllOf(list, *shelf_.whyNever(list));
    }
    auto read = readList(list.path);
    auto rewritten =
        read ? rewrittenList(list, *read, contextOf(list, shelf_.players), resolver, shelf_.volumes, places_)
             : Result<RewrittenList>(read.error());
    if (!rewritten) {
        return leaveAllOf(list, rewritten.error().sentence);
    }
    const auto lacks = lacksEntries(list, *read, rewritten->changes.size() + rewritten->unreachable.size());
    RETURN_IF_FAILED(lacks);
    if (*lacks) {
        return leaveAllOf(list,
                          "The list " + displayPath(list.path) +
                              " leads there by an entry that cannot be looked at now. Look to its drive, "
                              "then try again.");
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
    changes_.push_back({&list, std::move(*read), std::move(*rewritten)});
    return done();
}

Result<bool> Following::lacksEntries(const ListFile& list, const ReadList& read, std::size_t found) const {
    // What its player wrote since it was read says itself where it leads.
    const auto& stamp = list.stamp;
    bool isAsKnown =
        read.stamp.inode == stamp.inode && read.stamp.size == stamp.size && read.stamp.mtime == stamp.mtime;
    if (!isAsKnown && written_ != nullptr) {
        const auto ours = written_->find(list.path);
        isAsKnown = ours != written_->end() && ours->second == checksumOfText(read.text);
    }
    if (!isAsKnown) {
        return false;
    }
    const auto known = PlayerStore(*catalogue_).references(list.id);
    RETURN_IF_FAILED(known);
    const auto leading = std::ranges::count_if(*known, [&](const Reference& reference) {
        const auto place = places_.find(reference.path);
        return place != places_.end() && place->second != place->first;
    });
    return static_cast<std::size_t>(leading) > found;
}

Outcome Following::write(RunControl& control, const CarryOutHooks& hooks) {
    const LedgerStore ledger(*catalogue_);
    std::vector<Change> written;
    for (auto& change : changes_) {
        LeftList why("Stopped before this list was changed.");
        interrupted_ = interrupted_ || !control.proceed();
        if (!interrupted_) {
            auto changed =
                changeList(ledger, entry_, change.list->path, change.read, change.rewritten.text, hooks);
            RETURN_IF_FAILED(changed);
            why = std::move(*changed);
        }
        if (!why) {
            references_ += change.rewritten.changes.size();
            if (written_ != nullptr) {
                (*written_)[change.list->path] = checksumOfText(change.rewritten.text);
            }
            written.push_back(std::move(change));
        } else if (const auto left = leaveAllOf(*change.list, *why); !left) {
            return left;
        }
    }
    changes_ = std::move(written);
    return done();
}

Outcome Following::withdraw(const std::vector<BytePath>& places, const CarryOutHooks& hooks) {
    auto rest = led_;
    for (const auto& place : places) {
        rest.erase(place);
    }
    if (rest.size() == led_.size()) {
        return done();
    }
    Resolver resolver(shelf_.volumes);
    const LedgerStore ledger(*catalogue_);
    for (const auto& change : changes_) {
        const auto now = readList(change.list->path);
        const auto back = rewrittenList(*change.list, change.read, contextOf(*change.list, shelf_.players),
                                        resolver, shelf_.volumes, rest);
        // What its player made of it since stays: it leads to what is there.
        if (!now || !back || now->text != change.rewritten.text || back->text == now->text) {
            continue;
        }
        const auto changed = changeList(ledger, entry_, change.list->path, *now, back->text, hooks);
        RETURN_IF_FAILED(changed);
        if (!*changed) {
            references_ -= change.rewritten.changes.size() - back->changes.size();
        }
    }
    return done();
}

void Following::leave(const BytePath& place, const std::string& sentence) {
    places_.erase(place);
    left_.emplace(place, sentence);
}

Outcome Following::leaveAllOf(const ListFile& list, const std::string& sentence) {
    const auto own = PlayerStore(*catalogue_).references(list.id);
    RETURN_IF_FAILED(own);
    for (const auto& reference : *own) {
        if (places_.contains(reference.path)) {
            leave(reference.path, sentence);
        }
    }
    return done();
}

} // namespace sober
