#pragma once

#include "core/catalogue/records.h"
#include "core/remedy/actions/action_type.h"

namespace sober {

/// Why nothing can be done at a holding's place now, since its volume or a part of it is away.
Refusal whyAway(const Holding& holding, const Volume& volume);

/// The same, or that the holding is not there any more or is reached by a link.
Refusal whyOutOfReach(const Holding& holding, const Volume& volume);

/// Refuses where the volume has no room for `bytes` more beside a file.
Outcome hasRoomFor(const BytePath& beside, std::uint64_t bytes);

/// What has to be shown before a file is made anew: that it is what was recorded, and that there is room for
/// so many bytes beside it.
Result<Proven> asRecordedWithRoom(DoingContext& context, const PlannedAction& planned, std::uint64_t bytes);

/// Refuses where anything stands at a place, or it cannot be told (`why` ends the sentence).
Outcome isFree(const BytePath& place, std::string_view why);

} // namespace sober
