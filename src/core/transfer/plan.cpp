#include "core/transfer/plan.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/transfer/choice_words.h"
#include "core/transfer/emptied_folders.h"
#include "core/transfer/filing.h"
#include "core/transfer/folder_entries.h"
#include "core/transfer/lists_at_target.h"

#include <fmt/format.h>

#include <algorithm>
#include <numeric>
#include <unordered_map>
#include <unordered_set>

namespace sober {
namespace {

constexpr std::size_t sampleSize = 200;

class Planning {
  public:
    Planning(const Catalogue& catalogue, const TransferRequest& request, RunControl& control)
        : catalogue_(catalogue), request_(request), control_(control) {}

    Result<TransferPlan> run() {
        for (const auto phase :
             {&Planning::look, &Planning::chooseAll, &Planning::lookAtTarget, &Planning::nameAll,
              &Planning::leaveTooMany, &Planning::writeLists, &Planning::measure}) {
            if (!control_.proceed()) {
                return Error{Cause::interrupted, {}, "Stopped before the plan was made."};
            }
            RETURN_IF_FAILED((this->*phase)());
        }
        return std::move(plan_);
    }

  private:
    struct There {
        BytePath path; ///< relative to the target
        Checksum128 content;
        HoldingId holding = 0;
    };

    Outcome look() {
        if (request_.choice.isEmpty()) {
            return Error{Cause::invalid, {}, "Nothing is chosen to come along."};
        }
        auto layout = Layout::named(request_.layout);
        auto place = layout ? targetPlaceAt(catalogue_, request_.to, request_.rules, request_.room)
                            : Result<TargetPlace>(layout.error());
        auto volumes = Volumes(catalogue_).all();
        if (!place || !volumes) {
            return place ? volumes.error() : place.error();
        }
        if (request_.mode == TransferMode::reorder && !place->volume) {
            return Error{Cause::invalid, request_.to,
                         displayPath(request_.to) +
                             " is on no volume: there is nothing to put in order there."};
        }
        layout_ = std::move(*layout);
        volumes_ = std::move(*volumes);
        plan_.place = std::move(*place);
        return done();
    }

    Outcome chooseAll() {
        auto chosen = choose(catalogue_, request_.choice, control_);
        RETURN_IF_FAILED(chosen);
        auto holdings = Holdings(catalogue_).byIds(chosen->holdings);
        RETURN_IF_FAILED(holdings);
        auto unsound = EvidenceStore(catalogue_).unsound();
        RETURN_IF_FAILED(unsound);
        unsound_ = std::move(*unsound);
        chosen_ = std::move(*chosen);
        holdings_ = std::move(*holdings);
        plan_.left = std::move(chosen_.left);
        plan_.inNoList = std::move(chosen_.inNoList);
        return done();
    }

    BytePath placeOf(const Holding& holding) const {
        const auto volume = std::ranges::find(volumes_, holding.volume, &Volume::id);
        return joinPath(volume->root, holding.path);
    }

    bool isOnTarget(const Holding& holding) const {
        return plan_.place.volume && plan_.place.volume->id == holding.volume;
    }

    /// What is catalogued in the target's folder, by what its name has in common with those that are one with
    /// it.
    Outcome lookAtTarget() {
        if (!plan_.place.volume) {
            return done();
        }
        if (const auto looked = lookAtEarlier(); !looked) {
            return looked;
        }
        const auto& volume = *plan_.place.volume;
        return Holdings(catalogue_).eachPresent([&](PresentHolding&& holding) {
            if (holding.volume != volume.id) {
                return;
            }
            if (const auto within = relativeTo(joinPath(volume.root, holding.path), plan_.place.folder)) {
                plan_.bytesThere += holding.size;
                there_.emplace(collisionKey(*plan_.place.rules, *within),
                               There{*within, holding.checksum, holding.id});
            }
        });
    }

    /// What earlier transfers have brought there, and what of it in other forms.
    Outcome lookAtEarlier() {
        const TransferStore store(catalogue_);
        const auto earlier = store.all();
        RETURN_IF_FAILED(earlier);
        for (const auto& transfer : *earlier) {
            const auto items = transfer.folder == plan_.place.folder ? store.items(transfer.id)
                                                                     : Result(std::vector<TransferItem>());
            RETURN_IF_FAILED(items);
            for (const auto& item : *items) {
                if (item.state != ItemState::copied) {
                    continue;
                }
                auto key = collisionKey(*plan_.place.rules, item.target);
                if (!item.form.empty()) {
                    made_.try_emplace(key, item.content, item.form);
                }
                brought_.insert(std::move(key));
            }
        }
        return done();
    }

    /// Where a holding is taken for being already: in the target's folder, when it is copied there.
    std::optional<BytePath> isThereAlready(const Holding& holding) const {
        return isOnTarget(holding) && request_.mode != TransferMode::reorder
                   ? relativeTo(placeOf(holding), plan_.place.folder)
                   : std::nullopt;
    }

