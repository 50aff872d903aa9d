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
    auto lists = listsConcerned(catalogue, following.shelf_, following.places_);
    RETURN_IF_FAILED(lists);
    following.lists_ = std::move(*lists);
    following.prepare();
    const auto outcome = following.write(control, hooks);
    return outcome ? Result(std::move(following)) : Result<Following>(outcome.error());
}

void Following::prepare() {
    Resolver resolver(shelf_.volumes);
    for (bool again = !lists_.empty(); again;) {
        const auto leftBefore = left_.size();
        changes_.clear();
        for (const auto& list : lists_) {
            prepareOne(list, resolver);
        }
        again = left_.size() > leftBefore;
    }
    led_ = places_;
}

void Following::prepareOne(const ConcernedList& concerned, Resolver& resolver) {
    const auto& list = *concerned.file;
    if (list.away || shelf_.unsettled.contains(list.path)) {
        leaveAllOf(concerned, *shelf_.whyNever(list));
        return;
    }
    auto read = readList(list.path);
    if (!read) {
        leaveAllOf(concerned, read.error().sentence);
        return;
    }
    const auto context = contextOf(list, shelf_.players);
    auto* known = asWritten(list.path, read->text);
    if (known != nullptr && !known->index) {
        known->index.emplace(read->playlist, context, resolver);
    }
    auto rewritten = rewrittenList(list, *read, context, resolver, shelf_.volumes, places_,
                                   known != nullptr ? &*known->index : nullptr);
    if (!rewritten) {
        leaveAllOf(concerned, rewritten.error().sentence);
        return;
    }
    if (lacksEntries(concerned, *read, rewritten->changes.size() + rewritten->unreachable.size())) {
        leaveAllOf(concerned, "The list " + displayPath(list.path) +
                                  " leads there by an entry that cannot be looked at now. Look to its drive, "
                                  "then try again.");
        return;
    }
    for (const auto& each : rewritten->unreachable) {
        leave(each.place, each.sentence);
    }
    if (rewritten->changes.empty()) {
        return;
    }
    if (const auto refusal = whyNotChange(list.path)) {
        leaveAllOf(concerned, *refusal);
        return;
    }
    changes_.push_back({&concerned, std::move(*read), std::move(*rewritten)});
}

bool Following::lacksEntries(const ConcernedList& concerned, const ReadList& read, std::size_t found) const {
    // What its player wrote since it was read says itself where it leads.
    const auto& stamp = concerned.file->stamp;
    const bool isAsKnown = (read.stamp.inode == stamp.inode && read.stamp.size == stamp.size &&
                            read.stamp.mtime == stamp.mtime) ||
                           asWritten(concerned.file->path, read.text) != nullptr;
    const auto leading = std::ranges::count_if(concerned.leading, [&](const BytePath& path) {
        const auto place = places_.find(path);
        return place != places_.end() && place->second != place->first;
    });
    return isAsKnown && static_cast<std::size_t>(leading) > found;
}

WrittenList* Following::asWritten(const BytePath& list, std::string_view text) const {
    if (written_ == nullptr) {
        return nullptr;
    }
    const auto ours = written_->find(list);
    return ours != written_->end() && ours->second.text == checksumOfText(text) ? &ours->second : nullptr;
}

void Following::keepWritten(const Change& change, Resolver& resolver) {
    if (written_ == nullptr) {
        return;
    }
    const auto& list = *change.list->file;
    auto* known = asWritten(list.path, change.read.text);
    if (known == nullptr || !known->index) {
        (*written_)[list.path] = {checksumOfText(change.rewritten.text), std::nullopt};
        return;
    }
    known->text = checksumOfText(change.rewritten.text);
    const auto context = contextOf(list, shelf_.players);
    for (const auto& each : change.rewritten.changes) {
        known->index->add(each.entry, each.after, context, resolver);
    }
}

Outcome Following::write(RunControl& control, const CarryOutHooks& hooks) {
    const LedgerStore ledger(*catalogue_);
    std::vector<Change> written;
    Resolver resolver(shelf_.volumes);
    for (auto& change : changes_) {
        LeftList why("Stopped before this list was changed.");
        interrupted_ = interrupted_ || !control.proceed();
        if (!interrupted_) {
            auto changed = changeList(ledger, entry_, change.list->file->path, change.read,
                                      change.rewritten.text, hooks);
            RETURN_IF_FAILED(changed);
            why = std::move(*changed);
        }
        if (!why) {
            references_ += change.rewritten.changes.size();
            keepWritten(change, resolver);
            written.push_back(std::move(change));
        } else {
            leaveAllOf(*change.list, *why);
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
        const auto& list = *change.list->file;
        const auto now = readList(list.path);
        const auto back =
            rewrittenList(list, change.read, contextOf(list, shelf_.players), resolver, shelf_.volumes, rest);
        // What its player made of it since stays: it leads to what is there.
        if (!now || !back || now->text != change.rewritten.text || back->text == now->text) {
            continue;
        }
        const auto changed = changeList(ledger, entry_, list.path, *now, back->text, hooks);
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

void Following::leaveAllOf(const ConcernedList& list, const std::string& sentence) {
    for (const auto& place : list.leading) {
        if (places_.contains(place)) {
            leave(place, sentence);
        }
    }
}

} // namespace sober
