#include "core/remedy/docket.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/volumes.h"
#include "core/remedy/mending.h"
#include "core/remedy/moving.h"
#include "core/remedy/references_along.h"
#include "core/remedy/rewriting.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <unordered_set>

namespace sober {
namespace {

class Reviewer {
  public:
    Reviewer(const Catalogue& catalogue, std::vector<Volume> volumes, PlayerShelf shelf,
             std::span<const DocketAction> actions)
        : catalogue_(catalogue), volumes_(std::move(volumes)), shelf_(std::move(shelf)) {
        for (const auto& action : actions) {
            if (action.kind == retireKind) {
                toRetire_.insert(action.holding);
            }
        }
    }

    /// About a place that references point to.
    Result<PlannedAction> planPlace(const DocketAction& action) {
        PlannedAction planned;
        planned.action = action;
        planned.path = action.place;
        planned.target = action.target;
        const std::vector<BytePath> places{action.place};
        const auto references = PlayerStore(catalogue_).leadingTo(places);
        if (!references) {
            return references.error();
        }
        planned.references = references->size();
        if (action.kind == writeOffKind) {
            return planned;
        }
        const auto target = stampAt(action.target);
        if (!target) {
            planned.refused = displayPath(action.target) + " is not there.";
        } else if (const auto reached =
                       placeForReferences(shelf_, action.place, *references, std::array{action.target});
                   !reached) {
            return refusing(std::move(planned), reached.error());
        }
        return planned;
    }

    Result<PlannedAction> plan(const DocketAction& action, Holding holding) {
        PlannedAction planned;
        planned.action = action;
        planned.holding = std::move(holding);
        const auto volume = std::ranges::find(volumes_, planned.holding.volume, &Volume::id);
        if (volume == volumes_.end()) {
            planned.refused = "Its volume is not in the catalogue.";
            return planned;
        }
        planned.volume = volume->label;
        planned.path = joinPath(volume->root, planned.holding.path);
        if (action.kind == writeOffKind) {
            if (planned.holding.state != HoldingState::missing) {
                planned.refused = "It is not missing any more.";
            }
            return planned;
        }
        const auto refusal = action.kind == acceptKind         ? whyNotAccept(planned.holding)
                             : action.kind == acceptChangeKind ? whyNotAcceptChange(planned.holding)
                             : isMended(action.kind)    ? whyNotMend(planned.holding, *volume, action.kind)
                             : action.kind == moveKind  ? whyNotMove(planned.holding, *volume, action.target)
                             : action.kind == retagKind ? whyNotRetag(planned.holding, *volume)
                             : action.kind == rewriteKind ? whyNotRewrite(planned.holding, *volume)
                                                          : whyNotRetire(planned, *volume);
        if (!refusal) {
            return refusal.error();
        }
        planned.refused = *refusal;
        const bool takesAlong = action.kind == retireKind || action.kind == moveKind;
        return takesAlong && !planned.refused ? withReferences(std::move(planned))
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
        if (planned.action.kind == moveKind) {
            planned.target = planned.action.target;
        }
        const std::vector<HoldingId> ids{planned.holding.id};
        const auto references = PlayerStore(catalogue_).leadingTo(ids);
        if (!references) {
            return references.error();
        }
        planned.references = references->size();
        if (references->empty()) {
            return planned;
        }
        const auto candidates = planned.action.kind == moveKind
                                    ? Result<std::vector<BytePath>>(std::vector{planned.target})
                                    : staying(planned);
        if (!candidates) {
            return candidates.error();
        }
        const auto place = placeForReferences(shelf_, planned.path, *references, *candidates);
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
        auto found = carriersOf(catalogue_, planned.holding, volumes_, toRetire_, OtherBytes::too);
        if (!found) {
            return found.error();
        }
        planned.carriers = *found;
        auto& carriers = *found;
        const Findings findings(catalogue_);
        const auto set = findings.setOf(planned.holding.id);
        if (!set) {
            return set.error();
        }
        const auto decision = *set ? findings.decisionOn(**set) : Result<SetDecision>(SetDecision{});
        if (!decision) {
            return decision.error();
        }
        std::ranges::stable_partition(carriers, [&](const Carrier& carrier) {
            return decision->keeper && carrier.holding.id == *decision->keeper;
        });
        std::vector<BytePath> places;
        std::ranges::transform(carriers, std::back_inserter(places), &Carrier::path);
        return places;
    }