    Outcome nameAll() {
        const Filing filing(holdings_);
        const auto& rules = *plan_.place.rules;
        std::vector<TransferItem> named;
        std::vector<TargetName> names;
        for (std::size_t i = 0; i < holdings_.size(); ++i) {
            const auto& holding = holdings_[i];
            const auto place = placeOf(holding);
            if (request_.mode == TransferMode::reorder && !isOnTarget(holding)) {
                plan_.left.push_back({place, LeftBehind::otherVolume});
                continue;
            }
            if (rules.largestFile > 0 && holding.size > rules.largestFile) {
                plan_.left.push_back({place, LeftBehind::tooLarge});
                continue;
            }
            const auto* rule = isThereAlready(holding) ? nullptr : ruleFor(request_.forms, holding);
            if (rule != nullptr && unsound_.contains(holding.id)) {
                plan_.left.push_back({place, LeftBehind::unsound});
                continue;
            }
            TransferItem item{holding.id,
                              holding.checksum,
                              {},
                              bytesBy(rule, holding),
                              {},
                              rule != nullptr ? rule->words : "",
                              ItemState::waits,
                              {}};
            if (auto there = isThereAlready(holding)) {
                item.target = std::move(*there);
                item.state = ItemState::there;
                plan_.items.push_back(std::move(item));
                continue;
            }
            const auto kept = request_.mode == TransferMode::reorder
                                  ? relativeTo(place, plan_.place.folder).value_or(holding.path)
                                  : holding.path;
            auto filed = filing.nameFor(holding, kept, layout_, rules, request_.replacements);
            if (rule != nullptr) {
                filed.name.ending = endingOf(rule->form);
            }
            if (!leaveRoomFor(filed.name)) {
                plan_.left.push_back({place, LeftBehind::pathTooLong});
                continue;
            }
            item.altered = std::move(filed.folderAltered);
            names.push_back(std::move(filed.name));
            named.push_back(std::move(item));
            within_.push_back(relativeTo(place, plan_.place.folder).value_or(BytePath()));
        }
        if (request_.mode == TransferMode::reorder) {
            inPlaceFirst(named, names);
        }
        fitAll(rules, request_.replacements, names,
               [&](const BytePath& path, std::size_t at) { return isTakenBy(path, named[at]); });
        for (std::size_t i = 0; i < named.size(); ++i) {
            settleName(named[i], names[i], within_[i]);
        }
        std::ranges::move(named, std::back_inserter(plan_.items));
        return done();
    }

    /// What its player's longest path leaves a file's name; false where that is too little for one.
    bool leaveRoomFor(TargetName& name) const {
        if (request_.longestPath == 0) {
            return true;
        }
        constexpr std::size_t least = 12; // units before the ending: what tells any number of one name apart
        const auto& rules = *plan_.place.rules;
        const auto before =
            request_.lists.prefix.empty() ? name.folder : joinPath(request_.lists.prefix, name.folder);
        const auto taken = before.empty() ? 0 : lengthIn(rules, before) + 1;
        const auto ending = name.ending.empty() ? 0 : lengthIn(rules, name.ending) + 1;
        if (taken + least + ending > request_.longestPath) {
            return false;
        }
        name.longestName = request_.longestPath - taken;
        return true;
    }

    /// What is in order keeps its name; those that would come to have it get another.
    void inPlaceFirst(std::vector<TransferItem>& named, std::vector<TargetName>& names) {
        const auto& rules = *plan_.place.rules;
        std::vector<std::size_t> order(named.size());
        std::iota(order.begin(), order.end(), std::size_t{0});
        std::ranges::stable_partition(order, [&](std::size_t at) {
            const auto& name = names[at];
            return joinPath(
                       name.folder,
                       fitName(rulesFor(rules, name), request_.replacements, name.stem, name.ending).name) ==
                   within_[at];
        });
        const auto sorted = [&](auto& values) {
            std::remove_reference_t<decltype(values)> result;
            for (const auto at : order) {
                result.push_back(std::move(values[at]));
            }
            values = std::move(result);
        };
        sorted(named);
        sorted(names);
        sorted(within_);
        sources_.insert(within_.begin(), within_.end());
    }

    /// Whether something stands at a place that is not what shall stand there.
    bool isTakenBy(const BytePath& path, const TransferItem& item) const {
        if (!plan_.place.isThere || sources_.contains(path)) {
            return false;
        }
        if (request_.mode != TransferMode::reorder) {
            const auto known = there_.find(collisionKey(*plan_.place.rules, path));
            if (known != there_.end()) {
                return !isWhatShallStand(known->first, known->second, item);
            }
            // Of what nobody has looked at only its size is known; what is in it is asked when it comes to
            // it.
            if (const auto stamp = stampAt(joinPath(plan_.place.folder, path));
                item.form.empty() && stamp && stamp->size == item.bytes) {
                return false;
            }
        }
        return presenceOf(joinPath(plan_.place.folder, path)) != Presence::gone;
    }

