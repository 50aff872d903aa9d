#include "core/work/take_finds.h"

#include "core/base/text.h"
#include "core/catalogue/docket_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/salvage/recogniser.h"
#include "core/transfer/filing.h"
#include "core/transfer/target_place.h"
#include "core/work/become_volume.h"
#include "core/work/carry_out.h"

#include <fmt/format.h>

#include <algorithm>

namespace sober {
namespace {

constexpr const char* incompleteFolder = "Incomplete";

/// What it may be put back as: the same bytes, or the same audio under other tags.
bool isTheHolding(const Find& find, const Holding& holding) {
    return find.isWhole() &&
           (find.recognised == RecognisedBy::bytes || find.recognised == RecognisedBy::payload ||
            (find.recognised == RecognisedBy::blocks && find.checksum == holding.checksum));
}

class TakePlanner {
  public:
    TakePlanner(Catalogue& catalogue, const TakeRequest& request, RunControl& control)
        : catalogue_(catalogue), request_(request), control_(control) {}

    Result<std::vector<PlannedTake>> run() {
        for (const auto step : {&TakePlanner::gather, &TakePlanner::place, &TakePlanner::putOnDocket}) {
            RETURN_IF_FAILED((this->*step)());
        }
        return std::move(planned_);
    }

  private:
    Outcome gather() {
        const SalvageStore store(catalogue_);
        auto finds = store.byIds(request_.finds);
        auto known = finds ? standingsOf(catalogue_, *finds) : Result<std::vector<KnownFind>>(finds.error());
        RETURN_IF_FAILED(known);
        if (finds->size() != request_.finds.size()) {
            return Error{Cause::notFound, {}, "There is no find of that number."};
        }
        finds_ = std::move(*finds);
        known_ = std::move(*known);
        for (const auto& find : finds_) {
            const auto source = store.source(find.source);
            RETURN_IF_FAILED(source);
            files_.push_back(find.file.empty() ? source->path : find.file);
            planned_.push_back({find.id, {}, {}});
        }
        return done();
    }

    Outcome place() {
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            if (!finds_[i].examined || !finds_[i].checksum) {
                planned_[i].why = "It was not examined yet; let the scan go on.";
            }
        }
        return request_.home ? placeAtHome() : placeInFolder();
    }

    Outcome placeAtHome() {
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            auto& planned = planned_[i];
            const auto& find = finds_[i];
            const auto& known = known_[i];
            if (!planned.why.empty()) {
                continue;
            }
            if (known.standing == FindStanding::missing && isTheHolding(find, *known.holding)) {
                planned.place = known.place;
                planned.why = known.atHand ? "" : "The volume of its place is away.";
            } else if (known.standing == FindStanding::retired && find.how == FoundHow::trash) {
                const auto entry = SalvageStore(catalogue_).entryThatSetAside(find.file);
                planned.why =
                    entry && *entry != 0
                        ? fmt::format("A docket has retired it: undo entry {} of the ledger.", *entry)
                        : "It was retired, and nobody waits for it. Say where to put it.";
            } else if (known.standing == FindStanding::held) {
                planned.why = "It is held already at " + displayPath(known.place) + ".";
            } else if (find.how == FoundHow::trash && !find.from.empty()) {
                planned.place = find.from;
            } else {
                planned.why = known.standing == FindStanding::missing
                                  ? "It is not whole, or not the same bytes; its place is kept for what is."
                                  : "Nobody knows its place. Say where to put it.";
            }
            planned.place = planned.why.empty() ? planned.place : BytePath();
        }
        return done();
    }

    Outcome placeInFolder() {
        const auto target = placeOnVolume(catalogue_, request_.to, control_);
        RETURN_IF_FAILED(target);
        return name(*target);
    }

    /// As a holding, so that it is filed like one.
    Holding asHolding(std::size_t at) const {
        const auto& find = finds_[at];
        const auto& known = known_[at].holding;
        const bool byContent =
            known && find.recognised != RecognisedBy::fingerprint && find.recognised != RecognisedBy::tags;
        Holding holding;
        holding.path = byContent ? known->path : find.nameOrPlace();
        holding.tags = byContent ? known->tags : find.tags;
        holding.filing = byContent ? known->filing : FilingTags{};
        return holding;
    }

