#include "core/audit/carriers.h"

#include "core/base/inner_path.h"
#include "core/catalogue/evidence_store.h"
#include "core/catalogue/findings.h"
#include "core/catalogue/holdings.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace sober {
namespace {

constexpr double padding = 1.5;        // seconds that encoders and silence may add or take
constexpr double leastOfWhole = 0.5;   // less of a recording's length is a passage of it
constexpr double clearlyLower = 1.414; // two steps of a fifth: finer differences say nothing

struct LossText {
    Loss loss;
    std::string_view word;
    std::string_view words;
};

constexpr std::array<LossText, 7> texts{{
    {Loss::none, "", ""},
    {Loss::quality, "quality", "only a copy of clearly lower quality would be left"},
    {Loss::passage, "passage", "this passage would be held only within a longer recording"},
    {Loss::genuineness, "genuine", "only a copy that is not what it claims would be left"},
    {Loss::lossless, "lossless", "no lossless copy of it would be left"},
    {Loss::whole, "whole", "no copy that holds all of it would be left"},
    {Loss::master, "master", "no copy of this master would be left"},
}};

const LossText& textOf(Loss loss) {
    return *std::ranges::find(texts, loss, &LossText::loss);
}

bool isFalse(const MemberFacts& facts) {
    return facts.examined && !facts.accepted &&
           (facts.evidence.verdict.verdict == VerdictClass::transcoded ||
            facts.evidence.verdict.verdict == VerdictClass::doubtful);
}

/// What claims to be lossless and is proven not to be is lossless in its claim alone.
bool isLossless(const Holding& holding, const MemberFacts& facts) {
    const bool disproven =
        facts.examined && !facts.accepted && facts.evidence.verdict.verdict == VerdictClass::transcoded;
    return holding.claims.lossless && !disproven;
}

std::optional<BytePath> placeOfStaying(const Holding& holding, const Holding& goes,
                                       std::span<const Volume> volumes,
                                       const std::unordered_set<HoldingId>& going) {
    const auto volume = std::ranges::find(volumes, holding.volume, &Volume::id);
    const bool stays = holding.id != goes.id && !going.contains(holding.id) &&
                       holding.state == HoldingState::present && !isInsideArchive(holding.path) &&
                       volume != volumes.end() && volume->reaches(holding.path);
    return stays ? std::optional(joinPath(volume->root, holding.path)) : std::nullopt;
}

/// Members of the holding's set with other bytes that stay and carry it.
Outcome addOthers(const Catalogue& catalogue, const Holding& goes, std::span<const Volume> volumes,
                  const std::unordered_set<HoldingId>& going, std::vector<Carrier>& carriers) {
    const Findings findings(catalogue);
    const auto set = findings.setOf(goes.id);
    RETURN_IF_FAILED(set);
    if (!*set || (*set)->sameness == Sameness::tagsOnly) {
        return done();
    }
    const auto ids = findings.membersOf((*set)->id);
    const auto members = ids ? Holdings(catalogue).byIds(*ids) : Result<std::vector<Holding>>(ids.error());
    const auto known =
        members ? SetKnowledge::of(catalogue, *members) : Result<SetKnowledge>(members.error());
    RETURN_IF_FAILED(known);
    const auto self = std::ranges::find(*members, goes.id, &Holding::id);
    if (known->isEmpty() || self == members->end()) {
        return done();
    }
    const auto goesAt = static_cast<std::size_t>(self - members->begin());
    for (std::size_t at = 0; at < members->size(); ++at) {
        const auto& member = (*members)[at];
        const auto path = placeOfStaying(member, goes, volumes, going);
        const bool sound = known->facts(at).examined && known->facts(at).evidence.sound();
        if (!path || !sound || member.checksum == goes.checksum) {
            continue;
        }
        if (const auto loss = lossBetween(goes, goesAt, member, at, *known)) {
            carriers.push_back({member, *path, false, known->isProvenPairwise(goesAt, at), *loss});
        }
    }
    return done();
}

} // namespace

std::string_view lossWord(Loss loss) {
    return textOf(loss).word;
}

std::string_view lossWords(Loss loss) {
    return textOf(loss).words;
}

Loss lossFromWord(std::string_view word) {
    const auto found = std::ranges::find(texts, word, &LossText::word);
    return found != texts.end() ? found->loss : Loss::none;
}

bool isPassage(double partSeconds, double wholeSeconds) {
    return partSeconds < leastOfWhole * wholeSeconds;
}

bool isContained(std::size_t part, std::size_t whole, const SetKnowledge& known) {
    const auto comparison = known.comparison(whole, part);
    if (!comparison) {
        return false;
    }
    const double begins = comparison->offset;
    const double ends = begins + known.facts(part).evidence.seconds;
    return begins >= -padding && ends <= known.facts(whole).evidence.seconds + padding;
}

std::optional<Loss> lossBetween(const Holding& goes, std::size_t goesAt, const Holding& stays,
                                std::size_t staysAt, const SetKnowledge& known) {
    if (known.isEmpty()) {
        return Loss::none;
    }
    const auto link = known.between(goesAt, staysAt);
    if (!link || !known.isProven(goesAt, staysAt)) {
        return std::nullopt;
    }
    if (*link <= Sameness::samples) {
        return Loss::none;
    }
    const auto& goesFacts = known.facts(goesAt);
    const auto& staysFacts = known.facts(staysAt);
    if (*link == Sameness::otherMaster) {
        return Loss::master;
    }
    if (*link == Sameness::part && !isContained(goesAt, staysAt, known)) {
        return Loss::whole;
    }
    if (isLossless(goes, goesFacts) && !isLossless(stays, staysFacts)) {
        return Loss::lossless;
    }
    if (isFalse(staysFacts) && !isFalse(goesFacts)) {
        return Loss::genuineness;
    }
    if (*link == Sameness::part && isPassage(goesFacts.evidence.seconds, staysFacts.evidence.seconds)) {
        return Loss::passage;
    }
    return known.quality(goes, goesAt) >= clearlyLower * known.quality(stays, staysAt) ? Loss::quality
                                                                                       : Loss::none;
}

Result<std::vector<Carrier>> carriersOf(const Catalogue& catalogue, const Holding& goes,
                                        std::span<const Volume> volumes,
                                        const std::unordered_set<HoldingId>& going, OtherBytes others) {
    const auto copies = Holdings(catalogue).carrying(goes.checksum);
    RETURN_IF_FAILED(copies);
    std::vector<Carrier> carriers;
    for (const auto& copy : *copies) {
        if (auto path = placeOfStaying(copy, goes, volumes, going)) {
            carriers.push_back({copy, std::move(*path), true, true, Loss::none});
        }
    }
    if (carriers.empty() || others == OtherBytes::too) {
        RETURN_IF_FAILED(addOthers(catalogue, goes, volumes, going, carriers));
    }
    std::ranges::stable_sort(carriers, {},
                             [](const Carrier& each) { return std::pair(each.loss, !each.sameBytes); });
    return carriers;
}

} // namespace sober