    /// Its own bytes or, in another form, what an earlier transfer made of them there.
    bool isWhatShallStand(const std::string& key, const There& there, const TransferItem& item) const {
        const auto made = made_.find(key);
        return item.form.empty() ? there.content == item.content
                                 : made != made_.end() && made->second == std::pair(item.content, item.form);
    }

    void settleName(TransferItem& item, const TargetName& name, const BytePath& within) {
        item.target = pathOf(name);
        item.altered = name.fitted.why.empty() ? item.altered : name.fitted.why;
        if (request_.mode == TransferMode::reorder) {
            item.state = item.target == within ? ItemState::there : ItemState::waits;
            return;
        }
        const auto known = there_.find(collisionKey(*plan_.place.rules, item.target));
        if (known != there_.end() && isWhatShallStand(known->first, known->second, item)) {
            item.target = known->second.path;
            item.state = ItemState::there;
        }
    }

    Outcome leaveTooMany() {
        if (plan_.place.rules->entriesInFolder == 0) {
            return done();
        }
        std::unordered_map<HoldingId, const Holding*> byId;
        for (const auto& holding : holdings_) {
            byId.emplace(holding.id, &holding);
        }
        FolderEntries entries(plan_.place, request_.mode != TransferMode::reorder);
        takeLists(entries);
        std::erase_if(plan_.items, [&](const TransferItem& item) {
            const bool isOneTooMany = !entries.take(item.target);
            if (isOneTooMany) {
                plan_.left.push_back({placeOf(*byId.at(item.source)), LeftBehind::tooMany});
            }
            return isOneTooMany;
        });
        return done();
    }

    /// The lists lie in the topmost folder; without them what comes could not be played as it was.
    void takeLists(FolderEntries& entries) const {
        if (request_.mode == TransferMode::reorder) {
            return;
        }
        entries.take(BytePath(everythingList) + ".m3u8");
        entries.take(BytePath(leftBehindList) + ".txt");
        for (const auto& list : chosen_.lists) {
            entries.take(BytePath(nameOf(list.path)));
        }
    }

    Outcome writeLists() {
        if (request_.mode == TransferMode::reorder) {
            return done(); // the players' own lists follow
        }
        // A list is read by its path too.
        TargetName topmost;
        leaveRoomFor(topmost);
        const auto rules = rulesFor(*plan_.place.rules, topmost);
        auto place = plan_.place;
        place.rules = &rules;
        auto lists = listsAtTarget(catalogue_, chosen_.lists, plan_.items, holdings_, plan_.left, place,
                                   request_.lists, request_.replacements);
        RETURN_IF_FAILED(lists);
        plan_.lists = std::move(*lists);
        return done();
    }

    Outcome measure() {
        const auto contradicted = EvidenceStore(catalogue_).contradicted();
        RETURN_IF_FAILED(contradicted);
        std::unordered_map<HoldingId, const Holding*> byId;
        for (const auto& holding : holdings_) {
            byId.emplace(holding.id, &holding);
        }
        auto& transfer = plan_.transfer;
        std::unordered_set<std::string> targets;
        for (const auto& item : plan_.items) {
            const auto& holding = *byId.at(item.source);
            plan_.bytes += holding.size;
            plan_.seconds += holding.claims.duration;
            plan_.unsound += unsound_.contains(item.source) || !holding.problem.empty() ? 1 : 0;
            plan_.contradicted += contradicted->contains(item.source) ? 1 : 0;
            const bool isRenamed = request_.mode == TransferMode::reorder ||
                                   (request_.mode == TransferMode::steps && isOnTarget(holding));
            if (item.state == ItemState::waits && !isRenamed) {
                transfer.needs += plan_.place.roomFor(item.bytes);
            }
            targets.insert(collisionKey(*plan_.place.rules, item.target));
            if (!item.form.empty()) {
                ++plan_.encoded;
                plan_.reencoded += !holding.claims.lossless || contradicted->contains(item.source) ? 1 : 0;
            }
        }
        plan_.costs = costsOf(holdings_, [this](std::uint64_t bytes) { return plan_.place.roomFor(bytes); });
        plan_.losslessTimes = losslessTimesLossy(holdings_);
        plan_.sample.assign(holdings_.begin(), holdings_.begin() + static_cast<std::ptrdiff_t>(std::min(
                                                                       sampleSize, holdings_.size())));
        if (const auto counted = countSources(byId); !counted) {
            return counted;
        }
        for (const auto& list : plan_.lists) {
            transfer.needs += plan_.place.roomFor(list.content.size());
        }
        if (request_.mode == TransferMode::copy) {
            for (const auto& [key, there] : there_) {
                if (!targets.contains(key) && brought_.contains(key)) {
                    plan_.noLonger.emplace_back(joinPath(plan_.place.folder, there.path), there.holding);
                }
            }
            std::ranges::sort(plan_.noLonger);
        }
        transfer.made = timeNow();
        transfer.mode = request_.mode;
        transfer.folder = plan_.place.folder;
        transfer.rules = plan_.place.rules->word;
        transfer.layout = request_.layout;
        transfer.inNoList = plan_.inNoList.size();
        transfer.peak = transfer.needs; // what is made beside a place becomes what stands there
        transfer.free = plan_.place.free;
        transfer.filesystem = request_.room ? Transfer::byHand : plan_.place.filesystem;
        auto emptied = foldersLeftEmpty(catalogue_, transfer, plan_.items);
        RETURN_IF_FAILED(emptied);
        plan_.emptied = std::move(*emptied);
        const auto words = wordsOf(catalogue_, request_.choice, volumes_);
        transfer.choice = words ? *words : std::string();
        for (const auto& rule : request_.forms) {
            transfer.choice += fmt::format("; {} as {}", rule.source, rule.words);
        }
        return words ? done() : Outcome(words.error());
    }

