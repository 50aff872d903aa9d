#pragma once

#include "core/catalogue/records.h"
#include "core/disc/rip_report.h"
#include "core/intake/tag_table.h"
#include "core/media/tag_fields.h"

namespace sober {

/// In place of a track's number: all of the disc in one file.
inline constexpr int wholeDisc = 100;

/// What a track's file says of itself. `plain`: title, artist, album and numbers alone.
TagChange tagsOfTrack(const RippedDisc& disc, int number, bool plain);

/// The same as a holding that is to be filed (transfer/filing.h).
Holding holdingOfTrack(const RippedDisc& disc, int number);

/// The names as a table to be edited (intake/tag_table.h), a row for each audio track; and what a table that
/// was edited says.
std::vector<TaggedFile> tableOfNames(const RippedDisc& disc);
DiscNames namesFrom(const TagTable& table, const DiscNames& before);

/// The place of a track among the audio tracks; nothing for what is hidden before the first.
std::optional<std::size_t> audioPlace(const DiscContents& contents, int number);

} // namespace sober
