#pragma once

#include "core/report/report.h"

#include <optional>
#include <string>
#include <string_view>

namespace sober {

enum class ReportForm {
    html,
    csv,
    json,
};
std::optional<ReportForm> reportFormOf(std::string_view word);

/// For a person: a page by itself with pictures (SVG), for the screen and for paper. Of each kind of finding
/// the first `mostRows` are listed, and it is said how many more there are.
std::string reportPage(const Report& report, std::size_t mostRows = 1000);

/// For a table: RFC 4180, UTF-8, one line for each volume, holding of a finding and proof, in the columns
/// finding, group, volume, holding, path, bytes, kind, certainty, advice, when, says.
std::string reportTable(const Report& report);

/// "sober.report/1".
std::string reportJson(const Report& report);

std::string reportText(const Report& report, ReportForm form);

} // namespace sober
