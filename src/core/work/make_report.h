#pragma once

#include "core/report/report_forms.h"

#include <functional>

namespace sober {

/// What brings a finished page into another language.
using PageWords = std::function<std::string(const std::string& page)>;

/// Takes a report from the catalogue and writes it into a new file; nothing is there where it fails. A page
/// goes through `words`, where there are some; what other programs read does not.
Outcome makeReport(const Catalogue& catalogue, const ReportChoices& choices, ReportForm form,
                   const BytePath& to, RunControl& control, const ProgressSink& onProgress,
                   const PageWords& words = {});

} // namespace sober
