#pragma once

#include "core/report/report.h"

#include <string>

namespace sober {

// Pictures of a report, as SVG 1.1 within HTML (W3C). Each says in words what it shows; what differs by
// colour differs by shape or by a word too.

/// Each volume as a bar of its holdings: held once, held more than once, missing.
std::string volumesPicture(const Report& report);
/// What following the advice frees, by how the copies are the same.
std::string copiesPicture(const Report& report);
/// Claims that are contradicted: the bitrate that is stated against the frequency up to which there is sound.
std::string claimsPicture(const Report& report);
/// How long ago the holdings of each volume were last read from end to end.
std::string lastReadPicture(const Report& report);

} // namespace sober
