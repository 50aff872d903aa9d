#pragma once

#include "core/base/run_control.h"
#include "core/catalogue/catalogue.h"
#include "core/survey/survey.h"

namespace sober {

/// What follows surveys, in one order: recordings are matched where something was read, the players' lists
/// read, and the findings brought up to date. True where it was stopped before all was matched.
Result<bool> takeInSurvey(Catalogue& catalogue, const SurveyReport& report, RunControl& control,
                          const ProgressSink& onProgress);

/// The same where something came to be known in another way.
Result<bool> takeInChanges(Catalogue& catalogue, RunControl& control, const ProgressSink& onProgress);

} // namespace sober
