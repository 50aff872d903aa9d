#pragma once

#include "core/intake/candidates.h"
#include "core/intake/offer_shelf.h"

#include <map>

namespace sober {

/// What the offer shelf could give. Title, artist and length of what is wanted are sent to it, and nothing
/// else. An offer is judged by its fingerprint, its length and what it promises; whether that is true is
/// proven once it was fetched.
class OfferSource final : public ReplacementSource {
  public:
    explicit OfferSource(OfferShelf shelf) : shelf_(std::move(shelf)) {}
    Result<std::vector<std::vector<Candidate>>> candidatesFor(std::span<const WantedHolding> wanted,
                                                              RunControl& control) override;
    /// What the last question was answered with, by the address in the candidates.
    const std::map<std::string, Offer>& offers() const { return offers_; }

  private:
    Candidate candidateOf(const Offer& offer, const WantedHolding& wanted);

    OfferShelf shelf_;
    std::map<std::string, Offer> offers_;
};

} // namespace sober
