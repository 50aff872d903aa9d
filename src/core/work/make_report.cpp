#include "core/work/make_report.h"

#include "core/base/file_handle.h"
#include "core/base/text.h"
#include "core/remedy/write_report.h"

namespace sober {

Outcome makeReport(const Catalogue& catalogue, const ReportChoices& choices, ReportForm form,
                   const BytePath& to, RunControl& control, const ProgressSink& onProgress,
                   const PageWords& words) {
    // Said before the catalogue is read, not after.
    if (isTaken(to)) {
        return Error{Cause::alreadyThere, to, displayPath(to) + " is there already: name another file."};
    }
    const auto report = reportOf(catalogue, choices, control, onProgress);
    RETURN_IF_FAILED(report);
    const auto text = reportText(*report, form);
    return writeReportTo(to, words && form == ReportForm::html ? words(text) : text);
}

} // namespace sober
