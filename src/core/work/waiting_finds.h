#pragma once

#include "core/catalogue/salvage_store.h"

#include <set>

namespace sober {

/// The finds that stand on the docket.
Result<std::set<FindId>> waitingFinds(const Catalogue& catalogue);
/// Takes these off the docket.
Outcome leaveFinds(const Catalogue& catalogue, std::span<const FindId> finds);
/// Forgets what was found in an image. Cause::invalid while some of it stands on the docket, notFound where
/// the image was not looked through.
Outcome forgetImage(const Catalogue& catalogue, const BytePath& image);

} // namespace sober
