#include "core/survey/verify_plan.h"

#include "core/catalogue/volumes.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace sober {
namespace {

constexpr Nanoseconds day = 86'400LL * 1'000'000'000;

bool isMeant(const BytePath& path, const VerifyTarget& target) {
    return std::ranges::any_of(
        target.within, [&](const BytePath& folder) { return folder.empty() || isWithin(path, folder); });
}

/// The whole check of the volume that was begun last, where it was stopped.
Result<std::optional<FixityCheck>> stoppedCheck(const FixityStore& store, const VerifyTarget& target,
                                                const VerifyScope& scope) {
    const auto checks = store.checks();
    RETURN_IF_FAILED(checks);
    const auto last = std::ranges::find_if(*checks, [&](const FixityCheck& check) {
        return check.volume == target.volume.id && check.scope == CheckScope::whole;
    });
    const bool goesOn = scope.scope == CheckScope::whole && target.isWholeVolume() && last != checks->end() &&
                        last->ended == 0 && last->strong == scope.strong;
    return goesOn ? std::optional(*last) : std::nullopt;
}

/// Leaves a sample of what was planned, in its order.
void draw(VerifyPlan& plan, std::vector<std::uint64_t>& sizes, const VerifyScope& scope,
          std::mt19937& random) {
    const auto wanted = sampleSize(plan.toRead.size(), scope.extent, scope.missRisk);
    std::vector<std::size_t> all(plan.toRead.size());
    std::iota(all.begin(), all.end(), std::size_t{0});
    std::vector<std::size_t> drawn;
    std::ranges::sample(all, std::back_inserter(drawn), static_cast<std::ptrdiff_t>(wanted), random);
    std::vector<HoldingId> ids;
    std::vector<std::uint64_t> left;
    for (const auto at : drawn) {
        ids.push_back(plan.toRead[at]);
        left.push_back(sizes[at]);
    }
    plan.toRead = std::move(ids);
    sizes = std::move(left);
}

} // namespace

bool VerifyTarget::isWholeVolume() const {
    return std::ranges::find(within, BytePath()) != within.end();
}

Result<std::vector<VerifyTarget>> verifyTargets(const std::vector<Volume>& volumes,
                                                std::span<const BytePath> paths) {
    std::vector<VerifyTarget> targets;
    if (paths.empty()) {
        for (const auto& volume : volumes) {
            if (volume.atHand) {
                targets.push_back({volume, {""}});
            }
        }
        return targets;
    }
    for (const auto& given : paths) {
        const auto path = realPathOf(given).value_or(placeOf(given).value_or(given));
        const auto found = volumeHolding(volumes, path);
        RETURN_IF_FAILED(found);
        const auto* volume = *found;
        const auto known = std::ranges::find_if(
            targets, [&](const VerifyTarget& target) { return target.volume.id == volume->id; });
        if (known == targets.end()) {
            targets.push_back({*volume, {*relativeTo(path, volume->root)}});
        } else {
            known->within.push_back(*relativeTo(path, volume->root));
        }
    }
    return targets;
}

Result<VerifyPlan> planVerification(const FixityStore& store, const VerifyTarget& target,
                                    const VerifyScope& scope, std::mt19937& random) {
    const auto period = store.periodOf(target.volume.id);
    auto stopped = stoppedCheck(store, target, scope);
    if (!period || !stopped) {
        return period ? stopped.error() : period.error();
    }
    VerifyPlan plan{target, {}, {}, 0, std::move(*stopped)};
    const auto now = timeNow();
    std::vector<std::uint64_t> sizes;
    const auto walked = store.eachRecordedOn(target.volume.id, [&](const FixityStore::Recorded& each) {
        if (!isMeant(each.path, target) || !target.volume.reaches(each.path)) {
            return;
        }
        if (each.state == HoldingState::missing) {
            plan.missing.push_back(each.id);
        } else if (scope.scope == CheckScope::due ? now - each.verified >= *period * day
                                                  : !plan.goesOn || each.verified < plan.goesOn->began) {
            plan.toRead.push_back(each.id);
            sizes.push_back(each.size);
        }
    });
    RETURN_IF_FAILED(walked);
    if (scope.scope == CheckScope::sample) {
        draw(plan, sizes, scope, random);
    }
    plan.bytes = std::accumulate(sizes.begin(), sizes.end(), std::uint64_t{0});
    return plan;
}

std::uint64_t sampleSize(std::uint64_t total, double extent, double missRisk) {
    const auto damaged = static_cast<std::uint64_t>(std::ceil(extent * static_cast<double>(total)));
    if (total == 0 || damaged == 0 || missRisk <= 0) {
        return total;
    }
    double missed = 1;
    std::uint64_t size = 0;
    while (size < total && missed > missRisk) {
        const auto left = static_cast<double>(total - size);
        missed *= std::max(0.0, left - static_cast<double>(damaged)) / left;
        ++size;
    }
    return size;
}

} // namespace sober
