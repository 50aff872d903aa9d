#include "core/intake/offer_source.h"

#include "core/base/text.h"
#include "core/evidence/shared_passages.h"

#include <fmt/format.h>

#include <cmath>

namespace sober {
namespace {

constexpr double padding = 1.5; // seconds that encoders and silence may add or take, as between holdings
constexpr double clearlyBetter = 1.19;
constexpr double leastShared = 0.5;
constexpr double losslessQuality = 1e7;

void refuse(Candidate& candidate, Unfit unfit, std::string reason) {
    candidate.unfit = unfit;
    candidate.reasons = {std::move(reason)};
}

double promisedQuality(const Claims& claims) {
    return claims.lossless ? losslessQuality : asLayerIII(claims.codec, static_cast<double>(claims.bitrate));
}

std::string promiseWords(const Offer& offer) {
    return offer.claims.lossless
               ? offer.claims.codec + ", lossless"
               : fmt::format("{} at {} kbit/s", offer.claims.codec, offer.claims.bitrate / 1000);
}

} // namespace

Candidate OfferSource::candidateOf(const Offer& offer, const WantedHolding& wanted) {
    Candidate candidate;
    candidate.source = CandidateSource::offer;
    const auto address = shelf_.addressOf(offer);
    candidate.path = address.value_or(offer.address);
    candidate.quality = promisedQuality(offer.claims);
    if (!address) {
        refuse(candidate, Unfit::notOnOffer, "it lies on another host than the shelf, which is not asked");
        return candidate;
    }
    offers_[*address] = offer;
    SetKnowledge own;
    own.add({wanted.evidence.has_value(), false, wanted.evidence.value_or(Evidence{})});
    const auto& heard = own.facts(0).evidence.fingerprint;
    const double apart = offer.claims.duration - own.facts(0).evidence.seconds;
    const bool isOtherLength = std::abs(apart) > padding && !(wanted.isBroken() && apart > 0);
    if (!offer.fingerprint.empty() && !heard.empty()) {
        const auto shared = sharedPassages(heard, offer.fingerprint);
        if (shared.share < leastShared) {
            refuse(candidate, Unfit::onlyTags, "only the tags look alike, its fingerprint is another's");
            return candidate;
        }
        if (!shared.isInOneRow) {
            refuse(candidate, Unfit::otherEdit, "another edit: its passages are cut otherwise");
            return candidate;
        }
    }
    if (isOtherLength) {
        refuse(
            candidate, Unfit::otherLength,
            fmt::format("{:.0f} s {} than what is held", std::abs(apart), apart < 0 ? "shorter" : "longer"));
    } else if (!wanted.isBroken() && candidate.quality < clearlyBetter * own.quality(wanted.holding, 0)) {
        refuse(candidate, Unfit::notBetter, "what it promises (" + promiseWords(offer) + ") is no better");
    } else {
        candidate.reasons = {promiseWords(offer), "promised; proven once it is fetched"};
    }
    return candidate;
}

Result<std::vector<std::vector<Candidate>>> OfferSource::candidatesFor(std::span<const WantedHolding> wanted,
                                                                       RunControl& control) {
    std::vector<OfferQuestion> questions;
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        const auto& tags = wanted[i].holding.tags;
        if (!tags.title.empty()) {
            const double seconds =
                wanted[i].evidence ? wanted[i].evidence->seconds : wanted[i].holding.claims.duration;
            questions.push_back({i, tags.title, tags.artist, seconds});
        }
    }
    const auto offers = shelf_.ask(questions, control);
    if (!offers) {
        return offers.error();
    }
    std::vector<std::vector<Candidate>> all(wanted.size());
    for (const auto& offer : *offers) {
        all[offer.number].push_back(candidateOf(offer, wanted[offer.number]));
    }
    for (auto& candidates : all) {
        if (candidates.empty()) {
            Candidate none;
            none.source = CandidateSource::offer;
            none.path = shelf_.address();
            refuse(none, Unfit::notOnOffer, "the shelf does not offer it");
            candidates.push_back(std::move(none));
        }
        rank(candidates);
    }
    return all;
}

} // namespace sober
