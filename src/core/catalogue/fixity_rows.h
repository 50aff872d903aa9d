#pragma once

#include "core/catalogue/fixity_store.h"

#include <SQLiteCpp/SQLiteCpp.h>

namespace sober {

// What FixityStore and the keeping of baselines share. All throws as SQLite does.

/// The checksums of a holding's blocks; none where they are not kept.
std::vector<Checksum128> blocksIn(SQLite::Database& database, HoldingId holding);
/// All that is known of a holding now; nothing where there is none of that id.
std::optional<FixityFacts> factsIn(SQLite::Database& database, HoldingId holding);

/// For `driftFrom`; what follows it asks of `d`, a row of drifts.
inline constexpr const char* driftSelect =
    "SELECT d.holding, d.kind, d.found, d.size, d.mtime, d.xxh3, d.sha256, "
    "d.blocks, d.payload, d.samples_md5, "
    "d.fingerprint, d.accepted, d.reason, d.codec, d.sample_rate, "
    "d.channels, d.bit_depth, d.duration, d.title, "
    "d.artist, d.album, d.track, d.date FROM drifts d ";

Drift driftFrom(SQLite::Statement& row);

/// Runs a statement about one holding.
void execFor(SQLite::Database& database, const char* sql, HoldingId holding);

} // namespace sober
