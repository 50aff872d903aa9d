#include "core/remedy/docket/review.h"

#include "core/base/presence.h"
#include "core/base/text.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"

#include <algorithm>
#include <array>
#include <map>

namespace sober {
namespace {

class Reviewer {
  public:
    Reviewer(ReviewContext context, std::unordered_set<HoldingId> unsettled)
        : context_(std::move(context)), unsettled_(std::move(unsettled)) {}

    /// About a place that references point to.
    Result<PlannedAction> planPlace(const DocketAction& action) {
        PlannedAction planned;
        planned.action = action;
        planned.path = action.place;
        planned.target = action.target;
        if (isAboutNoHolding(action.kind)) {
            auto refusal = typeOf(action.kind).whyNot(context_, planned, {});
            RETURN_IF_FAILED(refusal);
            planned.refused = std::move(*refusal);
            return planned;
        }
        const std::vector<BytePath> places{action.place};
        const auto references = PlayerStore(context_.catalogue).leadingTo(places);
        RETURN_IF_FAILED(references);
        planned.references = references->size();
        if (action.kind == ActionKind::writeOff) {
            return planned;
        }
        if (presenceOf(action.target) != Presence::there) {
            planned.refused = displayPath(action.target) + (presenceOf(action.target) == Presence::gone
                                                                ? " is not there."
                                                                : " cannot be looked at now.");
        } else if (const auto reached = placeForReferences(context_.shelf, action.place, *references,
                                                           std::array{action.target});
                   !reached) {
            return refusing(std::move(planned), reached.error());
        }
        return planned;
    }

    Result<PlannedAction> plan(const DocketAction& action, Holding holding) {
        PlannedAction planned;
        planned.action = action;
        planned.holding = std::move(holding);
        const auto volume = std::ranges::find(context_.volumes, planned.holding.volume, &Volume::id);
        if (volume == context_.volumes.end()) {
            planned.refused = "Its volume is not in the catalogue.";
            return planned;
        }
        planned.volume = volume->label;
        planned.path = joinPath(volume->root, planned.holding.path);
        if (unsettled_.contains(planned.holding.id)) {
            planned.refused = "An earlier action on it waits to be settled; see the ledger.";
            return planned;
        }
        const auto& type = typeOf(action.kind);
        auto refusal = type.whyNot(context_, planned, *volume);
        RETURN_IF_FAILED(refusal);
        planned.refused = std::move(*refusal);
        return type.references != References::stay && !planned.refused ? withReferences(std::move(planned))
                                                                       : Result(std::move(planned));
    }

  private:
    static Result<PlannedAction> refusing(PlannedAction planned, const Error& error) {
        if (error.cause != Cause::refused) {
            return error;
        }
        planned.refused = error.sentence;
        return planned;
    }

    /// Where the references to what is moved or retired will lead.
    Result<PlannedAction> withReferences(PlannedAction planned) {
        const bool isMove = typeOf(planned.action.kind).references == References::afterItWent;
        if (isMove) {
            planned.target = planned.action.target;
        }
        const std::vector<HoldingId> ids{planned.holding.id};
        const auto references = PlayerStore(context_.catalogue).leadingTo(ids);
        RETURN_IF_FAILED(references);
        planned.references = references->size();
        if (references->empty()) {
            return planned;
        }
        const auto candidates =
            isMove ? Result<std::vector<BytePath>>(std::vector{planned.target}) : staying(planned);
        RETURN_IF_FAILED(candidates);
        const auto place = placeForReferences(context_.shelf, planned.path, *references, *candidates);
        if (!place) {
            return refusing(std::move(planned), place.error());
        }
        planned.target = *place;
        return planned;
    }

