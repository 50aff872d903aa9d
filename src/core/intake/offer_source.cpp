#include "core/intake/offer_source.h"

#include "core/base/text.h"

#include <fmt/format.h>

#include <cmath>

namespace sober {
namespace {

constexpr double padding = 1.5; // seconds that encoders and silence may add or take, as between holdings

void refuse(Candidate& candidate, Unfit unfit, std::string reason) {
    candidate.unfit = unfit;
    candidate.reasons = {std::move(reason)};
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
    if (!address) {
        refuse(candidate, Unfit::notOnOffer, "it lies on another host than the shelf, which is not asked");
        return candidate;
    }
    offers_[*address] = offer;
    SetKnowledge own;
    own.add({wanted.evidence.has_value(), false, wanted.evidence.value_or(Evidence{})});
    own.add({}); // not examined: what is claimed counts
    Holding promised;
    promised.claims = offer.claims;
    candidate.quality = own.quality(promised, 1);
    const auto& heard = own.facts(0).evidence.fingerprint;
    const double apart = offer.claims.duration - own.facts(0).evidence.seconds;
    const bool isOtherLength = std::abs(apart) > padding && !(wanted.isBroken() && apart > 0);
    if (areApart(heard, offer.fingerprint)) {
        tellApart(candidate, heard, own.facts(0).evidence.seconds, offer.fingerprint, offer.claims.duration);
        return candidate;
    }
    if (isOtherLength) {
        refuse(candidate, Unfit::otherLength, lengthWords(apart));
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
    RETURN_IF_FAILED(offers);
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
