#pragma once

#include "core/base/paths.h"

#include <nlohmann/json_fwd.hpp>

namespace sober::demo {

/// Files of which something will happen by itself after they were recorded, copies of some, and files that
/// were never sound.
bool makeDriftable(const BytePath& folder);

/// What happens: one change of each kind, silent ones with their times put back. To be called once, after the
/// last survey.
bool letDriftHappen(const BytePath& folder);

/// Verifications of the past, with a gap, into the catalogue.
bool writeCheckHistory(const BytePath& cataloguePath);

nlohmann::ordered_json driftTruth();
nlohmann::ordered_json unsoundTruth();

} // namespace sober::demo
