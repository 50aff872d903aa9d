#pragma once

#include "core/catalogue/action_kind.h"
#include "core/catalogue/salvage_store.h"

#include <map>

namespace sober {

/// The finds that stand on the docket, and for what.
Result<std::map<FindId, ActionKind>> waitingFinds(const Catalogue& catalogue);
/// Takes these off the docket.
Outcome leaveFinds(const Catalogue& catalogue, std::span<const FindId> finds);
/// Forgets what was found in an image. Cause::invalid while some of it stands on the docket, notFound where
/// the image was not looked through.
Outcome forgetImage(const Catalogue& catalogue, const BytePath& image);

} // namespace sober