    /// The places of what stays of a holding's recording: the keeper that was decided on first, then the same
    /// bytes, then what stands in for them.
    Result<std::vector<BytePath>> staying(PlannedAction& planned) {
        // A list may reach a copy with other bytes and none with the same.
        auto found = carriersOf(context_.catalogue, planned.holding, context_.volumes, context_.toRetire,
                                OtherBytes::too);
        RETURN_IF_FAILED(found);
        planned.carriers = *found;
        auto& carriers = *found;
        const Findings findings(context_.catalogue);
        const auto set = findings.setOf(planned.holding.id);
        RETURN_IF_FAILED(set);
        const auto decision = *set ? findings.decisionOn(**set) : Result<SetDecision>(SetDecision{});
        RETURN_IF_FAILED(decision);
        std::ranges::stable_partition(carriers, [&](const Carrier& carrier) {
            return decision->keeper && carrier.holding.id == *decision->keeper;
        });
        // A transfer says which it is.
        std::ranges::stable_partition(
            carriers, [&](const Carrier& carrier) { return carrier.path == planned.action.target; });
        std::vector<BytePath> places;
        std::ranges::transform(carriers, std::back_inserter(places), &Carrier::path);
        return places;
    }

    ReviewContext context_;
    std::unordered_set<HoldingId> unsettled_;
};

/// A file with several names is freed when the last of them goes.
void countFreed(DocketReview& review) {
    std::map<std::pair<VolumeId, std::uint64_t>, std::uint64_t> namesGoing;
    std::map<std::string, std::uint64_t> byVolume;
    for (auto& planned : review.actions) {
        const bool isDiscarded = planned.action.kind == ActionKind::discard;
        if (planned.refused || (planned.action.kind != ActionKind::retire && !isDiscarded)) {
            continue;
        }
        const auto& holding = planned.holding;
        if (isDiscarded || holding.links <= 1 ||
            ++namesGoing[{holding.volume, holding.inode}] == holding.links) {
            planned.frees = holding.size;
        }
        review.frees += planned.frees;
        if (!planned.volume.empty()) { // the home's trash lies on none
            byVolume[planned.volume] += planned.frees;
        }
    }
    review.freesByVolume.assign(byVolume.begin(), byVolume.end());
}

} // namespace

Outcome consentToLoss(const Catalogue& catalogue, HoldingId holding) {
    const auto review = reviewDocket(catalogue);
    RETURN_IF_FAILED(review);
    const auto planned = std::ranges::find_if(review->actions, [&](const PlannedAction& each) {
        return each.holding.id == holding && each.action.kind == ActionKind::retire;
    });
    if (planned == review->actions.end() || planned->loss == Loss::none) {
        return Error{Cause::invalid, {}, "Nothing is lost by that: there is nothing to consent to."};
    }
    return DocketStore(catalogue).consent(holding, lossWord(planned->loss));
}

Result<DocketReview> reviewDocket(const Catalogue& catalogue) {
    const auto actions = DocketStore(catalogue).all();
    return actions ? reviewActions(catalogue, *actions) : Result<DocketReview>(actions.error());
}

Result<DocketReview> reviewActions(const Catalogue& catalogue, std::span<const DocketAction> actions) {
    const Catalogue::Snapshot snapshot(catalogue);
    const auto volumes = Volumes(catalogue).all();
    const auto shelf = PlayerShelf::of(catalogue);
    const auto unfinished = LedgerStore(catalogue).unfinished();
    if (!volumes || !shelf || !unfinished) {
        return !volumes ? volumes.error() : !shelf ? shelf.error() : unfinished.error();
    }
    ReviewContext context{catalogue, *volumes, *shelf, {}, {}, {}};
    std::vector<HoldingId> ids;
    for (const auto& action : actions) {
        if (action.kind == ActionKind::retire) {
            context.toRetire.insert(action.holding);
        }
        if (action.holding != 0) {
            ids.push_back(action.holding);
        }
    }
    auto holdings = Holdings(catalogue).byIds(ids);
    RETURN_IF_FAILED(holdings);
    std::unordered_set<HoldingId> unsettled;
    for (const auto& action : *unfinished) {
        unsettled.insert(action.holding);
    }
    Reviewer reviewer(std::move(context), std::move(unsettled));
    DocketReview review;
    auto holding = holdings->begin();
    for (const auto& action : actions) {
        auto planned =
            action.holding == 0 ? reviewer.planPlace(action) : reviewer.plan(action, std::move(*holding++));
        RETURN_IF_FAILED(planned);
        review.references +=
            planned->refused || planned->action.kind == ActionKind::writeOff ? 0 : planned->references;
        review.refused += planned->refused ? 1 : 0;
        review.actions.push_back(std::move(*planned));
    }
    countFreed(review);
    return review;
}

} // namespace sober
