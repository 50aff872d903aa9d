#include "core/intake/wanted.h"

#include "core/base/inner_path.h"
#include "core/base/text.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/holdings.h"
#include "core/catalogue/inbox_store.h"
#include "core/catalogue/volumes.h"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace sober {
namespace {

bool isCut(const Evidence& evidence) {
    return std::ranges::any_of(evidence.problems, [](const DecodeProblem& problem) {
        return problem.kind == "truncated" || problem.kind == "length-mismatch";
    });
}

/// Why it is wanted; nothing where it is not.
std::optional<WantedFor> whyWanted(const Evidence& evidence, bool isUnderLimit) {
    if (!evidence.sound()) {
        return isCut(evidence) ? WantedFor::cut : WantedFor::damaged;
    }
    if (evidence.verdict.verdict == VerdictClass::transcoded) {
        return WantedFor::transcoded;
    }
    if (isUnderLimit) {
        return WantedFor::underLimit;
    }
    return std::nullopt;
}

std::string wordsFor(const Holding& holding, const Evidence& evidence, WantedFor why) {
    switch (why) {
    case WantedFor::cut:
    case WantedFor::damaged:
        return evidence.problems.front().detail;
    case WantedFor::transcoded:
        return evidence.verdict.reasons.empty() ? "it was lossy before" : evidence.verdict.reasons.front();
    case WantedFor::underLimit:
        break;
    }
    return fmt::format("{} at {} kbit/s", holding.claims.codec, holding.claims.bitrate / 1000);
}

/// Ids that a filter means, without those that are there.
Outcome addMeant(const EvidenceStore& store, const HoldingFilter& filter, std::vector<HoldingId>& ids,
                 std::unordered_set<HoldingId>& met) {
    const auto meant = store.meant(filter);
    RETURN_IF_FAILED(meant);
    for (const auto id : *meant) {
        if (met.insert(id).second) {
            ids.push_back(id);
        }
    }
    return done();
}

/// Without what lies in an inbox: that is for Intake to judge.
Outcome leaveArrivals(const Catalogue& catalogue, std::vector<HoldingId>& ids) {
    const auto inboxes = InboxStore(catalogue).all();
    const auto volumes = Volumes(catalogue).all();
    if (!inboxes || !volumes) {
        return inboxes ? volumes.error() : inboxes.error();
    }
    std::unordered_set<HoldingId> arrivals;
    for (const auto& inbox : *inboxes) {
        for (const auto& volume : *volumes) {
            const auto folder = relativeTo(inbox.folder, volume.root);
            if (!folder) {
                continue;
            }
            HoldingFilter filter;
            filter.volume = volume.id;
            filter.folder = *folder;
            const auto there = EvidenceStore(catalogue).meant(filter);
            RETURN_IF_FAILED(there);
            arrivals.insert(there->begin(), there->end());
        }
    }
    std::erase_if(ids, [&](HoldingId id) { return arrivals.contains(id); });
    return done();
}

Result<std::vector<WantedHolding>> detailsOf(const Catalogue& catalogue, std::span<const HoldingId> ids) {
    auto holdings = Holdings(catalogue).byIds(ids);
    const auto volumes = Volumes(catalogue).all();
    const EvidenceStore store(catalogue);
    if (!holdings || !volumes) {
        return holdings ? volumes.error() : holdings.error();
    }
    std::vector<WantedHolding> details;
    for (auto& holding : *holdings) {
        auto evidence = store.of(holding.id);
        const auto isLow = store.isUnderLimit(holding.id);
        if (!evidence || !isLow) {
            return evidence ? isLow.error() : evidence.error();
        }
        const auto volume = std::ranges::find(*volumes, holding.volume, &Volume::id);
        if (volume == volumes->end() || isInsideArchive(holding.path)) {
            continue;
        }
        WantedHolding each;
        each.path = joinPath(volume->root, holding.path);
        each.atHand = volume->reaches(holding.path);
        each.why = *evidence ? whyWanted(**evidence, *isLow) : std::nullopt;
        each.words = each.why ? wordsFor(holding, **evidence, *each.why) : std::string();
        each.holding = std::move(holding);
        each.evidence = std::move(*evidence);
        details.push_back(std::move(each));
    }
    return details;
}

} // namespace

std::string_view word(WantedFor why) {
    constexpr std::string_view words[]{"cut", "damaged", "transcoded", "under-limit"};
    return words[static_cast<std::size_t>(why)];
}

Result<std::vector<HoldingId>> wantedHoldings(const Catalogue& catalogue, const std::string& text) {
    const EvidenceStore store(catalogue);
    std::vector<HoldingId> ids;
    std::unordered_set<HoldingId> met;
    HoldingFilter all;
    all.text = text;
    const auto unsound = store.unsound();
    const auto meant = unsound->empty() ? Result(std::vector<HoldingId>{}) : store.meant(all);
    if (!unsound || !meant) {
        return unsound ? meant.error() : unsound.error();
    }
    for (const auto id : *meant) {
        if (!unsound->contains(id)) {
            continue;
        }
        const auto accepted = store.acceptanceOf(id);
        RETURN_IF_FAILED(accepted);
        if (!*accepted && met.insert(id).second) {
            ids.push_back(id);
        }
    }
    auto transcoded = all;
    transcoded.verdicts = {VerdictClass::transcoded};
    auto low = all;
    low.underLimit = true;
    for (const auto& filter : {transcoded, low}) {
        RETURN_IF_FAILED(addMeant(store, filter, ids, met));
    }
    const auto left = leaveArrivals(catalogue, ids);
    return left ? Result(std::move(ids)) : Result<std::vector<HoldingId>>(left.error());
}

Result<std::vector<WantedHolding>> wantedDetails(const Catalogue& catalogue, std::span<const HoldingId> ids) {
    auto all = detailsOf(catalogue, ids);
    if (all) {
        std::erase_if(*all, [](const WantedHolding& each) { return !each.why; });
    }
    return all;
}

Result<WantedHolding> wantedDetail(const Catalogue& catalogue, HoldingId id) {
    auto one = detailsOf(catalogue, std::array{id});
    return !one ? Result<WantedHolding>(one.error())
           : one->empty()
               ? Result<WantedHolding>(Error{Cause::notFound, {}, "That holding is not known any more."})
               : Result(std::move(one->front()));
}

} // namespace sober