    Result<std::optional<std::string>> whyNotMove(const Holding& holding, const Volume& volume,
                                                  const BytePath& target) {
        using Answer = std::optional<std::string>;
        if (auto gone = whyOutOfReach(holding, volume)) {
            return Answer(std::move(gone));
        }
        if (const auto onto = volumeHolding(volumes_, target); !onto) {
            return Answer(onto.error().sentence);
        }
        if (isTaken(target) || !moveTargets_.insert(target).second) {
            return Answer(displayPath(target) + " is taken.");
        }
        return isOnSameFilesystem(joinPath(volume.root, holding.path), target)
                   ? Answer()
                   : Answer("It would leave its file system; what is moved stays on it.");
    }

    Result<std::optional<std::string>> whyNotAccept(const Holding& holding) const {
        using Answer = std::optional<std::string>;
        const EvidenceStore store(catalogue_);
        const auto evidence = store.of(holding.id);
        const auto before = store.acceptanceOf(holding.id);
        if (!evidence || !before) {
            return evidence ? before.error() : evidence.error();
        }
        if (holding.state != HoldingState::present) {
            return Answer("It is not there any more.");
        }
        if (!*evidence) {
            return Answer("It was not examined yet: survey its volume at full effort first.");
        }
        return *before ? Answer(fmt::format("It was accepted before: {}.", (*before)->reason)) : Answer();
    }

    Result<std::optional<std::string>> whyNotAcceptChange(const Holding& holding) const {
        using Answer = std::optional<std::string>;
        const auto drift = FixityStore(catalogue_).of(holding.id);
        if (!drift) {
            return drift.error();
        }
        return *drift && (*drift)->accepted == 0 ? Answer()
                                                 : Answer("It is what was recorded: nothing to accept.");
    }

    Result<std::optional<std::string>> whyNotMend(const Holding& holding, const Volume& volume,
                                                  std::string_view kind) const {
        using Answer = std::optional<std::string>;
        const bool missing = holding.state == HoldingState::missing && kind == restoreKind;
        if (auto gone = missing ? whyAway(holding, volume) : whyOutOfReach(holding, volume)) {
            return Answer(std::move(gone));
        }
        if (!missing && holding.links > 1) {
            return Answer("It is one file with several names; the others would keep the damage.");
        }
        if (missing && isTaken(joinPath(volume.root, holding.path))) {
            return Answer("Something stands at its place again; survey the volume first.");
        }
        const auto plan = mendingOf(catalogue_, holding.id, volumes_);
        if (!plan) {
            return plan.error().cause == Cause::invalid ? Result<Answer>(Answer(plan.error().sentence))
                                                        : plan.error();
        }
        if (kind == restoreKind) {
            return plan->healthy.empty() ? Answer("No healthy copy of what was recorded is at hand.")
                                         : Answer();
        }
        return plan->canBeAssembled ? Answer() : Answer("The copies at hand do not hold every block sound.");
    }

    static Result<std::optional<std::string>> whyNotRetag(const Holding& holding, const Volume& volume) {
        using Answer = std::optional<std::string>;
        if (auto gone = whyOutOfReach(holding, volume)) {
            return Answer(std::move(gone));
        }
        return holding.links > 1
                   ? Answer("It is one file with several names; the others would keep the old tags.")
                   : Answer();
    }

    static std::optional<std::string> whyOutOfReach(const Holding& holding, const Volume& volume) {
        if (holding.state != HoldingState::present) {
            return "It is not there any more.";
        }
        if (auto away = whyAway(holding, volume)) {
            return away;
        }
        // What is changed by way of a link is changed where it is, and nobody who knows it there would hear
        // of it.
        const auto path = joinPath(volume.root, holding.path);
        const auto real = volume.choices.followLinks ? realPathOf(path).value_or(path) : path;
        return real == path
                   ? std::nullopt
                   : std::optional(fmt::format("It is reached by a link; it is {}. Decide on it there.",
                                               displayPath(real)));
    }

    static std::optional<std::string> whyAway(const Holding& holding, const Volume& volume) {
        return volume.reaches(holding.path) ? std::nullopt
               : volume.atHand
                   ? std::optional(
                         fmt::format("What was mounted there on {} is away; nothing can be done there now.",
                                     volume.label))
                   : std::optional(fmt::format("{} is away; nothing can be done there now.", volume.label));
    }

