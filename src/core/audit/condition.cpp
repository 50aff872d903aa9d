#include "core/audit/condition.h"

#include "core/catalogue/evidence_store.h"
#include "core/catalogue/fixity_store.h"
#include "core/catalogue/player_store.h"
#include "core/catalogue/volumes.h"

#include <algorithm>

namespace sober {
namespace {

void addTo(VolumeFigures& total, const VolumeFigures& part) {
    total.holdings += part.holdings;
    total.bytes += part.bytes;
    total.duration += part.duration;
    total.heldOnce += part.heldOnce;
    total.inSets += part.inSets;
    total.missing += part.missing;
    total.troubled += part.troubled;
    total.examined += part.examined;
    total.claims += part.claims;
}

std::vector<NextStep> nextStepsOf(const Condition& condition) {
    std::vector<NextStep> steps;
    if (condition.volumes.empty()) {
        steps.push_back({NextStep::Kind::survey, 0, 0});
    }
    if (condition.drift > 0) {
        steps.push_back({NextStep::Kind::lookAtDrift, condition.drift, 0});
    }
    if (condition.total.missing > 0) {
        steps.push_back({NextStep::Kind::findMissing, condition.total.missing, 0});
    }
    if (condition.brokenReferences > 0) {
        steps.push_back({NextStep::Kind::relink, condition.brokenReferences, 0});
    }
    if (condition.reclaimable > 0) {
        steps.push_back({NextStep::Kind::retireCopies, condition.copySets, condition.reclaimable});
    }
    if (condition.total.claims > 0) {
        steps.push_back({NextStep::Kind::lookAtClaims, condition.total.claims, 0});
    }
    if (condition.betterKnown > 0) {
        steps.push_back({NextStep::Kind::replaceLow, condition.betterKnown, 0});
    }
    if (condition.total.examined < condition.total.holdings) {
        steps.push_back({NextStep::Kind::examine, condition.total.holdings - condition.total.examined, 0});
    }
    if (condition.errors > 0) {
        steps.push_back({NextStep::Kind::lookAtErrors, condition.errors, 0});
    }
    return steps;
}

} // namespace

std::vector<std::pair<std::string_view, std::uint64_t>> findingCounts(const Condition& condition) {
    return {{"copies", condition.copySets},       {"claims", condition.total.claims},
            {"drift", condition.drift},           {"damaged", condition.total.troubled},
            {"missing", condition.total.missing}, {"broken_references", condition.brokenReferences}};
}

Result<Condition> conditionOf(const Catalogue& catalogue) {
    Condition condition;
    auto volumes = Volumes(catalogue).all();
    RETURN_IF_FAILED(volumes);
    condition.volumes = std::move(*volumes);
    const Findings findings(catalogue);
    const auto figures = findings.volumeFigures();
    RETURN_IF_FAILED(figures);
    for (const auto& volume : condition.volumes) {
        const auto found = std::ranges::find(*figures, volume.id, &VolumeFigures::volume);
        condition.figures.push_back(found != figures->end() ? *found : VolumeFigures{.volume = volume.id});
        addTo(condition.total, condition.figures.back());
    }
    const auto totals = findings.setTotals();
    RETURN_IF_FAILED(totals);
    condition.copySets = totals->sets;
    condition.reclaimable = totals->reclaimable;
    const auto drift = FixityStore(catalogue).open();
    RETURN_IF_FAILED(drift);
    condition.drift = drift->size();
    const auto broken = PlayerStore(catalogue).broken();
    RETURN_IF_FAILED(broken);
    condition.brokenReferences = *broken;
    const auto errors = findings.surveyErrors();
    RETURN_IF_FAILED(errors);
    condition.errors = errors->size();
    HoldingFilter low;
    low.underLimit = true;
    low.betterElsewhere = true;
    const auto better = EvidenceStore(catalogue).count(low);
    RETURN_IF_FAILED(better);
    condition.betterKnown = *better;
    condition.nextSteps = nextStepsOf(condition);
    return condition;
}

} // namespace sober
