#pragma once

#include "core/base/result.h"

#include <span>

namespace sober {

/// Writes files of our own into a folder of our own, never on a volume: each whole or not at all, over what
/// stood there.
Outcome writeReport(const BytePath& folder, std::span<const std::pair<std::string, std::string>> files);

/// Writes one new file where somebody wants it: whole, or there is none. Cause::alreadyThere where the name
/// is taken.
Outcome writeReportTo(const BytePath& path, std::string_view text);

} // namespace sober
