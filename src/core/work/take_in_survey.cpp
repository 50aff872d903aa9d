#include "core/work/take_in_survey.h"

#include "core/audit/match_recordings.h"
#include "core/audit/refresh_findings.h"
#include "core/players/read_players.h"

namespace sober {

namespace {

Result<bool> takeIn(Catalogue& catalogue, bool changed, RunControl& control, const ProgressSink& onProgress) {
    const auto matched =
        changed ? matchRecordings(catalogue, control, onProgress) : Result<MatchReport>(MatchReport{});
    // Whatever failed before, what was surveyed is to be seen.
    RunControl toTheEnd;
    const auto read = readPlayers(catalogue, toTheEnd);
    const auto refreshed = refreshFindings(catalogue);
    if (!matched || !read || !refreshed) {
        return !matched ? matched.error() : !read ? read.error() : refreshed.error();
    }
    return matched->interrupted;
}

} // namespace

Result<bool> takeInSurvey(Catalogue& catalogue, const SurveyReport& report, RunControl& control,
                          const ProgressSink& onProgress) {
    // What is gone may have been what tied two others.
    const bool changed = !report.interrupted && (report.bytesRead > 0 || report.missing > 0);
    return takeIn(catalogue, changed, control, onProgress);
}

Result<bool> takeInChanges(Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress) {
    return takeIn(catalogue, true, control, onProgress);
}

} // namespace sober
