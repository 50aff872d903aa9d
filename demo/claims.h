#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

namespace sober::demo {

/// Plants files that are not what they say, and honest ones that look as if: a low-rate MP3 inside FLAC,
/// AAC at 256 kbit/s without any shelf, 128 kbit/s inside 320, an upsampled original, dull tape, and low
/// bitrates with a better copy elsewhere. False where an encoder fails.
bool makeClaims(const BytePath& folder);

/// What was planted: path, what `sober examine` should say, and why.
nlohmann::ordered_json claimsTruth();
/// The copy sets among them: members, and the weakest link that holds each together.
nlohmann::ordered_json formsTruth();
/// Files of which only the tags look alike.
nlohmann::ordered_json alikeTagsTruth();
/// Pairs of a file that should be kept of its set, and why.
nlohmann::ordered_json keepersTruth();

} // namespace sober::demo