    Result<std::optional<std::string>> whyNotRewrite(const Holding& holding, const Volume& volume) const {
        using Answer = std::optional<std::string>;
        if (auto gone = whyOutOfReach(holding, volume)) {
            return Answer(std::move(gone));
        }
        const auto evidence = EvidenceStore(catalogue_).of(holding.id);
        if (!evidence) {
            return evidence.error();
        }
        return !*evidence ? Answer("It was not examined yet: survey its volume at full effort first.")
               : holding.links > 1
                   ? Answer("It is one file with several names; the others would stay as they are.")
               : canBeRewritten(holding.claims, **evidence)
                   ? Answer()
                   : Answer("It holds nothing beside its audio and its tags that could be left out.");
    }

    /// Takes down in `planned` what would be lost.
    Result<std::optional<std::string>> whyNotRetire(PlannedAction& planned, const Volume& volume) {
        using Answer = std::optional<std::string>;
        if (auto gone = whyOutOfReach(planned.holding, volume)) {
            return Answer(std::move(gone));
        }
        auto carriers = carriersOf(catalogue_, planned.holding, volumes_, toRetire_);
        if (!carriers) {
            return carriers.error();
        }
        planned.carriers = std::move(*carriers);
        if (planned.carriers.empty()) {
            const auto all = carriersOf(catalogue_, planned.holding, volumes_, {});
            return !all           ? Result<Answer>(all.error())
                   : all->empty() ? Answer("It is the only copy at hand.")
                                  : Answer(fmt::format(
                                        "All {} copies at hand are told to retire; one of them has to stay.",
                                        all->size() + 1));
        }
        planned.loss = planned.carriers.front().loss;
        planned.awaitsConsent =
            planned.loss != Loss::none && planned.action.consent != lossWord(planned.loss);
        return planned.awaitsConsent
                   ? Answer(fmt::format("If it goes, {}: {} stays. Consent to that loss first.",
                                        lossWords(planned.loss), displayPath(planned.carriers.front().path)))
                   : Answer();
    }

    const Catalogue& catalogue_;
    std::vector<Volume> volumes_;
    PlayerShelf shelf_;
    std::unordered_set<HoldingId> toRetire_;
    std::unordered_set<BytePath> moveTargets_;
};

/// A file with several names is freed when the last of them goes.
void countFreed(DocketReview& review) {
    std::map<std::pair<VolumeId, std::uint64_t>, std::uint64_t> namesGoing;
    std::map<std::string, std::uint64_t> byVolume;
    for (auto& planned : review.actions) {
        if (planned.refused || planned.action.kind != retireKind) {
            continue;
        }
        const auto& holding = planned.holding;
        if (holding.links <= 1 || ++namesGoing[{holding.volume, holding.inode}] == holding.links) {
            planned.frees = holding.size;
        }
        review.frees += planned.frees;
        byVolume[planned.volume] += planned.frees;
    }
    review.freesByVolume.assign(byVolume.begin(), byVolume.end());
}

} // namespace

Outcome consentToLoss(const Catalogue& catalogue, HoldingId holding) {
    const auto review = reviewDocket(catalogue);
    if (!review) {
        return review.error();
    }
    const auto planned = std::ranges::find_if(review->actions, [&](const PlannedAction& each) {
        return each.holding.id == holding && each.action.kind == retireKind;
    });
    if (planned == review->actions.end() || planned->loss == Loss::none) {
        return Error{Cause::invalid, {}, "Nothing is lost by that: there is nothing to consent to."};
    }
    return DocketStore(catalogue).consent(holding, lossWord(planned->loss));
}

Result<DocketReview> reviewDocket(const Catalogue& catalogue) {
    const auto actions = DocketStore(catalogue).all();
    if (!actions) {
        return actions.error();
    }
    auto volumes = Volumes(catalogue).all();
    if (!volumes) {
        return volumes.error();
    }
    std::vector<HoldingId> ids;
    for (const auto& action : *actions) {
        if (action.holding != 0) {
            ids.push_back(action.holding);
        }
    }
    auto holdings = Holdings(catalogue).byIds(ids);
    if (!holdings) {
        return holdings.error();
    }
    auto shelf = PlayerShelf::of(catalogue);
    if (!shelf) {
        return shelf.error();
    }
    Reviewer reviewer(catalogue, std::move(*volumes), std::move(*shelf), *actions);
    DocketReview review;
    auto holding = holdings->begin();
    for (const auto& action : *actions) {
        auto planned =
            action.holding == 0 ? reviewer.planPlace(action) : reviewer.plan(action, std::move(*holding++));
        if (!planned) {
            return planned.error();
        }
        review.references +=
            planned->refused || planned->action.kind == writeOffKind ? 0 : planned->references;
        review.refused += planned->refused ? 1 : 0;
        review.actions.push_back(std::move(*planned));
    }
    countFreed(review);
    return review;
}

} // namespace sober