    Outcome name(const TargetPlace& target) {
        std::vector<Holding> holdings;
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            holdings.push_back(asHolding(i));
        }
        const auto layout = Layout::named(request_.layout.empty() ? usualLayout : request_.layout);
        RETURN_IF_FAILED(layout);
        const Filing filing(holdings);
        const auto replacements = usualReplacements();
        std::vector<TargetName> names;
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            auto filed = filing.nameFor(holdings[i], holdings[i].path, *layout, *target.rules, replacements);
            if (!finds_[i].isWhole()) {
                filed.name.folder = joinPath(incompleteFolder, filed.name.folder);
                filed.name.stem += " (incomplete)";
            }
            names.push_back(std::move(filed.name));
        }
        const bool skips = request_.onConflict != OnConflict::otherName;
        fitAll(*target.rules, replacements, names, [&](const BytePath& path, std::size_t /*which*/) {
            return !skips && isTaken(joinPath(target.folder, path));
        });
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            const auto place = joinPath(target.folder, pathOf(names[i]));
            if (planned_[i].why.empty() && skips && isTaken(place)) {
                planned_[i].why = displayPath(place) + " is taken.";
                planned_[i].isAsked = request_.onConflict == OnConflict::ask;
            }
            planned_[i].place = planned_[i].why.empty() ? place : BytePath();
        }
        return done();
    }

    Outcome putOnDocket() {
        std::vector<DocketAction> actions;
        for (std::size_t i = 0; i < finds_.size(); ++i) {
            if (planned_[i].place.empty()) {
                continue;
            }
            const auto& find = finds_[i];
            const auto& known = known_[i];
            const bool fills =
                request_.home && known.standing == FindStanding::missing && known.place == planned_[i].place;
            DocketAction action;
            action.kind = ActionKind::salvage;
            action.reason = fmt::format("found {} {}", find.how == FoundHow::trash ? "in the trash," : "in",
                                        displayPath(files_[i]));
            action.added = timeNow();
            action.change = packFindBytes({{files_[i], find.others, find.extents}, *find.checksum, find.id});
            if (fills) {
                action.holding = known.holding->id;
            } else {
                action.place = planned_[i].place;
            }
            action.target = planned_[i].place;
            actions.push_back(std::move(action));
        }
        return DocketStore(catalogue_).add(actions);
    }

    Catalogue& catalogue_;
    const TakeRequest& request_;
    RunControl& control_;
    std::vector<Find> finds_;
    std::vector<KnownFind> known_;
    std::vector<BytePath> files_; ///< in which each lies
    std::vector<PlannedTake> planned_;
};

} // namespace

Result<std::vector<PlannedTake>> planTake(Catalogue& catalogue, const TakeRequest& request,
                                          RunControl& control) {
    return TakePlanner(catalogue, request, control).run();
}

Result<TakenFinds> takeFinds(Catalogue& catalogue, std::span<const PlannedTake> planned, RunControl& control,
                             const CarryOutHooks& hooks) {
    std::vector<FindId> ids;
    for (const auto& each : planned) {
        if (!each.place.empty()) {
            ids.push_back(each.find);
        }
    }
    TakenFinds result;
    if (ids.empty()) {
        return result;
    }
    auto carried = carryOut(catalogue, control, hooks, [&](const DocketAction& action) {
        const auto bytes = action.kind == ActionKind::salvage ? unpackFindBytes(action.change) : std::nullopt;
        return bytes && std::ranges::find(ids, bytes->find) != ids.end();
    });
    const auto finds =
        carried ? SalvageStore(catalogue).byIds(ids) : Result<std::vector<Find>>(carried.error());
    RETURN_IF_FAILED(finds);
    result.carried = std::move(*carried);
    for (const auto& find : *finds) {
        const auto place = std::ranges::find(planned, find.id, &PlannedTake::find)->place;
        if (find.taken == place) {
            result.taken.emplace_back(find.id, place);
        }
    }
    return result;
}

} // namespace sober
