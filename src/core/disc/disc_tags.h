#pragma once

#include "core/catalogue/records.h"
#include "core/disc/rip_report.h"
#include "core/media/tag_fields.h"

namespace sober {

/// What a track's file says of itself. `plain`: title, artist, album and numbers alone.
TagChange tagsOfTrack(const RippedDisc& disc, int number, bool plain);

/// The same as a holding that is to be filed (transfer/filing.h).
Holding holdingOfTrack(const RippedDisc& disc, int number);

/// The place of a track among the audio tracks; nothing for what is hidden before the first.
std::optional<std::size_t> audioPlace(const DiscContents& contents, int number);

} // namespace sober