    Outcome countSources(const std::unordered_map<HoldingId, const Holding*>& byId) {
        std::unordered_map<VolumeId, TransferPlan::From> from;
        for (const auto& item : plan_.items) {
            from[byId.at(item.source)->volume].coming += byId.at(item.source)->size;
        }
        const auto counted = Holdings(catalogue_).eachOutline([&](const HoldingOutline& outline) {
            if (const auto found = from.find(outline.volume);
                found != from.end() && outline.state == HoldingState::present) {
                found->second.bytes += outline.size;
            }
        });
        for (const auto& volume : volumes_) {
            if (const auto found = from.find(volume.id); found != from.end()) {
                found->second.volume = volume;
                plan_.from.push_back(std::move(found->second));
            }
        }
        return counted;
    }

    const Catalogue& catalogue_;
    const TransferRequest& request_;
    RunControl& control_;
    Layout layout_ = Layout::keep();
    std::vector<Volume> volumes_;
    Chosen chosen_;
    std::vector<Holding> holdings_;
    std::vector<BytePath> within_; ///< of what is named: where it lies relative to the target; "" elsewhere
    std::unordered_set<BytePath> sources_;
    std::unordered_map<std::string, There> there_;
    std::unordered_map<std::string, std::pair<Checksum128, std::string>>
        made_;                                ///< by earlier transfers, in other forms
    std::unordered_set<std::string> brought_; ///< by earlier transfers, in whatever form
    std::unordered_set<HoldingId> unsound_;
    TransferPlan plan_;
};

} // namespace

Result<TransferPlan> planTransfer(const Catalogue& catalogue, const TransferRequest& request,
                                  RunControl& control) {
    return Planning(catalogue, request, control).run();
}

Result<std::vector<NamePreview>> previewNames(std::span<const Holding> holdings, const std::string& layout,
                                              const TargetRules& rules, const NameReplacements& replacements,
                                              std::span<const FormRule> forms) {
    const auto order = Layout::named(layout);
    RETURN_IF_FAILED(order);
    const Filing filing(holdings);
    std::vector<NamePreview> previews;
    std::vector<TargetName> names;
    for (const auto& holding : holdings) {
        auto filed = filing.nameFor(holding, holding.path, *order, rules, replacements);
        if (const auto* rule = ruleFor(forms, holding); rule != nullptr) {
            filed.name.ending = endingOf(rule->form);
        }
        previews.push_back({holding.path, {}, std::move(filed.folderAltered)});
        names.push_back(std::move(filed.name));
    }
    fitAll(rules, replacements, names, [](const BytePath&, std::size_t) { return false; });
    for (std::size_t i = 0; i < names.size(); ++i) {
        previews[i].to = pathOf(names[i]);
        previews[i].altered = names[i].fitted.why.empty() ? previews[i].altered : names[i].fitted.why;
    }
    return previews;
}

Result<TransferId> keepPlan(const Catalogue& catalogue, const TransferPlan& plan) {
    return TransferStore(catalogue).add(plan.transfer, plan.items, plan.left, plan.lists);
}

Outcome letRestGo(const Catalogue& catalogue, const TransferPlan& plan) {
    std::vector<DocketAction> actions;
    for (const auto& [path, holding] : plan.noLonger) {
        DocketAction action;
        action.kind = ActionKind::retire;
        action.holding = holding;
        action.reason = "no longer among what comes along";
        action.added = timeNow();
        actions.push_back(std::move(action));
    }
    return DocketStore(catalogue).add(actions);
}

} // namespace sober
