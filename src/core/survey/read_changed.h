#pragma once

#include "core/survey/survey.h"
#include "core/survey/walk.h"

namespace sober {

/// The second half of a survey: holds what the walk has met against what is remembered, reads what
/// is new or changed on all cores, recognises moves, and marks what is gone, writing it all down as
/// it goes. What lies below one of `inFull` (relative folders) is examined at full effort, whatever the
/// volume's is. Fills the report's counts. Fails only where the catalogue cannot be written or the volume
/// vanished; then nothing is called missing.
Outcome readChanged(Catalogue& catalogue, const Volume& volume, Walk walk, RememberedFiles remembered,
                    std::vector<BytePath> inFull, RunControl& control, const ProgressSink& onProgress,
                    SurveyReport& report);

} // namespace sober
