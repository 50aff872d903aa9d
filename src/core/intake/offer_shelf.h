#pragma once

#include "core/base/run_control.h"
#include "core/intake/offers.h"

#include <functional>

namespace sober {

/// How long is waited for a shelf, and how much is taken from it. No source.
struct ShelfLimits {
    long connectSeconds = 10;
    long silentSeconds = 30;                ///< without a byte
    std::uint64_t mostAnswer = 8U << 20;    ///< bytes of a list of offers
    std::uint64_t mostFile = 4'000'000'000; ///< bytes of one file
    int mostRedirects = 5;
};

/// A service that offers files of recordings, reached by HTTP (libcurl). Only what the custodian set up is
/// asked, and nothing is followed to another host.
class OfferShelf {
  public:
    explicit OfferShelf(std::string address, const ShelfLimits& limits = {})
        : address_(std::move(address)), limits_(limits) {}

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
    const std::string& address() const { return address_; }

  private:
    std::string address_;
    ShelfLimits limits_;
};

/// Whether somebody means an offer by it, and not a file.
bool isAddress(std::string_view text);

/// Whether this may be a shelf's address: http or https, a host, no password in it. Else the sentence.
Outcome isShelfAddress(const std::string& address);

} // namespace sober
