#pragma once

#include "core/base/http_exchange.h"
#include "core/intake/offers.h"

#include <functional>

namespace sober {

/// A service that offers files of recordings, reached by HTTP (libcurl). Only what the custodian set up is
/// asked, and nothing is followed to another host.
class OfferShelf {
  public:
    explicit OfferShelf(std::string address, const HttpLimits& limits = {})
        : service_{"offer shelf", std::move(address), limits} {}

    /// What it offers for each question, at most a hundred questions to a request. Errors are sentences about
    /// the shelf: Cause::unreadable where it cannot be reached or breaks off, damaged where it answers
    /// nonsense.
    Result<std::vector<Offer>> ask(std::span<const OfferQuestion> questions, RunControl& control) const;

    /// Gives a file's bytes as they come; just as many as were promised, else Cause::damaged. The checksum is
    /// for who takes them.
    Outcome fetch(const Offer& offer, const std::function<Outcome(std::string_view)>& take,
                  RunControl& control) const;

    /// Where an offer is fetched from; nothing where that is another host.
    std::optional<std::string> addressOf(const Offer& offer) const;
    const std::string& address() const { return service_.address; }

  private:
    HttpService service_;
};

/// Whether this may be a shelf's address; else the sentence.
inline Outcome isShelfAddress(const std::string& address) {
    return isServiceAddress({"offer shelf", address, {}});
}

} // namespace sober
