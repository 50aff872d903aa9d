#pragma once

#include "core/report/report_forms.h"

namespace sober {

/// Takes a report from the catalogue and writes it into a new file; nothing is there where it fails.
Outcome makeReport(const Catalogue& catalogue, const ReportChoices& choices, ReportForm form,
                   const BytePath& to, RunControl& control, const ProgressSink& onProgress);

} // namespace sober
