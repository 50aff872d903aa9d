#pragma once

#include "core/intake/offer_shelf.h"

namespace sober {

/// Where what was fetched waits until it is in its place: a folder beside the catalogue, outside all volumes.
BytePath fetchedFolder(const BytePath& catalogue);

/// Fetches an offer into a folder, under its checksum as name, and yields the path; what is there already is
/// used again. Nothing is left of what breaks off, is not what was promised (Cause::damaged), or finds no
/// room (Cause::full).
Result<BytePath> fetchOffer(const OfferShelf& shelf, const Offer& offer, const BytePath& folder,
                            RunControl& control, const std::function<void(std::uint64_t)>& onBytes);

/// Removes from that folder what is not among `needed`.
Outcome forgetFetched(const BytePath& folder, std::span<const BytePath> needed);

} // namespace sober
